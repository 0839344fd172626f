import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { Store } from '$server/store/store';

/** Folders that people keep their content in: Markdown with front matter, and a site file as small files. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-folders-'));
afterAll(() => rmSync(top, { recursive: true, force: true }));

let [work, db] = ['', ''];
beforeEach(() => {
	work = mkdtempSync(join(top, 'w-'));
	db = join(work, 'k.db');
});
const env = () => ({ ...process.env, KEPHALON_DB: db });
const run = (...args: string[]) =>
	spawnSync(process.execPath, [program, ...args], { encoding: 'utf8', cwd: work, env: env() });
function done(...args: string[]) {
	const { status, stdout, stderr } = run(...args);
	expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
	return { stdout, stderr };
}
function write(path: string, text: string) {
	mkdirSync(dirname(join(work, path)), { recursive: true });
	writeFileSync(join(work, path), text);
}
const read = (path: string) => readFileSync(join(work, path), 'utf8');
function withSite<T>(name: string, look: (store: Store, id: number) => T): T {
	const store = new Store(db);
	try {
		return look(store, store.working.sites.named(name).id);
	} finally {
		store.close();
	}
}
const pageAt = (path: string) => withSite('Docs', (store, id) => store.working.pages.at(id, path));
const say = (path: string, tag: string, template: string) =>
	withSite('Docs', (store, id) =>
		store.working.rules.set(id, { layer: 'page', path }, tag, undefined, { kind: 'template', template })
	);

const PROSE = 'The marsh is flooded twice a day and is never the same.';
const FILES = {
	'content/_index.md': '---\ntitle: Merrow\n---\n# Welcome\n',
	'content/walks/one.md': `---\n# By hand\ntitle:   'Walk one'   # a remark\ndate: 2026-05-03\ntags: [sea, cliffs]\nimage: /one.jpg\n---\n\n# Another heading\n\n[Home](/) · [Walks](/walks)\n\n${PROSE}\n`,
	'content/walks/two.md':
		'+++\ntitle = "Walk two"\ndescription = "By its author"\ndraft = true\ndate = 2026-05-04\n+++\nText\n',
	'content/walks/two.fr.md': '+++\ntitle = "Promenade deux"\n+++\nTexte\n',
	'content/notes/three.md': '{\n  "title": "Note three",\n  "slug": "third"\n}\n\nText\r\n',
	'content/plain.md': `# A plain page\n\n${PROSE}\n`,
	'content/broken.md': '---\ntitle: [\n---\n'
};

describe('a folder of Markdown', () => {
	beforeEach(() => {
		for (const [path, text] of Object.entries(FILES)) write(path, text);
	});
	const take = (...more: string[]) =>
		done('import', 'content', '--base', 'https://docs.example', '--site', 'Docs', ...more);

	test('fields come by name, prose sums up, drafts are drafts, languages and types by name and folder', () => {
		const { stderr } = take();
		expect(stderr).toContain('broken.md');
		expect(pageAt('/walks/one/')).toMatchObject({
			type: 'walks',
			state: 'live',
			fields: {
				title: 'Walk one',
				published: '2026-05-03',
				tags: ['sea', 'cliffs'],
				picture: { src: '/one.jpg' },
				summary: PROSE
			}
		});
		expect(pageAt('/walks/two/')).toMatchObject({
			state: 'draft',
			fields: { title: 'Walk two', summary: 'By its author', published: '2026-05-04' }
		});
		expect(pageAt('/walks/two.fr/')).toMatchObject({ language: 'fr', state: 'live' });
		expect(pageAt('/notes/third/')).toMatchObject({ type: 'notes', fields: { title: 'Note three' } });
		expect(pageAt('/plain/')).toMatchObject({ type: 'page', fields: { title: 'A plain page', summary: PROSE } });
		expect(pageAt('/')).toMatchObject({ fields: { title: 'Merrow' } });
	});

	test('overrides go back into the front matter, by choice; everything else stays byte for byte', () => {
		take();
		say('/walks/one/', 'title', '{page.title} by the sea');
		say('/walks/one/', 'description', 'New words: "for" the walk');
		say('/notes/third/', 'description', 'Of the note');
		const dry = done('export', '--site', 'Docs', '--front-matter', 'content', '--dry-run').stderr;
		expect(dry).toContain('Would write 2 files');
		expect(read('content/walks/one.md')).toBe(FILES['content/walks/one.md']);
		done('export', '--site', 'Docs', '--front-matter', 'content', '--tags', 'title');
		expect(read('content/walks/one.md')).toBe(
			FILES['content/walks/one.md'].replace("'Walk one'", '"Walk one by the sea"')
		);
		expect(read('content/notes/three.md')).toBe(FILES['content/notes/three.md']);
		const { stderr } = done('export', '--site', 'Docs', '--front-matter', 'content');
		expect(stderr).toContain('Wrote 2 files');
		expect(stderr).toContain('broken.md');
		expect(read('content/notes/three.md')).toBe(
			FILES['content/notes/three.md'].replace('{\n', '{\n  "description": "Of the note",\n')
		);
		for (const path of ['content/walks/two.md', 'content/plain.md', 'content/broken.md'] as const)
			expect(read(path)).toBe(FILES[path]);
		// Read again, the file says it itself.
		take();
		expect(pageAt('/walks/one/')!.fields.title).toBe('Walk one by the sea');
		expect(run('export', '--site', 'Docs', '--front-matter', 'content', '--tags', 'robots')).toMatchObject({
			status: 2
		});
	});

	test('beside HTML, Markdown is no content', () => {
		write('content/index.html', '<title>Home</title>');
		take();
		expect(pageAt('/plain/')).toBeUndefined();
		expect(pageAt('/')!.fields.title).toBe('Home');
	});
});

describe('a site file as a folder', () => {
	beforeEach(() => {
		for (const name of ['index', 'a', 'A', 'walks/index', 'walks/one', 'con', 'ä b'])
			write(`site/${name}.html`, `<title>${name}</title>`);
		done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
		say('/a.html', 'title', 'By hand');
	});
	const files = (folder: string) =>
		(readdirSync(join(work, folder), { recursive: true }) as string[])
			.filter((name) => statSync(join(work, folder, name)).isFile())
			.sort();

	test('a file for each page, written only where something has changed, and the same again', () => {
		done('export', '--site', 'Docs', '--out', 'folder/');
		done('export', '--site', 'Docs', '--out', 'whole.json');
		expect(files('folder')).toContain('pages/walks/index.json');
		expect(files('folder').filter((name) => name.startsWith('pages/'))).toHaveLength(7);
		// Two that differ by case alone stand beside each other on every file system.
		const [first, second] = files('folder').filter((name) => /^pages\/a/i.test(name));
		expect(first!.toLowerCase()).not.toBe(second!.toLowerCase());
		say('/walks/one.html', 'title', 'One, by hand');
		withSite('Docs', (store, id) => store.working.pages.remove(id, '/con.html'));
		const before = Object.fromEntries(
			files('folder').map((name) => [name, statSync(join(work, 'folder', name)).mtimeMs])
		);
		expect(done('export', '--site', 'Docs', '--out', 'folder').stderr).toContain('Wrote 1 file of folder, took 1 away');
		const touched = files('folder').filter((name) => statSync(join(work, 'folder', name)).mtimeMs !== before[name]);
		expect(touched).toEqual(['pages/walks/one.html.json']);
		// Into another database, and out again as one document.
		db = join(work, 'other.db');
		done('import', 'folder');
		done('export', '--site', 'Docs', '--out', 'again/');
		expect(files('again')).toEqual(files('folder'));
		for (const name of files('again')) expect(read(`again/${name}`)).toBe(read(`folder/${name}`));
	});

	test('what is wrong in a file is told by its name; a folder of something else is left alone', () => {
		done('export', '--site', 'Docs', '--out', 'folder/');
		write('folder/pages/walks/one.html.json', read('folder/pages/walks/one.html.json').replace('"live"', '"alive"'));
		expect(run('import', 'folder')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('pages/walks/one.html.json: /state')
		});
		write('folder/pages/walks/one.html.json', '{');
		expect(run('import', 'folder').stderr).toContain('pages/walks/one.html.json');
		expect(run('export', '--site', 'Docs', '--out', 'site/')).toMatchObject({ status: 2 });
		expect(files('site')).toHaveLength(7);
	});

	test('is read while serving, whenever it changes; what was changed here as well is not overwritten', async () => {
		done('export', '--site', 'Docs', '--out', 'folder/');
		const child = spawn(process.execPath, [program, 'serve', '--port', '0', '--watch', 'folder'], {
			cwd: work,
			env: env()
		});
		let text = '';
		for (const stream of [child.stdout, child.stderr]) stream.on('data', (data: Buffer) => (text += data.toString()));
		const heard = (what: string, times: number) =>
			expect.poll(() => text.split(what).length - 1, { timeout: 120_000 }).toBe(times);
		try {
			await heard('into "Docs"', 1);
			const file = 'folder/pages/walks/one.html.json';
			write(file, read(file).replace('"walks/one"', '"Walk one, anew"'));
			await heard('into "Docs"', 2);
			expect(pageAt('/walks/one.html')!.fields.title).toBe('Walk one, anew');
			write(file, '{');
			await heard('was not read', 1);
			write(file, read('folder/pages/walks/index.json').replaceAll('/walks/', '/walks/one.html'));
			await heard('into "Docs"', 3);
			done('pages', '--site', 'Docs', '--columns', 'path', '--out', 'pages.csv');
			write('pages.csv', read('pages.csv').replace('/walks/one.html,,', '/walks/one.html,Changed here,'));
			const at = /at (http:\/\/[\d.:]+)/.exec(text)![1];
			const answer = await fetch(`${at}/api/sites/Docs/csv`, {
				method: 'POST',
				headers: { 'content-type': 'application/octet-stream' },
				body: read('pages.csv')
			});
			expect(await answer.json()).toMatchObject({ told: { changes: { count: 1 } } });
			write(file, `${read(file)}\n`);
			await heard('was not read', 2);
			expect(text).toContain('/walks/one.html: the rule for title');
		} finally {
			const gone = new Promise((resolve) => child.once('exit', resolve));
			child.kill('SIGTERM');
			await gone;
		}
		expect(run('serve', '--watch', 'site')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('no site file')
		});
	});
});

test('what a program wrote of each page is told, and taken as its author’s by one word, until it is taken back', () => {
	for (let at = 0; at < 12; at++)
		write(
			`site/c${at}.html`,
			`<title>C${at}</title><meta name="description" content="declaration: module: m${at}, package: p${at}, class: C${at}">`
		);
	const take = (...more: string[]) =>
		done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs', ...more).stderr;
	const formula = '12 pages, description: “declaration: module: * package: * class: *”';
	expect(take()).toContain(formula);
	expect(take('--keep-formulas')).not.toContain('by a formula');
	expect(take()).not.toContain('by a formula');
	expect(take('--no-keep-formulas')).toContain(formula);
});

describe('a workbook', () => {
	test('goes out and comes back; what is rewritten is taken when that is said; a sheet is named', () => {
		write('site/index.html', '<title>Home</title>');
		write('site/a.html', '<title>A</title>');
		done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
		say('/a.html', 'title', '3.10');
		done('pages', '--site', 'Docs', '--columns', 'path', '--out', 'pages.xlsx');
		expect(done('pages', '--site', 'Docs', '--read', 'pages.xlsx', '--sheet', 'Docs').stderr).toContain(
			'0 overrides were changed, 2 rows are as they were'
		);
		expect(run('pages', '--site', 'Docs', '--read', 'pages.xlsx', '--sheet', 'Other')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('no sheet “Other”. There are: Docs.')
		});
		done('pages', '--site', 'Docs', '--columns', 'path', '--out', 'pages.csv');
		write('pages.csv', read('pages.csv').replace('3.10', '3.1'));
		const left = run('pages', '--site', 'Docs', '--read', 'pages.csv');
		expect(left).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('1 cell looks rewritten by a spreadsheet')
		});
		expect(done('pages', '--site', 'Docs', '--read', 'pages.csv', '--take-rewritten').stderr).toContain(
			'1 override was changed'
		);
		// The same file as content: a row a page, the sheet by its name.
		const more = ['--base', 'https://docs.example', '--site', 'New', '--type', 'note'];
		const taken = done('import', 'pages.xlsx', ...more, '--sheet', 'Docs', '--map', 'page says: title=title');
		expect(taken.stderr).toContain('Read 2 pages');
		expect(withSite('New', (store, id) => store.working.pages.at(id, '/a.html'))).toMatchObject({
			type: 'note',
			fields: { title: '3.10' }
		});
		expect(run('import', 'pages.xlsx', ...more, '--sheet', 'None').stderr).toContain('no sheet “None”');
	});
});
