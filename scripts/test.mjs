/** All tests: lint, types, unit tests, browser tests. Ends with one line that counts them. */
import { spawn, spawnSync } from 'node:child_process';
import { accessSync, chmodSync, constants, existsSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { findChromium } from './chromium.mjs';
import { build, install, root } from './prepare.mjs';

/** @type {{ isThere: () => unknown, packages: string[], what: string }[]} */
const PROGRAMS = [
	{
		isThere: findChromium,
		packages: ['chromium', 'chromium-driver'],
		what: 'The browser tests need chromium and its driver on the path, or named by CHROMIUM and CHROMEDRIVER'
	},
	{ isThere: () => existsSync('/usr/sbin/nginx'), packages: ['nginx'], what: 'The tests of deploy/ need nginx' },
	{ isThere: () => existsSync('/usr/sbin/varnishd'), packages: ['varnish'], what: 'The tests of deploy/ need Varnish' },
	{
		isThere: () => existsSync('/usr/sbin/apache2'),
		packages: ['apache2-bin'],
		what: 'The tests of deploy/ need Apache'
	},
	{
		isThere: () => existsSync('/usr/bin/soffice'),
		packages: ['libreoffice-calc'],
		what: 'The tests of spreadsheets need LibreOffice Calc'
	}
];

process.chdir(root);
install();
ensurePrograms();
build();

/** Databases of tests are written and thrown away: in memory, where the system has such a folder with room enough. */
const MEMORY = '/dev/shm';
const ROOM = 4e9;
const results = mkdtempSync(join(hasRoom(MEMORY) ? MEMORY : tmpdir(), 'kephalon-test-'));
// Web servers that tests start go through it as somebody else.
chmodSync(results, 0o711);
process.env.TMPDIR = results;
process.once('exit', () => rmSync(results, { recursive: true, force: true }));
/** @type {[name: string, seconds: number][]} */
const times = [];
/** @type {string[]} what failed, by name: the last lines of a log are all that some readers of it get to see. */
const failures = [];
const unused = () => stage('unused code', ['knip']);
const types = () =>
	stage('types', ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human']);
// Side by side what leaves a processor idle, or needs only one.
const stages = [
	...(await together(
		() => stage('lint', ['eslint', '.', '--max-warnings', '0']),
		async () => [
			await stage('format', ['prettier', '--check', '--log-level', 'warn', '.']),
			await types(),
			await unused()
		]
	)),
	await vitest('unit tests', 'vite.config.ts', ['--coverage']),
	...(await together(
		() => vitest('browser tests', 'vitest.browser.config.ts'),
		// What the machine is set to must not show in any head.
		async () => [
			await core('the core in Turkish, in New York', 'tr_TR.UTF-8', 'America/New_York'),
			await core('the core in Japanese, in New York', 'ja_JP.UTF-8', 'America/New_York')
		]
	))
];
for (const [name, seconds] of times) console.log(`${seconds.toFixed(0).padStart(5)} s  ${name}`);
const passed = stages.reduce((sum, one) => sum + one.passed, 0);
const failed = stages.reduce((sum, one) => sum + one.failed, 0);
for (const failure of failures) console.log(`FAILED  ${failure}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

/** @typedef {{ passed: number, failed: number }} Result */

/** Whether a folder is there, can be written to, and takes what tests write. */
function hasRoom(/** @type {string} */ folder) {
	try {
		accessSync(folder, constants.W_OK);
		const { bavail, bsize } = statfsSync(folder);
		return bavail * bsize >= ROOM;
	} catch {
		return false;
	}
}

/** Runs parts side by side; gives the results of all. */
async function together(/** @type {(() => Promise<Result | Result[]>)[]} */ ...parts) {
	const results = await Promise.all(parts.map((part) => part()));
	return results.flat();
}

/** The tests of the core on a machine that is set to another language and time zone. */
function core(/** @type {string} */ name, /** @type {string} */ LC_ALL, /** @type {string} */ TZ) {
	return vitest(name, 'vite.config.ts', ['src/core'], { LC_ALL, LANG: LC_ALL, TZ });
}

/**
 * Runs a command, and shows what it said when it is done, so that what runs beside it is not mixed in; notes its time.
 * @returns {Promise<number | null>} its exit code
 */
function run(
	/** @type {string} */ name,
	/** @type {string[]} */ command,
	/** @type {NodeJS.ProcessEnv} */ env = process.env
) {
	const began = performance.now();
	return new Promise((resolve) => {
		const child = spawn('npx', command, { env, shell: process.platform === 'win32' });
		/** @type {Buffer[]} */
		const said = [];
		for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data));
		child.once('close', (code) => {
			times.push([name, (performance.now() - began) / 1000]);
			console.log(`\n— ${name}`);
			process.stdout.write(Buffer.concat(said));
			resolve(code);
		});
	});
}

/** A check that passes or fails as a whole. @returns {Promise<Result>} */
async function stage(/** @type {string} */ name, /** @type {string[]} */ command) {
	if ((await run(name, command)) === 0) return { passed: 1, failed: 0 };
	failures.push(name);
	return { passed: 0, failed: 1 };
}

/** @returns {Promise<Result>} */
async function vitest(
	/** @type {string} */ name,
	/** @type {string} */ config,
	/** @type {string[]} */ more = [],
	/** @type {Record<string, string>} */ env = { LC_ALL: 'en_GB.UTF-8', LANG: 'en_GB.UTF-8', TZ: 'UTC' }
) {
	const file = join(results, `${name.replace(/\W+/g, '-')}.json`);
	const status = await run(
		name,
		['vitest', 'run', ...more, '--config', config, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
		{ ...process.env, ...env }
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

/** The tests of a file that did not pass, each with why, in one line; the file itself where it could not be run. */
function notPassed(/** @type {TestFile} */ { name, status, message, assertionResults }) {
	const tests = assertionResults
		.filter((test) => test.status !== 'passed')
		.map(
			(test) => `${relative(root, name)} › ${test.fullName}: ${inOneLine(test.failureMessages?.[0] ?? test.status)}`
		);
	if (tests.length === 0 && status !== 'passed') tests.push(`${relative(root, name)}: ${inOneLine(message)}`);
	return tests;
}

/** What a message says before the places in the code, in one line: what a browser showed instead stands in its second. */
function inOneLine(/** @type {string} */ text) {
	return (text.split(/\n\s+at /)[0] ?? '').slice(0, 400).replace(/\s*\n\s*/g, ' ');
}

/** Programs of the machine that tests drive; Debian's are installed where there are none. */
function ensurePrograms() {
	const missing = PROGRAMS.filter(({ isThere }) => !isThere());
	if (missing.length === 0) return;
	if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
		const packages = missing.flatMap((one) => one.packages);
		console.log(`Installing ${packages.join(', ')} …`);
		const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
		spawnSync('apt-get', ['update'], { stdio: 'ignore', env });
		spawnSync('apt-get', ['install', '-y', '--no-install-recommends', ...packages], {
			stdio: ['ignore', 'ignore', 'inherit'],
			env
		});
	}
	const still = missing.filter(({ isThere }) => !isThere());
	for (const { packages, what } of still) console.error(`${what}: install ${packages.join(' and ')}.`);
	if (still.length > 0) process.exit(2);
}
