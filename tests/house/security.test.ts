import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

/** What docs/security.md says is held by tests that are there. */

const root = fileURLToPath(new URL('../..', import.meta.url));
const text = readFileSync(`${root}/docs/security.md`, 'utf8');
const rows = text.split('\n').filter((line) => line.startsWith('| ') && !/^\| (item|---)/.test(line));

test('every item names how it is met, and by which test', () => {
	expect(rows.length).toBeGreaterThan(60);
	for (const row of rows) {
		const cells = row.slice(1, -1).split(' | ');
		expect(cells, row).toHaveLength(3);
		const named = [...cells[2]!.matchAll(/`([^`]+)`/g)].map(([, file]) => file!);
		expect(named.length, row).toBeGreaterThan(0);
		for (const file of named) expect(existsSync(`${root}/${file}`), file).toBe(true);
	}
});

test('each chapter of the standard is spoken of', () => {
	for (let chapter = 1; chapter <= 17; chapter++) expect(text).toMatch(new RegExp(`\\bV${chapter}\\b`));
});

test('the server starts no program, and takes no chance that can be foretold', () => {
	for (const folder of ['src/server', 'src/routes', 'src/core'])
		for (const file of readdirSync(`${root}/${folder}`, { recursive: true, encoding: 'utf8' })) {
			if (!/\.(ts|svelte)$/.test(file) || file.endsWith('.test.ts')) continue;
			const code = readFileSync(`${root}/${folder}/${file}`, 'utf8');
			expect(code, file).not.toMatch(/Math\.random\(/);
			// Its own drawer, of this same Node, with no word of a user.
			if (file === 'pictures/vector.ts')
				expect(code.match(/spawn\(\S+ \['-e', \w+,/g)).toEqual(["spawn(process.execPath, ['-e', PROGRAM,"]);
			else expect(code, file).not.toMatch(/child_process/);
		}
});
