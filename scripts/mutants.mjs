/**
 * Puts small faults into the code, one at a time, and counts how many the unit tests notice. `npm run mutants` goes over
 * src/core, `npm run mutants -- src/server/store` over a folder of the server; a file can be named too. All of the core
 * takes hours, so it is no part of the tests; `npm run mutants -- src/core --one-in 10` tries lines chosen by chance,
 * the same ones for the same `--seed`. The report lies in build/mutants.
 */
import { spawnSync } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { build, install, root } from './prepare.mjs';

/** The code's own files at a place, without the tests. */
function filesOf(/** @type {string} */ place) {
	if (place.endsWith('.ts')) return [place];
	return readdirSync(place, { recursive: true, encoding: 'utf8' })
		.filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
		.map((name) => join(place, name))
		.sort();
}

/** Numbers from 0 up to 1, the same ones for the same seed. */
function chance(/** @type {number} */ seed) {
	let state = seed;
	return () => {
		state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
		return state / 2 ** 32;
	};
}

/** Lines chosen by chance, one in so many, as the tester takes them. */
function someLines(/** @type {string[]} */ files, /** @type {number} */ oneIn, /** @type {number} */ seed) {
	const next = chance(seed);
	return files.flatMap((file) =>
		readFileSync(file, 'utf8')
			.split('\n')
			.flatMap((_, at) => (next() < 1 / oneIn ? [`${file}:${at + 1}-${at + 1}`] : []))
	);
}

process.chdir(root);
install();
build();
const { values, positionals } = parseArgs({
	allowPositionals: true,
	options: { 'one-in': { type: 'string', default: '1' }, seed: { type: 'string', default: '1' } }
});
const [place = 'src/core'] = positionals;
const files = filesOf(place);
const oneIn = Number(values['one-in']);
const mutate = oneIn > 1 ? someLines(files, oneIn, Number(values.seed)) : files;
const { status } = spawnSync('npx', ['stryker', 'run', 'stryker.config.json', '--mutate', mutate.join(',')], {
	stdio: 'inherit',
	env: {
		...process.env,
		KEPHALON_MUTANTS: place.startsWith('src/server') ? 'src/server' : 'src/core',
		KEPHALON_THREAD: join(root, 'build/cli/thread.js')
	}
});
process.exit(status ?? 1);
