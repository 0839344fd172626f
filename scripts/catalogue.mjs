/** Writes docs/catalogue.json anew from the code; a test holds the two to each other. */
import { spawnSync } from 'node:child_process';
import { root } from './prepare.mjs';

process.chdir(root);
process.exit(
	spawnSync('npx', ['vitest', 'run', 'src/core/catalogue'], {
		stdio: 'inherit',
		env: { ...process.env, KEPHALON_WRITE: '1' }
	}).status ?? 1
);
