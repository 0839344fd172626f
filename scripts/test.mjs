/** All tests: lint, types, unit tests, browser tests. Ends with one line that counts them. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './prepare.mjs';

process.chdir(root);
install();
ensureBrowser();
build();

const results = mkdtempSync(join(tmpdir(), 'kephalon-test-'));
/** @type {[name: string, seconds: number][]} */
const times = [];
const stages = [
	timed('lint', (name) => stage(name, ['eslint', '.', '--max-warnings', '0'])),
	timed('format', (name) => stage(name, ['prettier', '--check', '--log-level', 'warn', '.'])),
	timed('types', (name) =>
		stage(name, ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human'])
	),
	timed('unit tests', (name) => vitest(name, 'vite.config.ts')),
	// What the machine is set to must not show in any head.
	timed('the core in Turkish, in New York', (name) => core(name, 'tr_TR.UTF-8', 'America/New_York')),
	timed('the core in Japanese, in New York', (name) => core(name, 'ja_JP.UTF-8', 'America/New_York')),
	timed('browser tests', (name) => vitest(name, 'vitest.browser.config.ts'))
];
for (const [name, seconds] of times) console.log(`${seconds.toFixed(0).padStart(5)} s  ${name}`);
const passed = stages.reduce((sum, one) => sum + one.passed, 0);
const failed = stages.reduce((sum, one) => sum + one.failed, 0);
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
	return status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
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
	if (!existsSync(file)) return { passed: 0, failed: 1 };
	const {
		numPassedTests: passed,
		numFailedTests: failed,
		numPendingTests: skipped
	} = JSON.parse(readFileSync(file, 'utf8'));
	// A skipped check is a defect; a run that failed outside of any test counts as one.
	return { passed, failed: failed + skipped || (status === 0 && passed > 0 ? 0 : 1) };
}

/** The browser tests drive Debian's chromium. */
function ensureBrowser() {
	if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
	if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
		console.log('Installing chromium and chromium-driver …');
		const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
		spawnSync('apt-get', ['update'], { stdio: 'ignore', env });
		spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium', 'chromium-driver'], {
			stdio: ['ignore', 'ignore', 'inherit'],
			env
		});
	}
	if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
	console.error(
		'The browser tests need /usr/bin/chromium and /usr/bin/chromedriver: install the packages chromium and chromium-driver.'
	);
	process.exit(2);
}
