import { build, install, root } from './prepare.mjs';

process.chdir(root);
install();
build();
const { main } = await import(new URL('../build/cli/demo.js', import.meta.url).href);
process.env.KEPHALON_THREAD = new URL('../build/cli/thread.js', import.meta.url).pathname;
await main(process.argv.slice(2));
