/** The quick part of the tests, while one works: lint of what changed, types, and the core's tests, side by side. */
import { execFileSync, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { install, root } from './prepare.mjs';

process.chdir(root);
install();
const began = performance.now();
const results = await Promise.all([
	part('lint', ...linting()),
	part('types', 'svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human'),
	part('the core', 'vitest', 'run', 'src/core', '--changed', 'HEAD', '--passWithNoTests', '--reporter=dot')
]);
console.log(`\n${((performance.now() - began) / 1000).toFixed(0)} s`);
process.exit(results.every(Boolean) ? 0 : 1);

/** Lint of the files that differ from the last commit. */
function linting() {
	const git = (/** @type {string[]} */ ...args) =>
		execFileSync('git', args, { encoding: 'utf8' }).split('\n').filter(Boolean);
	const changed = [...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')];
	const files = changed.filter((file) => /\.(ts|svelte|mjs|js)$/.test(file) && existsSync(file));
	return files.length > 0 ? ['eslint', '--max-warnings', '0', '--no-warn-ignored', ...files] : [];
}

/** Runs a part, and shows what it said when it is done; one without a command has nothing to do. */
function part(/** @type {string} */ name, /** @type {string[]} */ ...command) {
	if (command.length === 0) return Promise.resolve(true);
	return new Promise((resolve) => {
		const child = spawn('npx', command, { shell: process.platform === 'win32' });
		let told = '';
		for (const stream of [child.stdout, child.stderr])
			stream.on('data', (/** @type {Buffer} */ data) => (told += data));
		child.once('close', (code) => {
			const seconds = ((performance.now() - began) / 1000).toFixed(0);
			console.log(`— ${name}: ${code === 0 ? 'passed' : 'failed'} (${seconds} s)`);
			if (code !== 0) console.log(told);
			resolve(code === 0);
		});
	});
}
