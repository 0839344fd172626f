/** Writes a file anew that is made from the code: `node scripts/written.mjs <the test that holds the two to each other>`. */
import { spawnSync } from 'node:child_process';
import { root } from './prepare.mjs';

process.chdir(root);
process.exit(
	spawnSync('npx', ['vitest', 'run', ...process.argv.slice(2)], {
		stdio: 'inherit',
		env: { ...process.env, KEPHALON_WRITE: '1' }
	}).status ?? 1
);
