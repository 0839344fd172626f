import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';

/** The worked examples of CONTRIBUTING, carried out in a copy of the sources: they fit, their types hold, and what they add runs. */

const root = join(import.meta.dirname, '../..');
interface Example {
	readonly file: string;
	/** Without it the file is new. */
	readonly at?: { readonly side: 'behind' | 'before'; readonly text: string };
	readonly code: string;
}

const BLOCK = /^```\w+ (?:new (\S+)|in (\S+), (behind|before) "(.+)")\n([^]*?)^```$/gm;
const examples = [...readFileSync(join(root, 'CONTRIBUTING.md'), 'utf8').matchAll(BLOCK)].map(
	([, isNew, file, side, text, code]): Example => ({
		...{ file: (isNew ?? file)!, code: code! },
		...(side && { at: { side: side as 'behind' | 'before', text: text! } })
	})
);

/** A file with an example in it. */
function withExample(whole: string, { at, code, file }: Example): string {
	const lines = whole.split('\n');
	const found = lines.findIndex((line) => line.includes(at!.text));
	if (found < 0) throw new Error(`No line of ${file} holds what CONTRIBUTING.md names: ${at!.text}`);
	lines.splice(at!.side === 'behind' ? found + 1 : found, 0, code.trimEnd());
	return lines.join('\n');
}

let copy = '';
beforeAll(() => {
	copy = mkdtempSync(join(tmpdir(), 'kephalon-worked-'));
	const kit = ['tsconfig.json', 'ambient.d.ts', 'non-ambient.d.ts', 'types'].map((name) => `.svelte-kit/${name}`);
	const own = ['package.json', 'tsconfig.json', 'svelte.config.js', 'vite.config.ts', 'vite.cli.config.ts'];
	// Tests have their own turn.
	for (const one of ['src', 'bin', 'demo', 'conformance', ...kit, ...own])
		cpSync(join(root, one), join(copy, one), { recursive: true, filter: (name) => !name.endsWith('.test.ts') });
	symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
	for (const example of examples) {
		const file = join(copy, example.file);
		mkdirSync(dirname(file), { recursive: true });
		writeFileSync(file, example.at ? withExample(readFileSync(file, 'utf8'), example) : example.code, {
			flag: example.at ? 'w' : 'wx'
		});
	}
	writeFileSync(join(copy, 'src/worked.test.ts'), RUNS);
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

/** What each example adds is there, and does what it says; run in the copy. */
const RUNS = `import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Command } from 'commander';
import { afterAll, expect, test, vi } from 'vitest';
import { cardOf, describeFinding, findOnPage, READERS, Resolver, type Page, type Site } from '$core';
import { addTide } from './cli/verbs/tide';
import { refuse } from './server/errors';
import { takeContent } from './server/imports/content';
import { RELEASES } from './server/http/rows/releases';
import { JOBS } from './server/jobs/jobs';
import { saveSiteFile } from './server/siteFile/siteFile';
import { Store } from './server/store/store';

const site: Site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [
		{ tag: 'title', kind: 'template', template: '{page.title}' },
		{ tag: 'og:tide', kind: 'template', template: '{page.title | backwards}' }
	]
};
const types = [{ name: 'page', fields: [], rules: [] }];
const page: Page = { path: '/pier', type: 'page', state: 'live', fields: { title: 'THE PIER' }, rules: [] };
const resolver = new Resolver({ site, types, pictures: [], others: () => undefined } as never, '2026-05-03T00:00:00Z');
const folder = mkdtempSync(join(tmpdir(), 'worked-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('a tag, by a filter of the template language', () => {
	const head = resolver.resolveHead(page);
	expect(head.tags.find(({ tag }) => tag.name === 'og:tide')?.value).toBe('REIP EHT');
});
test('a kind of finding', () => {
	const evaluation = resolver.evaluate(page);
	const found = findOnPage(page, resolver.headOf(evaluation), evaluation).find(({ code }) => code === 'shouted');
	expect(found && describeFinding(found)).toBe('title is written in capitals alone');
});
test('a reader', () => {
	const reader = READERS.find(({ id }) => id === 'coxswain')!;
	expect(cardOf(reader, resolver.resolveHead(page)).title.shown).toBe('THE PIER');
});
test('a refusal', () => {
	expect(() => {
		throw refuse('tide-too-high', { metres: 4 });
	}).toThrow('The water stands 4 m high: wait for the ebb.');
});
test('a migration, a filter of the table, a job', () => {
	const db = join(folder, 'k.db');
	const store = new Store(db);
	store.db.prepare('INSERT INTO tide (day, metres) VALUES (?, ?)').run('2026-05-03', 4.2);
	const wide = { ...page, path: '/a-long-path-of-a-page', fields: { title: 'W'.repeat(80) } };
	saveSiteFile(store, { site, types, pages: [page, wide], pictures: [], redirects: {} } as never);
	JOBS.refresh({ db, site: 'S' }, () => undefined);
	const { id } = store.working.sites.named('S');
	const rows = store.table.lists.rows(id, { wide: 'yes' }, { sort: 'path', down: false, offset: 0, limit: 9 });
	expect(rows.map(({ path }) => path)).toEqual(['/a-long-path-of-a-page']);
	store.close();
	expect(JOBS.longPaths({ db, site: 'S', letters: 10 })).toBe(1);
});
test('a route', () => {
	expect(RELEASES['GET /sites/{site}/tide']({ site: 'S' } as never)).toEqual({ site: 'S', metres: 0 });
});
test('a source of content', async () => {
	const store = new Store(join(folder, 'tides.db'));
	const source = { kind: 'tides', days: { '2026-05-03': 4.2, '2026-05-04': 3.9 } } as const;
	expect(await takeContent(store, 'T', 'https://t.example/', source)).toMatchObject({ pages: 2 });
	const { id } = store.working.sites.named('T');
	expect(store.working.pages.at(id, '/tides/2026-05-04')?.fields.title).toBe('3.9 m');
	store.close();
});
test('a verb', async () => {
	const said = vi.spyOn(process.stdout, 'write').mockReturnValue(true);
	const program = new Command();
	addTide(program);
	await program.parseAsync(['node', 'kephalon', 'tide']);
	expect(said).toHaveBeenCalledWith('It is low water.\\n');
	said.mockRestore();
});
`;

const inCopy = (...command: string[]) => {
	const [program = '', ...rest] = command;
	const at = join(root, 'node_modules/.bin', program);
	const { status, stdout, stderr } = spawnSync(at, rest, { cwd: copy, encoding: 'utf8', timeout: 500_000 });
	return { status, said: `${stdout}\n${stderr}` };
};

describe('the worked examples of CONTRIBUTING', () => {
	test('name what there is to add', () => {
		const files = new Set(examples.map(({ file }) => file));
		expect(examples.length).toBeGreaterThanOrEqual(27);
		expect(files.size).toBeGreaterThanOrEqual(22);
	});
	test('run', () => {
		const { status, said } = inCopy('vitest', 'run', 'src/worked.test.ts', '--reporter=dot');
		expect([status, said]).toEqual([0, expect.stringContaining('8 passed') as string]);
	});
	test('hold by their types, with nothing left out', () => {
		const { status, said } = inCopy('tsc', '--noEmit', '-p', 'tsconfig.json');
		expect([said.trim(), status]).toEqual(['', 0]);
	});
});
