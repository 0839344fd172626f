import {
	existsSync,
	lstatSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	readlinkSync,
	rmSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { Resolver, type FoundTag, type Page } from '$core';
import { decodeFile } from './encoding';
import { injectFolder, type GoneValue, type InjectOptions } from './injectFolder';

let root = '';
const at = (...names: string[]) => join(root, ...names);
const put = (name: string, content: string | Buffer) => {
	mkdirSync(dirname(at(name)), { recursive: true });
	writeFileSync(at(name), content);
};
const read = (name: string) => readFileSync(at(name), 'utf8');

beforeEach(() => {
	root = mkdtempSync(join(tmpdir(), 'kephalon-'));
	put('in/index.html', '<!doctype html>\n<head>\n<title>Old</title>\n</head>\n<p>Home.\n');
	put('in/walks/fox.html', '<!doctype html><head><meta name="description" content="Mine"></head><p>Fox.');
	put('in/other.html', '<!doctype html><title>Nobody knows me</title>');
	put('in/style.css', 'p { color: red }');
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

const pages: Record<string, Page> = Object.fromEntries(
	[
		['/', 'Home'],
		['/walks/fox', 'Fox “walk”']
	].map(([path, title]) => [
		path,
		{ path, type: 't', state: 'live', fields: { title, summary: 'A summary.' }, rules: [] } as unknown as Page
	])
);
const site = {
	...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
	rules: [{ tag: 'og:image', kind: 'leaveOut' as const }]
};
const resolver = new Resolver({ site, types: [], pictures: [] }, '');
const run = (more: Partial<InjectOptions> = {}, isOurs: (tag: FoundTag) => boolean = () => false) => {
	const gone: GoneValue[] = [];
	const seen: [number, number][] = [];
	const summary = injectFolder({
		...{ folder: at('in'), out: at('out'), dryRun: false, bare: true },
		headOf: (path) =>
			pages[path]
				? { head: resolver.resolveHead(pages[path]), leftOut: [], wasOurs: isOurs }
				: 'no live page of the site',
		onGone: (one) => gone.push(one),
		progress: (done, all) => seen.push([done, all]),
		...more
	});
	return { summary, gone, seen };
};

describe('into a copy', () => {
	test('each page gets its head, all else is copied as it is, and the input stays', () => {
		const before = read('in/index.html');
		const { summary, seen } = run();
		expect(summary).toEqual({
			gone: { title: 1, description: 1 },
			changed: ['index.html', 'walks/fox.html'],
			unchanged: 0,
			unknown: [{ path: 'other.html', why: 'no live page of the site' }],
			copied: 1,
			skipped: [],
			unsaid: { references: 1, stated: 0 }
		});
		expect(read('out/index.html')).toContain('<title>Home</title>');
		expect(read('out/index.html')).not.toContain('Old');
		expect(read('out/index.html')).toContain('<p>Home.\n');
		expect(read('out/walks/fox.html')).toContain('<title>Fox &#8220;walk&#8221;</title>');
		expect(read('out/other.html')).toBe(read('in/other.html'));
		expect(read('out/style.css')).toBe('p { color: red }');
		expect(read('in/index.html')).toBe(before);
		expect(seen).toEqual([1, 2, 3, 4].map((done) => [done, 4]));
		expect(readdirSync(at('out')).sort()).toEqual(['index.html', 'other.html', 'style.css', 'walks']);
	});
	test('each value that an author wrote and that goes out is named, with what stands there now', () => {
		const { gone } = run();
		expect(gone).toEqual([
			{ path: '/', tag: 'title', value: 'Old', now: 'Home' },
			{ path: '/walks/fox', tag: 'description', value: 'Mine', now: 'A summary.' }
		]);
	});
	test('what is the same, empty, or written here before goes out unnamed', () => {
		put(
			'in/index.html',
			'<head><title>Home</title><meta name="author" content=""><meta name="description" content="x">'
		);
		expect(run({}, ({ name, value }) => name === 'description' && value === 'x').gone).toEqual([
			{ path: '/walks/fox', tag: 'description', value: 'Mine', now: 'A summary.' }
		]);
	});
	test('what the head says no more has nothing in its place', () => {
		put('in/index.html', '<head><meta property="og:image" content="/a.jpg">');
		expect(run().gone[0]).toMatchObject({ tag: 'og:image', value: '/a.jpg' });
		expect(run().gone[0]?.now).toBeUndefined();
	});
	test('a second time changes nothing, and writes over what is there', () => {
		run();
		writeFileSync(at('out/style.css'), 'stale');
		const first = read('out/index.html');
		expect(run({ folder: at('out'), out: at('again') }).summary).toMatchObject({ changed: [], unchanged: 2 });
		expect(read('again/index.html')).toBe(first);
		run();
		expect(read('out/style.css')).toBe('p { color: red }');
	});
	test('a try leaves no file', () => {
		expect(run({ dryRun: true }).summary).toMatchObject({ changed: ['index.html', 'walks/fox.html'], copied: 1 });
		expect(existsSync(at('out'))).toBe(false);
	});
	test('a file in an encoding that allows no edit is copied, and said', () => {
		const bytes = Buffer.from('<head><meta charset="iso-2022-jp"><title>\x1b$B$"\x1b(B</title></head>', 'latin1');
		put('in/index.html', bytes);
		const { summary } = run();
		expect(summary.unknown).toContainEqual({ path: 'index.html', why: 'in an encoding that allows no edit' });
		expect(readFileSync(at('out/index.html')).equals(bytes)).toBe(true);
	});
	test.each([
		['windows-1252', 'Caf\u00e9 \u201cq\u201d', Buffer.from('Caf\xe9 \x93q\x94', 'latin1')],
		['shift_jis', '\u6d77', Buffer.from([0x8a, 0x43])],
		// What it says is wrong; a reader of the file goes by it, before and after.
		['windows-1252', '\u00c3\u00a9', Buffer.from('\u00e9', 'utf8')]
	])('%s that is declared below a broken head is still known when tags stand before it', (charset, shown, bytes) => {
		const before = `<head><title>T</title><p>Stray</p>`;
		const declared = `<meta charset="${charset}"><p>`;
		rmSync(at('in/walks'), { recursive: true });
		rmSync(at('in/other.html'));
		put('in/index.html', Buffer.concat([Buffer.from(before + declared), bytes]));
		const long = { ...(pages['/'] as Page), fields: { title: 'Long '.repeat(300) } };
		const headOf = () => ({ page: long, head: resolver.resolveHead(long), leftOut: [], wasOurs: () => false });
		run({ headOf });
		const first = readFileSync(at('out/index.html'));
		expect(decodeFile(first).text).toContain(`${declared}${shown}`);
		expect(first.indexOf(`<meta charset="${charset}">`)).toBeLessThan(100);
		put('in/index.html', first);
		expect(run({ headOf }).summary.changed).toEqual([]);
	});
	test('with endings in the addresses, pages are known by them', () => {
		expect(run({ bare: false }).summary.unknown.map(({ path }) => path)).toEqual(['other.html', 'walks/fox.html']);
	});
});

describe('where it must not write', () => {
	test.each([
		['in', /names the folder itself/],
		['in/below', /lies in the folder/],
		['.', /holds the folder/]
	])('--out %s is refused', (out, why) => {
		expect(() => run({ out: at(out) })).toThrow(why);
		expect(existsSync(at('in/below'))).toBe(false);
	});
	test('a folder of the copy that leads out of it is refused', () => {
		mkdirSync(at('elsewhere'));
		mkdirSync(at('out'));
		symlinkSync(at('elsewhere'), at('out/walks'));
		expect(() => run()).toThrow(/leads out of/);
		expect(readdirSync(at('elsewhere'))).toEqual([]);
	});
	test('a link that stands in place of a file is replaced, not written through', () => {
		put('precious.html', 'precious');
		put('precious.css', 'precious');
		mkdirSync(at('out'));
		symlinkSync(at('precious.html'), at('out/index.html'));
		symlinkSync(at('precious.css'), at('out/style.css'));
		run();
		expect([read('precious.html'), read('precious.css')]).toEqual(['precious', 'precious']);
		expect(lstatSync(at('out/index.html')).isSymbolicLink()).toBe(false);
	});
});

describe('links in the folder', () => {
	test('one inside is copied as a link, one that leads out is left and said', () => {
		put('secret.txt', 'secret');
		symlinkSync('style.css', at('in/also.css'));
		symlinkSync(at('secret.txt'), at('in/secret.txt'));
		symlinkSync(at('in/style.css'), at('in/whole.css'));
		const { summary } = run();
		expect(summary.skipped).toEqual(['secret.txt']);
		expect(readlinkSync(at('out/also.css'))).toBe('style.css');
		expect(existsSync(at('out/secret.txt'))).toBe(false);
		// A whole path leads back into the input.
		expect(existsSync(at('out/whole.css'))).toBe(false);
		expect(run().summary.skipped).toEqual(['secret.txt']);
	});
});

describe('in place', () => {
	const HALF = '.kephalon-01234567-89ab-cdef-0123-456789abcdef';
	test('pages are written over, all else is left alone', () => {
		const other = lstatSync(at('in/other.html')).mtimeMs;
		expect(run({ out: undefined }).summary).toMatchObject({ changed: ['index.html', 'walks/fox.html'], copied: 1 });
		expect(read('in/index.html')).toContain('<title>Home</title>');
		expect(lstatSync(at('in/other.html')).mtimeMs).toBe(other);
		const ino = lstatSync(at('in/index.html')).ino;
		expect(run({ out: undefined }).summary).toMatchObject({ changed: [], unchanged: 2 });
		expect(lstatSync(at('in/index.html')).ino).toBe(ino);
	});
	test('what a run that was broken off left is cleared away, and no file of the user’s', () => {
		put(`in/walks/${HALF}`, 'half');
		put('in/.kephalon-notes', 'mine');
		put(`in/x${HALF}`, 'mine too');
		run({ out: undefined, dryRun: true });
		expect(existsSync(at('in/walks', HALF))).toBe(true);
		run();
		expect(existsSync(at('in/walks', HALF))).toBe(true);
		expect(existsSync(at('out/walks', HALF))).toBe(false);
		run({ out: undefined });
		expect(existsSync(at('in/walks', HALF))).toBe(false);
		expect(read('in/.kephalon-notes')).toBe('mine');
		expect(read(`in/x${HALF}`)).toBe('mine too');
	});
});

test('only what is lost is told: not another case of robots, a whole address, or a link that is called otherwise', () => {
	const rules = [
		{ tag: 'robots', kind: 'template' as const, template: 'index, follow' },
		{ tag: 'keywords', kind: 'template' as const, template: 'sea, walks' },
		{ tag: 'icon', kind: 'template' as const, template: '/icon.png' }
	];
	const own = new Resolver({ site: { ...site, rules }, types: [], pictures: [] }, '');
	const headOf = (path: string) =>
		pages[path]
			? { head: own.resolveHead(pages[path]), leftOut: [], wasOurs: () => false }
			: 'no live page of the site';
	const head = [
		'<title>A title</title><meta name=robots content="INDEX,FOLLOW"><meta name=Keywords content="Sea,  walks">',
		'<link rel=canonical href="fox"><link rel="shortcut icon" href="/icon.png">',
		'<meta property="og:title" content="FOX “WALK”"><meta property="og:url" content="https://s.example/b">'
	];
	rmSync(at('in'), { recursive: true });
	put('in/walks/fox.html', `<!doctype html><html><head><meta charset=utf-8>${head.join('')}</head></html>`);
	const { gone } = run({ headOf });
	expect(gone.map(({ tag, value }) => [tag, value])).toEqual([
		['title', 'A title'],
		['og:title', 'FOX “WALK”'],
		['og:url', 'https://s.example/b']
	]);
});

test('what is lost is told in its own letters, whatever the file’s encoding, and no letter is a loss', () => {
	rmSync(at('in'), { recursive: true });
	const file = (charset: string) =>
		`<!doctype html><head><meta charset=${charset}><title>Fox “walk”</title><meta name=description content="Café &eacute; “x” &rsquo;"></head>`;
	put('in/walks/fox.html', file('utf-8'));
	expect(run().gone).toEqual([{ path: '/walks/fox', tag: 'description', value: 'Café é “x” ’', now: 'A summary.' }]);
	put('in/walks/fox.html', Buffer.from(file('windows-1252').replaceAll('“', '\x93').replaceAll('”', '\x94'), 'latin1'));
	expect(run().gone.map(({ value }) => value)).toEqual(['Café é “x” ’']);
});
