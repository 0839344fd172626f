declare const __KEPHALON_VERSION__: string;
