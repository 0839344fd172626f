#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';

const built = new URL('../build/cli/kephalon.js', import.meta.url);
if (!existsSync(fileURLToPath(built))) {
	process.stderr.write('Kephalon is not built yet. Run npm run build first.\n');
	process.exit(2);
}
// Left to itself, the engine lets garbage grow to four times what is in use before it looks: on a large site that is all
// the memory there is. It holds for the threads as well.
setFlagsFromString('--heap-growing-percent=20');
process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../build/cli/thread.js', import.meta.url));
await import(built.href);
