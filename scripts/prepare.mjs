/** What the two commands have in common: packages installed and everything built, each only when something changed. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));
const inRoot = (/** @type {string} */ path) => join(root, path);

/** Runs a program with its output shown; ends this one when it fails. */
export function run(/** @type {string} */ command, /** @type {string[]} */ args) {
	const { status, error } = spawnSync(command, args, {
		cwd: root,
		stdio: 'inherit',
		shell: process.platform === 'win32'
	});
	if (error) console.error(`${command} could not be started: ${error.message}`);
	if (status !== 0) process.exit(status ?? 1);
}

function filesBelow(/** @type {string} */ path) {
	if (!existsSync(inRoot(path))) return [];
	if (statSync(inRoot(path)).isFile()) return [path];
	/** @type {string[]} */
	const below = readdirSync(inRoot(path)).flatMap((name) => filesBelow(join(path, name)));
	return below;
}

/** One hash over the contents of files and folders. */
function fingerprint(/** @type {string[]} */ paths) {
	const hash = createHash('sha256').update(process.version);
	for (const file of paths
		.flatMap(filesBelow)
		.filter((name) => !name.endsWith('.test.ts'))
		.sort())
		hash.update(file).update(readFileSync(inRoot(file)));
	return hash.digest('hex');
}

/** Does the work when the fingerprint differs from the one left by the last time it was done. */
function whenChanged(/** @type {string} */ stamp, /** @type {string[]} */ paths, /** @type {() => void} */ work) {
	const now = fingerprint(paths);
	if (existsSync(inRoot(stamp)) && readFileSync(inRoot(stamp), 'utf8') === now) return;
	work();
	mkdirSync(dirname(inRoot(stamp)), { recursive: true });
	writeFileSync(inRoot(stamp), now);
}

/** Installs the packages that the lock file names, unless they are there. */
export function install() {
	const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
	if (major < 20 || (major === 20 && minor < 19)) {
		console.error(
			`Kephalon needs Node 20.19 or newer; this is ${process.version}. Install a newer Node and try again.`
		);
		process.exit(2);
	}
	whenChanged('node_modules/.kephalon-installed', ['package.json', 'package-lock.json'], () => {
		console.log('Installing packages …');
		run('npm', ['ci', '--no-audit', '--no-fund']);
	});
}

/** Builds the web application, the command and the demo. */
export function build() {
	const sources = [
		'src',
		'demo',
		'bench',
		// What the bench makes templates with.
		'conformance/chance.ts',
		'conformance/templates.ts',
		'conformance/values.ts',
		'static',
		'package-lock.json',
		'vite.config.ts',
		'vite.cli.config.ts',
		'svelte.config.js',
		'tsconfig.json'
	];
	whenChanged('build/.kephalon-built', sources, () => {
		console.log('Building …');
		run('npx', ['vite', 'build', '--logLevel', 'warn']);
		run('npx', ['vite', 'build', '--config', 'vite.cli.config.ts', '--logLevel', 'warn']);
	});
}
