import Database from 'better-sqlite3';
import iconv from 'iconv-lite';
import { spawn, spawnSync } from 'node:child_process';
import {
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	symlinkSync,
	truncateSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import { STARTING_LAYOUTS } from '$core';
import { Library } from '$server/pictures/library';
import { Store } from '$server/store/store';

/** The built command, run as its user runs it. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-command-'));
afterAll(() => rmSync(top, { recursive: true, force: true }));

let work = '';
let db = '';
beforeEach(() => {
	work = mkdtempSync(join(top, 'w-'));
	db = join(work, 'k.db');
});

function run(...args: string[]) {
	const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
		encoding: 'utf8',
		cwd: work,
		env: { ...process.env, KEPHALON_DB: db }
	});
	return { status, stdout, stderr };
}
function write(path: string, content: string | Buffer) {
	const file = join(work, path);
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(file, content);
	return file;
}
const page = (title: string, body = '') =>
	`<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>${title}</title>\n</head>\n<body>${body}</body>\n</html>\n`;
const importSite = (...more: string[]) =>
	run('import', join(work, 'site'), '--base', 'https://docs.example', '--site', 'Docs', ...more);

describe('wrong use', () => {
	test.each([
		[['frobnicate'], "unknown command 'frobnicate'"],
		[['pages', '--site', 'x', '--filter', 'colour=red'], 'Write one of q, type, language'],
		[['pages', '--site', 'x', '--sort', 'colour'], 'Allowed choices are path, title'],
		[['pages', '--site', 'x', '--columns', 'title,colour'], 'There is no column “colour”. There are path, title'],
		[['import'], 'Name what to read: a folder, a file, or --from an address.'],
		[['import', '.', '--base', 'https://x.example'], 'A folder needs --site'],
		[['import', '.', '--base', 'docs.example', '--site', 'x'], 'Did you mean https://docs.example?'],
		[['render', '--site', 'x'], 'Name one page with --path, or all with --all.'],
		[['inject', '.', '--site', 'x'], 'Name a folder for the copy with --out, or say --in-place.'],
		[['serve', '--port', 'many'], 'A port is a number']
	])('%j', (args, told) => {
		const { status, stderr, stdout } = run(...args);
		expect(stderr).toContain(told);
		expect(stdout).toBe('');
		expect(status).toBe(2);
	});
	test('every verb has its help', () => {
		for (const verb of [
			...[
				'import',
				'export',
				'render',
				'fragments',
				'inject',
				'check',
				'pages',
				'compose',
				'release',
				'releases',
				'diff'
			],
			...['rollback', 'backup', 'restore', 'serve', 'deliver']
		]) {
			const { status, stdout } = run(verb, '--help');
			expect(status).toBe(0);
			expect(stdout).toContain(`kephalon ${verb}`);
		}
	});
});

describe('bad input', () => {
	test('a folder without HTML, and none at all', () => {
		write('site/a.txt', 'x');
		expect(importSite()).toMatchObject({ status: 1, stderr: expect.stringContaining('holds no page that is read') });
		expect(run('import', 'nowhere', '--base', 'https://x.example', '--site', 'x')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('There is no file or folder nowhere')
		});
	});

	test('what is no page is skipped with its reason; the rest is read', () => {
		write('site/good.html', page('Good'));
		write('site/zeros.html', Buffer.alloc(500));
		write('site/words.html', 'only words');
		write('site/empty.html', '');
		write('site/huge.html', '');
		truncateSync(join(work, 'site/huge.html'), 50_000_000);
		write('secret.html', page('Secret'));
		symlinkSync(join(work, 'secret.html'), join(work, 'site/link.html'));
		const { status, stderr } = importSite();
		expect(status).toBe(0);
		expect(stderr).toContain('Read 1 page');
		for (const line of [
			'zeros.html: not text',
			'words.html: no markup in it',
			'empty.html: empty',
			'huge.html: 50 MB, more than the 20 MB',
			'link.html: a link, which is never followed'
		])
			expect(stderr).toContain(line);
	});

	test('a database that is none, one that is locked, a site that is not there', () => {
		write(
			'k.db',
			'This is a diary and not a database, whatever its name says; it goes on for a hundred characters and more.'
		);
		expect(run('render', '--site', 'x', '--path', '/')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('is not a database')
		});
		rmSync(db);
		write('site/a.html', page('A'));
		expect(importSite().status).toBe(0);
		expect(run('render', '--site', 'Doc', '--path', '/')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('There is no site "Doc"')
		});
		expect(run('render', '--site', 'Docs', '--path', 'a.html')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('Paths begin with a slash')
		});
	});

	test('a template with an error is told by check, with its place, and by exit code 1', () => {
		write('site/a.html', page('A'));
		importSite();
		const file = run('export', '--site', 'Docs').stdout.replace(
			'"rules": []',
			'"rules": [{ "tag": "title", "kind": "template", "template": "{page.titel}" }]'
		);
		expect(run('import', write('x.json', file)).status).toBe(0);
		const { status, stdout } = run('check', '--site', 'Docs');
		expect(stdout).toBe('error: site, title: Unknown variable "page.titel" at 1:2. Did you mean "page.title"?\n');
		expect(status).toBe(1);
	});
});

describe('import', () => {
	test('again: content is brought up to date, rules stay, what is gone becomes a draft', () => {
		write('site/a.html', page('A'));
		write('site/deep/index.html', page('Deep'));
		expect(importSite('--type', 'deep/**=part').status).toBe(0);
		const file = JSON.parse(run('export', '--site', 'Docs').stdout) as {
			pages: { path: string; rules: unknown[]; type: string; state: string; fields: { title: string } }[];
		};
		expect(file.pages.map(({ path, type }) => [path, type])).toEqual([
			['/a.html', 'page'],
			['/deep/', 'part']
		]);
		file.pages[0]!.rules.push({ tag: 'og:title', kind: 'template', template: 'Mine' });
		run('import', write('x.json', JSON.stringify(file)));
		// What a site file brings in does not count as read from the folder until it is read again.
		importSite();
		write('site/a.html', page('New A'));
		rmSync(join(work, 'site/deep'), { recursive: true });
		expect(importSite().stderr).toContain('No longer in the folder, set to draft: 1\n  /deep/');
		const head = run('render', '--site', 'Docs', '--path', '/a.html').stdout;
		expect(head).toContain('<title>New A</title>');
		expect(head).toContain('<meta property="og:title" content="Mine">');
	});

	test('facts of pictures are read from the files, never from their names', async () => {
		write('site/a.html', page('A', '<p><img src="p/lie.png"><img src="p/none.jpg"><img src="p/text.gif">'));
		write(
			'site/p/lie.png',
			await sharp({ create: { width: 640, height: 400, channels: 3, background: '#246' } })
				.jpeg()
				.withMetadata({ orientation: 6 })
				.toBuffer()
		);
		write('site/p/text.gif', 'no picture');
		const { stderr } = importSite();
		expect(stderr).toContain('p/none.jpg: a picture on 1 page: not in the folder');
		expect(stderr).toContain('p/text.gif: a picture on 1 page');
		const head = run('render', '--site', 'Docs', '--path', '/a.html').stdout;
		expect(head).toContain(
			'<meta property="og:image" content="https://docs.example/p/lie.png">\n<meta property="og:image:type" content="image/jpeg">'
		);
		expect(head).toMatch(/og:image:width" content="400">\n.*og:image:height" content="640"/);
	});
});

describe('import of what is out to do harm', () => {
	test('no picture outside of the folder is looked at, and a path that cannot be decoded breaks nothing', async () => {
		const picture = await sharp({ create: { width: 640, height: 400, channels: 3, background: '#246' } })
			.png()
			.toBuffer();
		write('outside.png', picture);
		write(
			'site/a.html',
			page('A', '<p><img src="..%2foutside.png"><img src="%E0%A4%A.png"><img src="link.png"><img src="in%20side.png">')
		);
		write('site/in side.png', picture);
		symlinkSync(join(work, 'outside.png'), join(work, 'site/link.png'));
		const { status, stderr } = importSite();
		expect(status).toBe(0);
		expect(stderr).toContain('Read 1 page and 1 picture into "Docs".');
		expect(stderr).toContain('Skipped 3:');
		expect(run('render', '--site', 'Docs', '--path', '/a.html').stdout).toContain(
			'og:image" content="https://docs.example/in%20side.png"'
		);
	});
	test('two files at one path: the second is skipped and named', () => {
		write('site/index.htm', page('One'));
		write('site/index.html', page('Two'));
		write('site/a b&c.html', page('Three'));
		expect(importSite().stderr).toContain('index.html: served at /, as index.htm is');
		expect(run('render', '--site', 'Docs', '--path', '/a%20b&c.html').stdout).toContain('<title>Three</title>');
	});
});

test('who reads the output may have seen enough', () => {
	// More than a pipe holds.
	for (let at = 0; at < 40; at++) write(`site/${at}.html`, page(`Page ${at}`));
	importSite();
	const shown = spawnSync(
		'sh',
		['-c', `"${process.execPath}" "${program}" render --all --trace --format json --site Docs | head -c 1`],
		{ encoding: 'utf8', cwd: work, env: { ...process.env, KEPHALON_DB: db } }
	);
	expect([shown.status, shown.stdout, shown.stderr]).toEqual([0, '{', '']);
});

describe('inject', () => {
	test('one that was broken off is told at the next, and no more after that; what is refused breaks nothing off', () => {
		write('site/a.html', page('A'));
		importSite();
		// As a process leaves it that was killed in the middle.
		const store = new Store(db);
		const begun = { folder: join(work, 'out'), at: '2026-05-03T10:00:00.000Z' };
		store.working.sources.saveSettings(store.working.sites.named('Docs').id, 'injecting', begun);
		store.close();
		expect(run('inject', 'nowhere', '--out', 'out', '--site', 'Docs').status).toBe(1);
		const dry = run('inject', 'site', '--out', 'out', '--site', 'Docs', '--dry-run').stderr;
		expect(dry).not.toContain('broken off');
		const next = run('inject', 'site', '--out', 'out', '--site', 'Docs').stderr;
		expect(next).toContain('that began at 2026-05-03T10:00:00.000Z was broken off');
		expect(next).toContain('This one writes them all.');
		expect(run('inject', 'site', '--out', 'out', '--site', 'Docs').stderr).not.toContain('broken off');
	});

	test('pictures of the library that the heads name come along', async () => {
		write('site/a.html', page('A'));
		importSite();
		const store = new Store(db);
		const { id } = store.working.sites.named('Docs');
		const library = new Library(store);
		const draw = (red: number) =>
			sharp({ create: { width: 900, height: 500, channels: 3, background: { r: red, g: 0, b: 0 } } })
				.png()
				.toBuffer();
		const [used] = [await library.take('Docs', await draw(1)), await library.take('Docs', await draw(250))];
		store.working.rules.set(id, { layer: 'site' }, 'og:image', undefined, {
			kind: 'pictures',
			sources: [{ from: 'file', src: used.src }]
		});
		store.close();
		const dry = run('inject', 'site', '--out', 'dry', '--site', 'Docs', '--dry-run');
		expect(dry.stderr).not.toContain('of the library');
		const { stderr } = run('inject', 'site', '--out', 'out', '--site', 'Docs');
		expect(stderr).toContain('Copied 1 picture of the library into media/.');
		expect(readdirSync(join(work, 'out/media'))).toEqual([used.src.slice('/media/'.length)]);
		expect(readFileSync(join(work, 'out/a.html'), 'utf8')).toContain(used.src);
	});

	test('cuts, share pictures, icons and the manifest come along, each made once', async () => {
		const drawn = (width: number, height: number) =>
			sharp({ create: { width, height, channels: 3, background: '#345678' } })
				.png()
				.toBuffer();
		write('site/boat.png', await drawn(1600, 900));
		write('site/icon.png', await drawn(512, 512));
		write('site/a.html', page('A', '<img src="boat.png" alt="A boat"><img src="icon.png" alt="">'));
		write('site/isles/b.html', page('B', '<img src="../boat.png" alt="A boat">'));
		expect(importSite('--type', 'isles/*=isle').status).toBe(0);
		const store = new Store(db);
		const { id, site } = store.working.sites.named('Docs');
		store.working.sites.save({
			...{ ...site, fields: { icon: '/icon.png' } },
			rules: [{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'body' }], shapes: ['wide', 'tall'] }]
		});
		store.working.types.save(id, {
			...{ name: 'isle', fields: [], layout: STARTING_LAYOUTS[0]!.layout },
			rules: [{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'composed' }] }]
		});
		store.close();
		expect(run('compose', '--site', 'Docs').stderr).toContain('Drew 1 share picture of "Docs"; 0 others');
		expect(run('compose', '--site', 'Docs', '--type', 'isle', '--json').stdout).toContain('"kept": 1');
		expect(run('compose', '--site', 'Docs', '--type', 'page')).toMatchObject({ status: 1 });
		expect(run('inject', 'site', '--out', 'out', '--site', 'Docs').stderr).toMatch(
			/Copied \d+ pictures of the library/
		);
		const named = ['out/a.html', 'out/isles/b.html']
			.flatMap((file) => [
				...readFileSync(join(work, file), 'utf8').matchAll(/https:\/\/docs\.example\/(media\/[^"]+)/g)
			])
			.map(([, path]) => path as string);
		expect(new Set(named.filter((path) => path.includes('-wide-'))).size).toBe(1);
		expect(named.filter((path) => path.includes('share-')).length).toBeGreaterThan(0);
		for (const path of named) expect(existsSync(join(work, 'out', path)), path).toBe(true);
		const manifest = JSON.parse(readFileSync(join(work, 'out/manifest.webmanifest'), 'utf8')) as {
			icons: { src: string }[];
		};
		for (const { src } of manifest.icons) expect(existsSync(join(work, 'out', src)), src).toBe(true);
	});

	test('everything else stays byte for byte, in any encoding; again changes nothing', () => {
		const latin = iconv.encode(
			'<html><head><meta charset="iso-8859-1">\r\n<title>Caf\u00e9</title></head><body>\u00fc\u00df</body></html>',
			'windows-1252'
		);
		const japanese = iconv.encode(
			'<html><head><meta charset="shift_jis"><title>\u6d77\u5cb8</title></head><body>\u8868\u30bd</body></html>',
			'shift_jis'
		);
		write('site/latin.html', latin);
		write('site/japanese.html', japanese);
		write(
			'site/wide.html',
			iconv.encode('\ufeff<html><head><title>Wide \u6d77</title></head></html>', 'utf-16le', { addBOM: false })
		);
		write(
			'site/x.xhtml',
			'<?xml version="1.0" encoding="utf-8"?>\n<html xmlns="http://www.w3.org/1999/xhtml"><head><script src="a.js" /><title>X</title></head><body/></html>'
		);
		write('site/other.bin', Buffer.from([0, 1, 2, 255]));
		importSite();
		const file = run('export', '--site', 'Docs').stdout.replace(
			'"rules": []',
			'"rules": [{ "tag": "title", "kind": "template", "template": "{page.title} \u6d77 \u00e9" }]'
		);
		run('import', write('x.json', file));
		expect(run('inject', 'site', '--out', 'out', '--site', 'Docs')).toMatchObject({
			status: 0,
			stderr: expect.stringContaining('Wrote the head of 4 pages')
		});
		const seen = readFileSync(join(work, 'out/latin.html'));
		expect(seen.includes(iconv.encode('<title>Caf\u00e9 &#28023; \u00e9</title>', 'windows-1252'))).toBe(true);
		expect(seen.includes(iconv.encode('<body>\u00fc\u00df</body>', 'windows-1252'))).toBe(true);
		expect(iconv.decode(readFileSync(join(work, 'out/japanese.html')), 'shift_jis')).toMatch(
			/<title>\u6d77\u5cb8 \u6d77 &#233;<\/title>[^]*<body>\u8868\u30bd<\/body>/
		);
		expect(iconv.decode(readFileSync(join(work, 'out/wide.html')), 'utf-16le')).toContain(
			'<title>Wide \u6d77 \u6d77 \u00e9</title>'
		);
		expect(readFileSync(join(work, 'out/x.xhtml'), 'utf8')).toMatch(
			/<title>X \u6d77 \u00e9<\/title>\n<link rel="canonical" href="[^"]+" \/>[^]*<script src="a.js" \/>/
		);
		expect(readFileSync(join(work, 'out/other.bin'))).toEqual(Buffer.from([0, 1, 2, 255]));
		expect(run('inject', 'out', '--out', 'again', '--site', 'Docs').stderr).toContain(
			'Wrote the head of 0 pages, from the working copy; 4 pages had it already'
		);
		for (const name of readdirSync(join(work, 'out')))
			expect(readFileSync(join(work, 'again', name)).equals(readFileSync(join(work, 'out', name))), name).toBe(true);
	});

	test('never over its input unless told, never out of the folder, and a dry run writes nothing', () => {
		write('site/a.html', page('A'));
		importSite();
		write('site/new.html', page('New'));
		write('outside.html', page('Outside'));
		symlinkSync(join(work, 'outside.html'), join(work, 'site/link.html'));
		symlinkSync('a.html', join(work, 'site/near.html'));
		symlinkSync('../site/a.html', join(work, 'site/round.html'));
		const before = readFileSync(join(work, 'site/a.html'), 'utf8');
		for (const out of ['site', 'site/sub', '.'])
			expect(run('inject', 'site', '--out', out, '--site', 'Docs').status, out).toBe(2);
		const dry = run('inject', 'site', '--out', 'out', '--site', 'Docs', '--dry-run');
		expect(dry.stderr).toContain('Would write the head of 1 page');
		expect(existsSync(join(work, 'out'))).toBe(false);
		const { stderr } = run('inject', 'site', '--out', 'out', '--site', 'Docs');
		expect(stderr).toContain('new.html: no live page of the site');
		expect(stderr).toContain('Links that lead out of the folder, not copied: 1\n  link.html');
		expect(existsSync(join(work, 'out/link.html'))).toBe(false);
		expect(readFileSync(join(work, 'out/near.html'), 'utf8')).toContain('rel="canonical"');
		expect(existsSync(join(work, 'out/round.html'))).toBe(false);
		expect(readFileSync(join(work, 'site/a.html'), 'utf8')).toBe(before);
		// A link in the target must not lead back into the input.
		rmSync(join(work, 'out'), { recursive: true });
		symlinkSync(join(work, 'site'), join(work, 'out'));
		expect(run('inject', 'site', '--out', 'out', '--site', 'Docs').status).toBe(2);
		expect(run('inject', 'site', '--in-place', '--site', 'Docs').status).toBe(0);
		expect(readFileSync(join(work, 'site/a.html'), 'utf8')).toContain(
			'<link rel="canonical" href="https://docs.example/a.html">'
		);
	});
});

describe('render', () => {
	test('straight from a site file, with the trace, as JSON, and as every page of a site', () => {
		write('site/a.html', page('A'));
		write('site/b.html', page('B'));
		importSite();
		run('export', '--site', 'Docs', '--out', 'x.json');
		const traced = run('render', '--file', 'x.json', '--path', '/a.html', '--trace').stdout;
		expect(traced).toContain('<title>A</title>');
		expect(traced).toContain(
			'title = A\n  > the built-in: the page’s title: used\n    the built-in: the site’s name: not needed'
		);
		const json = JSON.parse(run('render', '--site', 'Docs', '--path', '/b.html', '--format', 'json').stdout) as {
			tags: unknown[];
		};
		expect(json.tags[0]).toEqual({ tag: 'title', element: 'title', attributes: {}, value: 'B' });
		expect(
			run('render', '--site', 'Docs', '--all')
				.stdout.trim()
				.split('\n')
				.map((line) => (JSON.parse(line) as { path: string }).path)
		).toEqual(['/a.html', '/b.html']);
	});
});

describe('what authors wrote', () => {
	test('is counted when it comes in, and listed when it goes out of a file', () => {
		const said =
			'<meta name="description" content="Said by hand, &quot;so&quot;"><meta property="og:title" content="Old">';
		write('site/a.html', page('A').replace('</head>', `${said}</head>`));
		write('site/b.html', page('B'));
		expect(importSite().stderr).toContain('description on 1 page');
		const store = new Store(db);
		const { id } = store.working.sites.named('Docs');
		store.working.sites.save({ ...store.working.sites.named('Docs').site, foundPolicy: { all: 'never' } });
		const say = (to: Store, template: string) =>
			to.working.rules.set(id, { layer: 'site' }, 'description', undefined, { kind: 'template', template });
		say(store, 'From a template');
		store.close();
		const report = join(work, 'gone.csv');
		const { stderr } = run('inject', 'site', '--in-place', '--site', 'Docs', '--report', report);
		expect(stderr).toMatch(/Went out of the files.*\n {2}description on 1 page\n {2}og:title on 1 page/);
		expect(readFileSync(report, 'utf8').split('\r\n')).toEqual([
			'path,tag,was,now',
			'/a.html,description,"Said by hand, ""so""",From a template',
			'/a.html,og:title,Old,A',
			''
		]);
		// What Kephalon wrote itself is nobody's loss when it changes.
		const again = new Store(db);
		say(again, 'Another');
		again.close();
		expect(run('inject', 'site', '--in-place', '--site', 'Docs').stderr).not.toContain('Went out');
	});
});

describe('releases', () => {
	test('are told before they are made, listed, compared, gone back to and pruned', () => {
		write('site/a.html', page('A'));
		write('site/b.html', page('B'));
		importSite();
		const dry = run('release', '--site', 'Docs', '--dry-run');
		expect(dry.stderr).toContain('A release would change 0 pages, add 2 and take 0 away.');
		expect(run('releases', '--site', 'Docs').stderr).toContain('Nothing of "Docs" is released yet.');
		expect(run('release', '--site', 'Docs', '--note', 'The first').stderr).toContain(
			'Release 1 of "Docs": 2 pages, 0 changed, 2 new, 0 gone.'
		);
		write('site/a.html', page('Another'));
		rmSync(join(work, 'site/b.html'));
		write('site/c.html', page('C'));
		importSite();
		run('release', '--site', 'Docs');
		expect(run('releases', '--site', 'Docs').stdout).toMatch(
			/^ +2 .*2 pages: 1 changed, 1 new, 1 gone\n +1 .*2 pages: 0 changed, 2 new, 0 gone {2}The first\n$/
		);
		const diff = run('diff', '1', '2', '--site', 'Docs');
		expect(diff.stdout).toContain('changed /a.html\n  - <title>A</title>');
		expect(diff.stdout).toContain('removed /b.html');
		expect(diff.stderr).toContain('3 pages differ.');
		const one = run('diff', '1', '2', '--site', 'Docs', '--path', '/c.html', '--format', 'json');
		expect(JSON.parse(one.stdout)).toMatchObject({ path: '/c.html', kind: 'added', gone: [] });
		expect(run('rollback', '1', '--site', 'Docs').stderr).toContain(
			'Release 3 serves what release 1 did: 1 page changed back, 1 came back, 1 left.'
		);
		expect(run('diff', '1', '3', '--site', 'Docs').stderr).toContain('Nothing differs.');
		// The working copy stays as it is: releasing it again undoes the going back.
		expect(run('release', '--site', 'Docs').stderr).toContain(
			'Release 4 of "Docs": 2 pages, 1 changed, 1 new, 1 gone.'
		);
		expect(run('diff', '2', '4', '--site', 'Docs').stderr).toContain('Nothing differs.');
		expect(run('releases', 'prune', '--site', 'Docs', '--keep', '2').stderr).toContain('Took away 2 releases.');
		expect(run('diff', '1', '4', '--site', 'Docs')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('There is no release 1. There are 3 to 4.')
		});
		expect(run('rollback', '9', '--site', 'Docs').status).toBe(1);
		expect(run('releases', 'prune', '--site', 'Docs', '--keep', '1').status).toBe(2);
	});
});

describe('a release that is killed', () => {
	test('is wholly there or not at all, wherever it is killed', async () => {
		for (let i = 0; i < 400; i++)
			write(`site/p${i}.html`, page(`Page ${i}`, `<p>The text of page number ${i} has a few words in it.`));
		expect(importSite().status).toBe(0);
		expect(run('release', '--site', 'Docs').status).toBe(0);
		for (const delay of [120, 180, 240, 300, 360, 420]) {
			const child = spawn(process.execPath, [program, 'release', '--site', 'Docs'], {
				env: { ...process.env, KEPHALON_DB: db },
				stdio: 'ignore'
			});
			await new Promise((resolve) => setTimeout(resolve, delay));
			child.kill('SIGKILL');
			await new Promise((resolve) => child.once('exit', resolve));
			const store = new Database(db);
			const rows = store
				.prepare(
					`SELECT r.pages AS said, (SELECT count(*) FROM released p WHERE p.site_id = r.site_id
						AND p.since <= r.number AND coalesce(p.until > r.number, 1)) AS there FROM release r`
				)
				.all() as { said: number; there: number }[];
			expect(store.pragma('integrity_check', { simple: true })).toBe('ok');
			store.close();
			expect(rows.length).toBeGreaterThan(0);
			for (const { said, there } of rows) expect([said, there]).toEqual([400, 400]);
		}
	});
});

describe('backup', () => {
	test('copies the database and the library; the copy is a whole one', async () => {
		write(
			'site/boat.png',
			await sharp({ create: { width: 900, height: 500, channels: 3, background: '#345678' } })
				.png()
				.toBuffer()
		);
		write('site/a.html', page('A', '<img src="boat.png" alt="A boat">'));
		importSite();
		const store = new Store(db);
		store.working.sites.save({ ...store.working.sites.named('Docs').site, fields: { icon: '/boat.png' } });
		store.close();
		run('release', '--site', 'Docs');
		const { stderr } = run('backup', 'copy');
		expect(stderr).toMatch(/Copied 1 site with 1 page, and 1 picture of the library \(0\.\d MB\)/);
		expect(readdirSync(join(work, 'copy')).sort()).toEqual(['k.db', 'k.db.media']);
		expect(run('render', '--db', 'copy/k.db', '--site', 'Docs', '--path', '/a.html').status).toBe(0);
		expect(run('backup', 'copy')).toMatchObject({ status: 1, stderr: expect.stringContaining('is not empty') });
	});
});

describe('compose', () => {
	test('killed in the middle, it goes on where it was; no file is half written', async () => {
		const PAGES = 80;
		const store = new Store(db);
		const rules = [{ tag: 'og:image', kind: 'pictures' as const, sources: [{ from: 'composed' as const }] }];
		const site = { name: 'Docs', base: 'https://docs.example/', languages: ['en'], separator: '·', fields: {}, rules };
		const id = store.working.sites.save(site);
		store.working.types.save(id, { name: 'isle', fields: [], rules: [], layout: STARTING_LAYOUTS[2]!.layout });
		for (let at = 0; at < PAGES; at++)
			store.working.pages.save(id, {
				path: `/${at}`,
				type: 'isle',
				state: 'live',
				fields: { title: `Isle ${at}` },
				rules: []
			});
		store.close();
		const media = `${db}.media`;
		const drawn = () => (existsSync(media) ? readdirSync(media).filter((name) => name.startsWith('share-')) : []);
		const child = spawn(process.execPath, [program, 'compose', '--db', db, '--site', 'Docs'], { stdio: 'ignore' });
		const ended = new Promise((done) => child.once('close', done));
		while (drawn().length < 10 && child.exitCode === null) await new Promise((next) => setTimeout(next, 20));
		child.kill('SIGKILL');
		await ended;
		const before = drawn().length;
		expect(before).toBeLessThan(PAGES);
		const counts = JSON.parse(run('compose', '--site', 'Docs', '--json').stdout) as { drawn: number; kept: number };
		expect(counts).toEqual({ drawn: PAGES - before, kept: before });
		for (const name of drawn())
			expect((await sharp(readFileSync(join(media, name))).metadata()).width, name).toBe(1200);
	});
});

describe('what the author wrote', () => {
	const authored = (title: string, description: string) =>
		page(title, '<p>Some words of the body that say something.</p>').replace(
			'</head>',
			`<meta name="description" content="${description}">\n</head>`
		);
	const setRule = (tag: string, template: string) => {
		const store = new Store(db);
		store.working.rules.set(store.working.sites.named('Docs').id, { layer: 'site' }, tag, undefined, {
			kind: 'template',
			template
		});
		store.close();
	};
	const inject = (...more: string[]) => run('inject', 'site', '--site', 'Docs', ...more);

	test('is what goes out; a folder injected in place and read again gives what a fresh one would', () => {
		write('site/a.html', authored('A', 'Written by hand'));
		write('site/b.html', authored('B', 'By another hand'));
		importSite();
		setRule('title', '{page.title} {separator} {site.name}');
		setRule('description', 'The same for all');
		expect(inject('--out', 'fresh').status).toBe(0);
		expect(readFileSync(join(work, 'fresh/a.html'), 'utf8')).toContain('content="Written by hand"');
		const fresh = () => ['a', 'b'].map((name) => readFileSync(join(work, `fresh/${name}.html`), 'utf8'));
		const placed = () => ['a', 'b'].map((name) => readFileSync(join(work, `site/${name}.html`), 'utf8'));
		const untouched = ['a', 'b'].map((name) => readFileSync(join(work, `site/${name}.html`), 'utf8'));
		inject('--in-place');
		expect(placed()).toEqual(fresh());
		for (const template of ['{page.title} – {site.name}', '{page.title}', '{page.title} {separator} {site.name}']) {
			expect(importSite().status).toBe(0);
			setRule('title', template);
			setRule('og:title', `${template}!`);
			inject('--in-place');
			// What a fresh copy of the untouched folder comes to with the same rules.
			write('untouched/a.html', untouched[0]!);
			write('untouched/b.html', untouched[1]!);
			rmSync(join(work, 'fresh'), { recursive: true });
			expect(run('inject', 'untouched', '--out', 'fresh', '--site', 'Docs').status).toBe(0);
			expect(placed()).toEqual(fresh());
			expect(placed()[0]).toContain('content="Written by hand"');
		}
	});

	test('a line for each page, as JSON and with traces when asked for', () => {
		write('site/a.html', authored('A', 'Written by hand'));
		importSite();
		const line = (...more: string[]) => JSON.parse(run('render', '--site', 'Docs', '--all', ...more).stdout);
		expect(line()).toEqual({ path: '/a.html', head: expect.stringContaining('<title>A</title>') });
		const { head, traces } = line('--format', 'json', '--trace');
		expect(head.tags[0]).toMatchObject({ tag: 'title', value: 'A' });
		const description = traces.find((trace: { tag: string }) => trace.tag === 'description');
		expect(description.steps[0]).toMatchObject({
			layer: 'page',
			rule: { kind: 'found', value: 'Written by hand' },
			outcome: { kind: 'won' }
		});
		expect(Object.keys(line('--trace'))).toEqual(['path', 'head', 'traces']);
		expect(line('--format', 'json').traces).toBeUndefined();
	});

	test('rules that do not work cost their own tag; a release, an injection and a check say which', () => {
		write('site/a.html', authored('A', 'Written by hand'));
		importSite();
		setRule('author', '{page.title | money "EURO"}');
		setRule('keywords', '{page.title | number 30}');
		const told = /2 rules do not work:[^]*site, author[^]*money[^]*site, keywords[^]*number/;
		expect(run('release', '--site', 'Docs')).toMatchObject({ status: 0, stderr: expect.stringMatching(told) });
		expect(inject('--out', 'out')).toMatchObject({ status: 0, stderr: expect.stringMatching(told) });
		expect(run('check', '--site', 'Docs')).toMatchObject({
			status: 1,
			stdout: expect.stringMatching(/error: site, author/)
		});
		expect(run('render', '--site', 'Docs', '--all').status).toBe(0);
	});
});

describe('tables, quality, checks of pages, probes', () => {
	test('a table is tried, kept, and read again with what was said the first time', () => {
		write(
			'birds.csv',
			'Überschrift;Adresse;Datum;Preis\nEiderente;/eider;3.5.2026;12,50 €\nKrickente;/teal;bald;9,00 €\nKurz;/short\n'
		);
		const args = ['import', 'birds.csv', '--site', 'Birds', '--type', 'bird'];
		expect(run(...args)).toMatchObject({ status: 2, stderr: expect.stringContaining('needs --base') });
		const based = [...args, '--base', 'https://b.example/'];
		expect(run(...based, '--dry-run').stderr).toContain('Would read 3 pages, 3 of them new');
		expect(run('quality', '--site', 'Birds').status).toBe(1);
		const first = run(...based, '--map', 'Preis=price');
		expect(first.stderr).toContain('Read 3 pages, 3 of them new');
		expect(first.stderr).toContain('Row 3, Datum: “bald” is no date');
		expect(first.stderr).toContain('Row 4 has 2 cells where there are 4 headings');
		const again = run('import', 'birds.csv', '--site', 'Birds');
		expect(again.stderr).toContain('3 pages, 0 of them new');
		expect(again.stderr).toContain('Preis: price');
		const store = new Store(db);
		const { id, types } = store.working.sites.named('Birds');
		expect(store.working.pages.at(id, '/eider')).toMatchObject({
			type: 'bird',
			fields: { title: 'Eiderente', published: '2026-05-03', price: 12.5 }
		});
		expect(types.find(({ name }) => name === 'bird')?.fields).toEqual([
			{ name: 'price', kind: 'number', label: 'Preis' }
		]);
		store.close();
		expect(run('import', 'birds.csv', '--site', 'Birds', '--map', 'Priis=x')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('There is no column “Priis”')
		});
		expect(JSON.parse(run('quality', '--site', 'Birds', '--json').stdout)).toMatchObject({
			pages: 3,
			descriptionNone: { pages: 3 }
		});
	});

	test('the table of pages goes out, is changed by a program, and comes back as one edit', () => {
		const content = 'path,title,summary\n/a,One,"First, of all"\n/b,Two,=1+1\n/c,Three,\n';
		const imported = run('import', write('p.csv', content), '--base', 'https://docs.example', '--site', 'Docs');
		expect(imported.status, imported.stderr).toBe(0);
		const pages = (...more: string[]) => run('pages', '--site', 'Docs', ...more);
		const out = pages('--columns', 'title,description', '--sort', 'title', '--down');
		expect(out.stdout.split('\r\n').map((line) => line.split(',').slice(0, 2))).toEqual([
			...[['path', 'title'], ['/b', 'Two'], ['/c', 'Three'], ['/a', 'One'], ['']]
		]);
		expect(pages('--filter', 'q=first').stdout.split('\r\n')).toHaveLength(3);
		expect(pages('--out', join(work, 'out.csv'), '--mark').stderr).toContain('Wrote ');
		expect(readFileSync(join(work, 'out.csv'), 'utf8').codePointAt(0)).toBe(0xfeff);
		// Read as it went out, it changes nothing.
		expect(pages('--read', join(work, 'out.csv'))).toMatchObject({
			status: 0,
			stderr: '3 rows: 0 overrides were changed, 3 rows are as they were.\n'
		});
		const lines = readFileSync(join(work, 'out.csv'), 'utf8').split('\r\n');
		const own = lines[0]!.split(',').indexOf('page says: title');
		const changed = lines.map((line) => {
			if (!/^\/[bc]/.test(line)) return line;
			const cells = line.split(',');
			cells[own] = line.startsWith('/b') ? 'By a program' : '{page.nothing';
			return cells.join(',');
		});
		write('changed.csv', [...changed.slice(0, -1), changed[2]!.replace('/b', '/gone'), ''].join('\r\n'));
		const read = (...more: string[]) => pages('--read', join(work, 'changed.csv'), ...more);
		const tried = read('--dry-run');
		expect(tried).toMatchObject({ status: 1, stdout: '' });
		expect(tried.stderr).toContain(
			'4 rows: 1 override would be changed (1 written where there was none), 1 row is as it was.'
		);
		expect(tried.stderr).toContain('line 4, /c: title: The "{" at 1:1 is never closed');
		expect(tried.stderr).toContain('line 5, /gone: there is no such page');
		expect(pages().stdout).not.toContain('By a program');
		expect(JSON.parse(read('--json').stdout)).toMatchObject({ changes: { count: 1 }, left: { wrong: { count: 1 } } });
		expect(pages().stdout).toContain('By a program');
		expect(read().stderr).toContain('0 overrides were changed');
		expect(pages('--read', 'none.csv')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('There is no file none.csv')
		});
		expect(pages('--read', write('other.csv', 'a,b\n1,2\n')).stderr).toContain('The table has no column “path”');
	});

	test('a check of pages fails on what it is told to, knows a baseline, and speaks SARIF', () => {
		write('site/a.html', page('A'));
		write('site/b.html', '<title>Same</title>');
		write('site/c.html', '<title>Same</title>');
		importSite();
		expect(run('check', '--site', 'Docs').status).toBe(0);
		const all = run('check', '--site', 'Docs', '--pages');
		expect(all.status).toBe(0);
		expect(all.stdout).toContain('2 pages have the title “Same”');
		expect(all.stdout).toContain('3 pages, description: It has no description\n    /a.html, /b.html, /c.html\n');
		expect(run('check', '--site', 'Docs', '--pages', '--fail-on', '6').status).toBe(1);
		expect(run('check', '--site', 'Docs', '--pages', '--fail-on', 'gap').status).toBe(0);
		expect(run('check', '--site', 'Docs', '--pages', '--only', 'shared-title', '--fail-on', '1').status).toBe(1);
		expect(run('check', '--site', 'Docs', '--pages', '--baseline', 'known.json', '--fail-on', '1').status).toBe(0);
		expect(run('check', '--site', 'Docs', '--pages', '--baseline', 'known.json', '--fail-on', '1').status).toBe(0);
		write('site/d.html', '<title>Same</title>');
		importSite();
		const later = run('check', '--site', 'Docs', '--pages', '--baseline', 'known.json', '--fail-on', '4');
		expect(later.status).toBe(1);
		expect(later.stdout).toContain('/d.html');
		expect(later.stdout).not.toContain('/b.html');
		const sarif = JSON.parse(run('check', '--site', 'Docs', '--pages', '--format', 'sarif').stdout) as {
			version: string;
			runs: { results: unknown[] }[];
		};
		expect(sarif.version).toBe('2.1.0');
		expect(sarif.runs[0]?.results).toHaveLength(3);
		expect(sarif.runs[0]?.results[1]).toMatchObject({ relatedLocations: [{ id: 0 }, { id: 1 }, { id: 2 }] });
	});

	test('pins are looked at alone: none, those that hold, those that do not', () => {
		write('site/a.html', '<title>A</title>');
		importSite();
		const pins = () => run('check', '--site', 'Docs', '--pins');
		expect(pins()).toMatchObject({ status: 0, stderr: expect.stringContaining('nothing was looked at') });
		const pinTo = (title: string) => {
			const file = JSON.parse(run('export', '--site', 'Docs').stdout) as { pages: { pinned?: object }[] };
			file.pages[0]!.pinned = { title };
			expect(run('import', write('docs.json', JSON.stringify(file))).status).toBe(0);
		};
		pinTo('Something else');
		const broken = pins();
		expect(broken.status).toBe(1);
		expect(broken.stdout).toContain('title is pinned to “Something else”');
		expect(broken.stderr).toContain('Looked at 1 pin on 1 page.');
		expect(run('check', '--site', 'Docs', '--pins', '--json').status).toBe(1);
		expect(run('check', 'docs.json', '--pins')).toMatchObject({
			status: 1,
			stdout: expect.stringContaining('pinned to “Something else”')
		});
		expect(run('check', 'site', '--pins').status).not.toBe(0);
		pinTo('A');
		expect(pins()).toMatchObject({ status: 0, stderr: expect.stringContaining('Looked at 1 pin on 1 page.') });
	});

	test('a probe refuses what is not public, and what is no address', () => {
		expect(run('probe', 'http://127.0.0.1:9/')).toMatchObject({
			status: 1,
			stdout: expect.stringContaining('leads to this machine')
		});
		expect(run('probe', 'merrow')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('no whole http or https address')
		});
		expect(run('probe', 'https://s.example/', '--reader', 'nobody')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('There is no reader “nobody”')
		});
		expect(run('probe', 'https://s.example/', '--via', 'here')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('no machine to fetch from')
		});
	});
});
