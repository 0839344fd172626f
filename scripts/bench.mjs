import { build, install, root } from './prepare.mjs';

process.chdir(root);
install();
build();
await import(new URL('../build/cli/bench.js', import.meta.url).href);
console.log();
await import(new URL('../build/cli/stream.js', import.meta.url).href);
console.log();
await import(new URL('../build/cli/composing.js', import.meta.url).href);
await import(new URL('../build/cli/spine.js', import.meta.url).href);
console.log();
await import(new URL('../build/cli/delivery.js', import.meta.url).href);
console.log();
await import(new URL('../build/cli/probes.js', import.meta.url).href);
console.log();
await import(new URL('../build/cli/browser.js', import.meta.url).href);
await import(new URL('../build/cli/scroll.js', import.meta.url).href);
await import(new URL('../build/cli/crowd.js', import.meta.url).href);
console.log();
for (const part of ['programs', 'grown', 'templates', 'readers'])
	await import(new URL(`../build/cli/${part}.js`, import.meta.url).href);
