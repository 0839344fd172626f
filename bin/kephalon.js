#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const built = new URL('../build/cli/kephalon.js', import.meta.url);
if (!existsSync(fileURLToPath(built))) {
	process.stderr.write('Kephalon is not built yet. Run npm run build first.\n');
	process.exit(2);
}
process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('../build/cli/thread.js', import.meta.url));
await import(built.href);
