/**
 * The packages that Kephalon ships with: `audit` fails where a grave weakness of one is known, `bom` writes a bill of materials
 * (CycloneDX) to build/kephalon.cdx.json.
 */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const [what] = process.argv.slice(2);

function npm(/** @type {string[]} */ args) {
	const { stdout } = spawnSync('npm', args, {
		...{ cwd: root, encoding: 'utf8', maxBuffer: 100_000_000, timeout: 120_000 },
		shell: process.platform === 'win32'
	});
	try {
		return JSON.parse(stdout);
	} catch {
		return {};
	}
}

function audit() {
	const { metadata, vulnerabilities = {} } = npm(['audit', '--omit=dev', '--json']);
	if (!metadata?.vulnerabilities) {
		console.log('Not audited: the registry tells nothing of weaknesses.');
		return;
	}
	const grave = Object.values(vulnerabilities).filter(({ severity }) => ['high', 'critical'].includes(severity));
	for (const { name, severity, range } of grave) console.error(`${name} ${range}: ${severity}`);
	const { dependencies } = metadata;
	if (grave.length > 0) process.exit(1);
	console.log(`No grave weakness is known of the ${dependencies?.prod ?? 'packages'} packages that are shipped.`);
}

/** npm's own way to leave out what only tests need leaves out what both need, too: the lock file says which ship. */
function shipped() {
	const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
	return new Set(
		Object.entries(packages).flatMap(([path, { version, dev, devOptional }]) => {
			const at = path.lastIndexOf('node_modules/');
			return at < 0 || dev || devOptional ? [] : [`${path.slice(at + 'node_modules/'.length)}@${version}`];
		})
	);
}

function bom() {
	const bill = npm(['sbom', '--sbom-format=cyclonedx', '--package-lock-only']);
	if (!Array.isArray(bill.components)) throw new Error('npm made no bill of materials.');
	const ours = shipped();
	const isOurs = (/** @type {{ group?: string, name: string, version: string }} */ { group, name, version }) =>
		ours.has(`${group ? `${group}/` : ''}${name}@${version}`);
	const components = bill.components.filter(isOurs);
	const refs = new Set([bill.metadata.component, ...components].map((one) => one['bom-ref']));
	const dependencies = bill.dependencies
		.filter((/** @type {{ ref: string }} */ { ref }) => refs.has(ref))
		.map((/** @type {{ ref: string, dependsOn?: string[] }} */ { ref, dependsOn = [] }) => ({
			ref,
			dependsOn: dependsOn.filter((one) => refs.has(one))
		}));
	mkdirSync(join(root, 'build'), { recursive: true });
	writeFileSync(
		join(root, 'build/kephalon.cdx.json'),
		`${JSON.stringify({ ...bill, components, dependencies }, null, '\t')}\n`
	);
	console.log(`build/kephalon.cdx.json: ${components.length} packages.`);
}

if (what === 'audit') audit();
else if (what === 'bom') bom();
else {
	console.error('Say audit or bom.');
	process.exit(2);
}
