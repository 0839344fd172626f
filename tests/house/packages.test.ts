import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

/** The bill of materials has every package that ships, with the version that the lock file names. */

const root = fileURLToPath(new URL('../..', import.meta.url));
interface Locked {
	readonly version: string;
	readonly dev?: boolean;
	readonly devOptional?: boolean;
}

test('has all that the lock file ships, each with its version', { timeout: 60_000 }, () => {
	execFileSync(process.execPath, ['scripts/packages.mjs', 'bom'], { cwd: root });
	const bill = JSON.parse(readFileSync(`${root}/build/kephalon.cdx.json`, 'utf8')) as {
		bomFormat: string;
		components: { name: string; group?: string; version: string }[];
	};
	expect(bill.bomFormat).toBe('CycloneDX');
	const listed = new Set(
		bill.components.map(({ group, name, version }) => `${group ? `${group}/` : ''}${name}@${version}`)
	);
	const lock = JSON.parse(readFileSync(`${root}/package-lock.json`, 'utf8')) as { packages: Record<string, Locked> };
	const shipped = Object.entries(lock.packages).flatMap(([path, { version, dev, devOptional }]) => {
		const at = path.lastIndexOf('node_modules/');
		return at < 0 || dev || devOptional ? [] : [`${path.slice(at + 13)}@${version}`];
	});
	expect(shipped.length).toBeGreaterThan(100);
	expect(shipped.filter((one) => !listed.has(one))).toEqual([]);
	expect([...listed].filter((one) => /^(vitest|eslint|oidc-provider|smtp-server)@/.test(one))).toEqual([]);
});
