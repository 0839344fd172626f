/**
 * Puts small faults into the code, one at a time, and counts how many the unit tests notice. `npm run mutants` goes over
 * src/core, `npm run mutants -- src/server/store` over a folder of the server; a file can be named too. The report lies in
 * build/mutants. It takes hours over all of the core, so it is no part of the tests.
 */
import { spawnSync } from 'node:child_process';
import { install, root } from './prepare.mjs';

process.chdir(root);
install();
const [place = 'src/core'] = process.argv.slice(2);
const folder = place.startsWith('src/server') ? 'src/server' : 'src/core';
const mutate = place.endsWith('.ts') ? [place] : [`${place}/**/*.ts`, `!${place}/**/*.test.ts`];
const { status } = spawnSync('npx', ['stryker', 'run', 'stryker.config.json', '--mutate', mutate.join(',')], {
	stdio: 'inherit',
	env: { ...process.env, KEPHALON_MUTANTS: folder }
});
process.exit(status ?? 1);
