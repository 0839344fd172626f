/** All tests: lint, types, unit tests, browser tests. Ends with one line that counts them. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { findChromium } from './chromium.mjs';
import { build, install, root } from './prepare.mjs';

process.chdir(root);
install();
ensureBrowser();
build();

const results = mkdtempSync(join(tmpdir(), 'kephalon-test-'));
/** @type {[name: string, seconds: number][]} */
const times = [];
/** @type {string[]} what failed, by name: the last lines of a log are all that some readers of it get to see. */
const failures = [];
const stages = [
	timed('lint', (name) => stage(name, ['eslint', '.', '--max-warnings', '0'])),
	timed('format', (name) => stage(name, ['prettier', '--check', '--log-level', 'warn', '.'])),
	timed('types', (name) =>
		stage(name, ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human'])
	),
	timed('unused code', (name) => stage(name, ['knip'])),
	timed('unit tests', (name) => vitest(name, 'vite.config.ts')),
	// What the machine is set to must not show in any head.
	timed('the core in Turkish, in New York', (name) => core(name, 'tr_TR.UTF-8', 'America/New_York')),
	timed('the core in Japanese, in New York', (name) => core(name, 'ja_JP.UTF-8', 'America/New_York')),
	timed('browser tests', (name) => vitest(name, 'vitest.browser.config.ts'))
];
for (const [name, seconds] of times) console.log(`${seconds.toFixed(0).padStart(5)} s  ${name}`);
const passed = stages.reduce((sum, one) => sum + one.passed, 0);
const failed = stages.reduce((sum, one) => sum + one.failed, 0);
for (const failure of failures) console.log(`FAILED  ${failure}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

/** Notes how long a part took. */
function timed(/** @type {string} */ name, /** @type {(name: string) => { passed: number, failed: number }} */ part) {
	const began = performance.now();
	const result = part(name);
	times.push([name, (performance.now() - began) / 1000]);
	return result;
}

/** The tests of the core on a machine that is set to another language and time zone. */
function core(/** @type {string} */ name, /** @type {string} */ LC_ALL, /** @type {string} */ TZ) {
	return vitest(name, 'vite.config.ts', ['src/core'], { LC_ALL, LANG: LC_ALL, TZ });
}

/** A check that passes or fails as a whole. */
function stage(/** @type {string} */ name, /** @type {string[]} */ command) {
	console.log(`\n— ${name}`);
	const { status } = spawnSync('npx', command, { stdio: 'inherit' });
	if (status === 0) return { passed: 1, failed: 0 };
	failures.push(name);
	return { passed: 0, failed: 1 };
}

function vitest(
	/** @type {string} */ name,
	/** @type {string} */ config,
	/** @type {string[]} */ only = [],
	/** @type {Record<string, string>} */ env = { LC_ALL: 'en_GB.UTF-8', LANG: 'en_GB.UTF-8', TZ: 'UTC' }
) {
	console.log(`\n— ${name}`);
	const file = join(results, `${name.replace(/\W+/g, '-')}.json`);
	const { status } = spawnSync(
		'npx',
		['vitest', 'run', ...only, '--config', config, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
		{ stdio: 'inherit', env: { ...process.env, ...env } }
	);
	if (!existsSync(file)) {
		failures.push(`${name}: nothing was run`);
		return { passed: 0, failed: 1 };
	}
	const { numPassedTests: passed, testResults } = JSON.parse(readFileSync(file, 'utf8'));
	// A skipped check is a defect; a run that failed outside of any test counts as one.
	const wrong = testResults.flatMap((/** @type {TestFile} */ one) => notPassed(one));
	if (wrong.length === 0 && (status !== 0 || passed === 0)) wrong.push(`outside of any test (exit ${status})`);
	failures.push(...wrong.map((/** @type {string} */ one) => `${name}: ${one}`));
	return { passed, failed: wrong.length };
}

/**
 * @typedef {{ name: string, status: string, message: string, assertionResults: OneTest[] }} TestFile
 * @typedef {{ fullName: string, status: string, failureMessages: string[] }} OneTest
 */

/** The tests of a file that did not pass, each with the first line of why; the file itself where it could not be run. */
function notPassed(/** @type {TestFile} */ { name, status, message, assertionResults }) {
	const tests = assertionResults
		.filter((test) => test.status !== 'passed')
		.map(
			(test) => `${relative(root, name)} › ${test.fullName}: ${firstLine(test.failureMessages?.[0] ?? test.status)}`
		);
	if (tests.length === 0 && status !== 'passed') tests.push(`${relative(root, name)}: ${firstLine(message)}`);
	return tests;
}

/** What a message says first. */
function firstLine(/** @type {string} */ text) {
	return text.slice(0, 300).replace(/\n[^]*/, '');
}

/** The browser tests drive a chromium of the machine; Debian's is installed where there is none. */
function ensureBrowser() {
	if (findChromium()) return;
	if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
		console.log('Installing chromium and chromium-driver …');
		const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
		spawnSync('apt-get', ['update'], { stdio: 'ignore', env });
		spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium', 'chromium-driver'], {
			stdio: ['ignore', 'ignore', 'inherit'],
			env
		});
	}
	if (findChromium()) return;
	console.error(
		'The browser tests need chromium and its driver on the path: install the packages chromium and chromium-driver, or set CHROMIUM and CHROMEDRIVER.'
	);
	process.exit(2);
}
