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
const stages = [
	stage('lint', ['eslint', '.', '--max-warnings', '0']),
	stage('types', ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--output', 'human']),
	vitest('unit tests', 'vite.config.ts'),
	vitest('browser tests', 'vitest.browser.config.ts')
];
const passed = stages.reduce((sum, one) => sum + one.passed, 0);
const failed = stages.reduce((sum, one) => sum + one.failed, 0);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);

/** A check that passes or fails as a whole. */
function stage(/** @type {string} */ name, /** @type {string[]} */ command) {
	console.log(`\n— ${name}`);
	const { status } = spawnSync('npx', command, { stdio: 'inherit' });
	return status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

function vitest(/** @type {string} */ name, /** @type {string} */ config) {
	console.log(`\n— ${name}`);
	const file = join(results, `${config}.json`);
	const { status } = spawnSync(
		'npx',
		['vitest', 'run', '--config', config, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
		{ stdio: 'inherit' }
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
