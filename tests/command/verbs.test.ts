import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { Store } from '$server/store/store';

/** Every verb and every flag is run once, as the documents name them, and does something. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-verbs-'));
let work = '';
let db = '';

/** A site on the web: a few pages, a sitemap, a picture. It serves what is asked for by path, and counts. */
let website: Server;
let at = '';
let asked: string[] = [];
/** What is served instead of the page as it was written. */
const served = new Map<string, string>();
let picture: Buffer;

const html = (title: string, body = '', head = '') =>
	`<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>${title}</title>\n${head}</head>\n<body>${body}</body>\n</html>\n`;
const LINKS = '<a href="/tides">a</a> <a href="/walks/one">b</a> <a href="/walks/two">c</a>';
const ON_THE_WEB: Readonly<Record<string, string>> = {
	'/': html('The shore', LINKS),
	'/tides': html('Tides', '<a href="/deep">d</a>'),
	'/deep': html('Deep water'),
	'/walks/one': html('Walk one'),
	'/walks/two': html('Walk two')
};
beforeAll(async () => {
	picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#135' } })
		.png()
		.toBuffer();
	website = createServer((request, response) => {
		const path = request.url ?? '/';
		asked.push(path);
		if (path === '/far.png') return void response.setHeader('content-type', 'image/png').end(picture);
		const page = served.get(path) ?? (Object.hasOwn(ON_THE_WEB, path) ? ON_THE_WEB[path] : undefined);
		if (page === undefined) return void response.writeHead(404).end();
		response.setHeader('content-type', 'text/html; charset=utf-8').end(page);
	});
	await new Promise<void>((done) => website.listen(0, '127.0.0.1', done));
	at = `http://127.0.0.1:${(website.address() as AddressInfo).port}`;
});
afterAll(async () => {
	rmSync(top, { recursive: true, force: true });
	website.closeAllConnections();
	await new Promise((done) => website.close(done));
});
beforeEach(() => {
	work = mkdtempSync(join(top, 'w-'));
	db = join(work, 'k.db');
	asked = [];
	served.clear();
});

interface Ran {
	readonly status: number | null;
	readonly stdout: string;
	readonly stderr: string;
}
/** Runs it beside this process, which may have to answer it. */
function run(...args: string[]): Promise<Ran> {
	const { KEPHALON_DB: _db, ...env } = process.env;
	const child = spawn(process.execPath, [program, ...args], {
		cwd: work,
		env: { ...env, ...(db !== '' && { KEPHALON_DB: db }) }
	});
	let [stdout, stderr] = ['', ''];
	child.stdout.on('data', (chunk) => (stdout += String(chunk)));
	child.stderr.on('data', (chunk) => (stderr += String(chunk)));
	return new Promise((resolve) => child.once('close', (status) => resolve({ status, stdout, stderr })));
}
async function done(...args: string[]): Promise<Ran> {
	const ran = await run(...args);
	expect(ran.status, `${args.join(' ')}\n${ran.stderr}`).toBe(0);
	return ran;
}
/** Starts what serves until it is ended; gives its address as it says it. */
async function start(...args: string[]) {
	const child = spawn(process.execPath, [program, ...args], { cwd: work, env: { ...process.env, KEPHALON_DB: db } });
	let text = '';
	const where = await new Promise<string>((resolve, reject) => {
		const hear = (chunk: Buffer) => {
			text += chunk.toString();
			const found = /at (http:\/\/[\d.:]+)/.exec(text)?.[1];
			if (found) resolve(found);
		};
		child.stdout.on('data', hear);
		child.stderr.on('data', hear);
		child.once('exit', () => reject(new Error(`It ended: ${text}`)));
	});
	const end = () =>
		new Promise<void>((resolve) => {
			child.once('exit', () => resolve());
			child.kill('SIGTERM');
		});
	return { at: where, end, text: () => text };
}
function write(path: string, content: string | Buffer) {
	const file = join(work, path);
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(file, content);
	return file;
}
const read = (path: string) => readFileSync(join(work, path), 'utf8');
const pathsOf = async (site: string) =>
	(await done('pages', '--site', site, '--columns', 'path')).stdout
		.trim()
		.split(/\r?\n/)
		.slice(1)
		.map((line) => line.split(',')[0])
		.sort();
async function docs(...flags: string[]) {
	write('site/index.html', html('Home', '<p>Words of the home page, a few of them.'));
	write('site/a.html', html('Page A · Docs', '<img src="/own.png"><p>Words of the page called A.'));
	write('site/fr/a.html', html('Page A · Docs', '<p>Des mots.'));
	return done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs', ...flags);
}

describe('import', () => {
	test('from the web, through a stand-in, within limits, and no more than the patterns let in', async () => {
		const from = ['--from', 'https://shore.example/', '--via', at, '--rate', '500'];
		await done('import', ...from, '--site', 'One', '--depth', '1', '--exclude', '/walks/two');
		expect(await pathsOf('One')).toEqual(['/', '/tides', '/walks/one']);
		expect(asked).not.toContain('/deep');
		await done('import', ...from, '--site', 'Two', '--include', '/', '--include', '/walks/**');
		expect(await pathsOf('Two')).toEqual(['/', '/walks/one', '/walks/two']);
		await done('import', ...from, '--site', 'Three', '--limit', '2');
		expect(await pathsOf('Three')).toHaveLength(2);
	});

	test('of a folder: languages, versions, bare addresses, titles, types, files that are no pages', async () => {
		write('site/drafts/x.html', html('A draft'));
		for (const one of ['b', 'c', 'd', 'e']) write(`site/${one}.html`, html(`Page ${one.toUpperCase()} · Docs`));
		await docs(
			...['--language', 'fr/**=fr', '--link-languages', '--bare-addresses', '--trim-titles'],
			...['--type', 'a.html=chapter', '--ignore', 'drafts/**']
		);
		expect(await pathsOf('Docs')).toEqual(['/', '/a', '/b', '/c', '/d', '/e', '/fr/a']);
		const file = JSON.parse((await done('export', '--site', 'Docs')).stdout) as {
			pages: { path: string; type: string; language?: string; alternates?: object; fields: { title: string } }[];
		};
		const pageAt = (path: string) => file.pages.find((one) => one.path === path);
		expect(pageAt('/fr/a')?.language).toBe('fr');
		expect(pageAt('/a')).toMatchObject({ type: 'chapter', alternates: { fr: '/fr/a' } });
		expect(pageAt('/a')?.fields.title).not.toContain('· Docs');
		// Set back as they are written, by one word, and for good.
		const flags = ['import', 'site', '--base', 'https://docs.example', '--site', 'Docs'];
		expect((await done(...flags, '--keep-titles')).stderr).toContain('end with “· Docs”');
		await done(...flags);
		const kept = JSON.parse((await done('export', '--site', 'Docs')).stdout) as typeof file;
		expect(kept.pages.find(({ path }) => path === '/b')?.fields.title).toBe('Page B · Docs');
	});

	test('pictures at other addresses are asked for when that is said, and only then; never at a machine of one’s own', async () => {
		write('site/index.html', html('Home', `<img src="${at}/far.png">`));
		const flags = ['import', 'site', '--base', 'https://docs.example', '--site', 'Docs'];
		expect((await done(...flags)).stderr).not.toContain('is not fetched');
		expect((await done(...flags, '--fetch-pictures')).stderr).toContain(
			`${at}/far.png is not fetched: it leads to this machine`
		);
		expect(asked).toEqual([]);
	});

	test('of a table: which way round dates are, what paths are made of, a trial', async () => {
		write('t.csv', 'title,published\nFirst of all,3/4/2026\nSecond,5/6/2026\n');
		const flags = [
			'import',
			't.csv',
			'--base',
			'https://t.example',
			'--site',
			'T',
			'--type',
			'note',
			'--path-from-title'
		];
		const dry = await done(...flags, '--dates', 'day-first', '--dry-run');
		expect(dry.stdout + dry.stderr).toContain('2');
		await done(...flags, '--dates', 'month-first');
		const file = JSON.parse((await done('export', '--site', 'T')).stdout) as {
			pages: { path: string; fields: { published: string } }[];
		};
		expect(file.pages.map(({ path, fields }) => [path, fields.published])).toEqual([
			['/first-of-all', expect.stringContaining('2026-03-04')],
			['/second', expect.stringContaining('2026-05-06')]
		]);
	});
});

describe('check', () => {
	test('of very many causes of one kind the largest are told in words, and how many others there are; JSON has all', async () => {
		const words = 'The walk goes along the shore and back by the old road, whatever the weather is like in autumn';
		for (let at = 0; at < 25; at++)
			for (const one of at < 2 ? ['a', 'b', 'c', 'd', 'e'] : ['a', 'b', 'c', 'd'])
				write(
					`site/${at}${one}.html`,
					html(`Walk ${at} ${one}`, '', `<meta name="description" content="${words} ${at}">\n`)
				);
		const { stdout } = await run('check', 'site', '--only', 'shared-description');
		const told = stdout.split('\n').filter((line) => line.startsWith('warning: '));
		expect(told).toHaveLength(20);
		expect(told.filter((line) => line.startsWith('warning: 5 pages'))).toHaveLength(2);
		expect(stdout).toContain(
			'and 5 more of the kind shared-description, on 20 pages: --only shared-description --format json lists all'
		);
		const all = JSON.parse((await run('check', 'site', '--only', 'shared-description', '--format', 'json')).stdout);
		expect(all).toHaveLength(25);
	});

	test('of a folder does not cry wolf over versions and feeds', async () => {
		const versions =
			'<link rel="alternate" hreflang="en" href="https://d.example/">\n<link rel="alternate" hreflang="fr" href="https://d.example/fr/">\n' +
			'<link rel="alternate" hreflang="x-default" href="https://d.example/">\n';
		const feed = '<link rel="alternate" type="application/rss+xml" href="/feed.xml">\n';
		const body = '<p>Words enough to stand here for what a page would say.';
		write('dist/index.html', html('Home of the documents', body, versions + feed));
		write(
			'dist/fr/index.html',
			html('Les documents chez eux', body, versions + feed).replace('lang="en"', 'lang="fr"')
		);
		write('dist/feed.xml', '<rss version="2.0"></rss>');
		const { stdout, stderr } = await run('check', 'dist', '--format', 'json');
		// One for each cause, with both pages.
		const causes = JSON.parse(stdout) as { pages: number; places: object[]; sure: boolean; mend: string }[];
		expect(causes.map(({ pages, places }) => [pages, places.length])).toEqual([
			[2, 2],
			[2, 2],
			[2, 2]
		]);
		expect(causes[0]).toMatchObject({ sure: true, mend: expect.any(String) as string });
		expect(stdout).not.toMatch(/x-default|feed|alternate|doubled/);
		expect(stderr).not.toContain('rror');
	});
	test('of a site file looks at its pages when that is asked', async () => {
		await docs();
		await done('export', '--site', 'Docs', '--out', 'docs.json');
		const [rules, pages] = [await run('check', 'docs.json'), await run('check', 'docs.json', '--pages')];
		expect(rules.stdout + rules.stderr).not.toContain('No picture');
		expect(pages.stdout + pages.stderr).toContain('No picture');
		const only = await run('check', 'docs.json', '--pages', '--only', 'no-description', '--json');
		expect(only.stdout).not.toContain('no-picture');
	});
});

describe('what goes out', () => {
	test('a head at a moment, and where it came from', async () => {
		await docs();
		await done('export', '--site', 'Docs', '--out', 'docs.json');
		const file = JSON.parse(read('docs.json')) as { site: { rules: object[] } };
		file.site.rules.push({ tag: 'title', kind: 'template', template: '{page.title} in {now | date "y"}' });
		write('dated.json', JSON.stringify(file));
		const flags = ['render', '--file', 'dated.json', '--path', '/a.html'];
		expect((await done(...flags, '--now', '2031-05-06T00:00:00Z')).stdout).toContain('in 2031');
		expect((await done(...flags, '--now', '2032-05-06T00:00:00Z', '--trace')).stdout).toContain('in 2032');
		expect((await done('render', '--file', 'dated.json', '--all')).stdout.trim().split('\n')).toHaveLength(3);
	});

	test('robots.txt and a sitemap that somebody else wrote stay as they are, and that is said', async () => {
		await docs();
		await done('release', '--site', 'Docs', '--note', 'First');
		write('site/robots.txt', 'User-agent: *\nDisallow: /mine\n');
		write('site/sitemap.xml', '<urlset>mine</urlset>');
		const { stderr } = await done(
			'inject',
			'site',
			'--site',
			'Docs',
			'--out',
			'dist',
			'--report',
			'gone.csv',
			'--json'
		);
		expect(stderr).toMatch(/Left as it is, since it was not written by Kephalon: .*sitemap\.xml.*robots\.txt/);
		expect(read('dist/robots.txt')).toBe('User-agent: *\nDisallow: /mine\n');
		expect(read('dist/sitemap.xml')).toBe('<urlset>mine</urlset>');
		expect(existsSync(join(work, 'gone.csv'))).toBe(true);
		rmSync(join(work, 'site/robots.txt'));
		rmSync(join(work, 'site/sitemap.xml'));
		await done('inject', 'site', '--site', 'Docs', '--out', 'fresh');
		expect(read('fresh/robots.txt')).toContain('Sitemap: https://docs.example/sitemap.xml');
		// What Kephalon wrote itself is brought up to date.
		await done('inject', 'fresh', '--site', 'Docs', '--in-place');
		expect(read('fresh/sitemap.xml')).toContain('https://docs.example/a.html');
	});

	test('a release is written as it was made, with what its rules left out; so is the working copy, and which is said', async () => {
		await docs();
		const inject = (...more: string[]) => run('inject', 'site', '--site', 'Docs', ...more);
		expect(await inject('--out', 'none', '--release', 'latest')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('released')
		});
		write('site/a.html', html('Page a', '', '<meta name="description" content="By its author">'));
		await done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
		const rule = (body: object) => {
			const store = new Store(db);
			const { id } = store.working.sites.named('Docs');
			store.working.rules.set(id, { layer: 'page', path: '/a.html' }, 'description', undefined, body as never);
			store.close();
		};
		await done('release', '--site', 'Docs', '--note', 'As their authors wrote them');
		rule({ kind: 'leaveOut' });
		await done('release', '--site', 'Docs', '--note', 'Without a description');
		rule({ kind: 'template', template: 'Not released' });
		expect((await inject('--out', 'one', '--release', '1')).stderr).toContain(', from release 1;');
		expect((await inject('--out', 'latest', '--release', 'latest')).stderr).toContain(', from release 2;');
		expect((await inject('--out', 'now', '--working')).stderr).toContain(', from the working copy;');
		expect(JSON.parse((await inject('--out', 'unsaid', '--json')).stdout)).toMatchObject({ heads: 'the working copy' });
		expect(read('one/a.html')).toContain('content="By its author"');
		expect(read('latest/a.html')).not.toContain('name="description"');
		expect(read('now/a.html')).toContain('content="Not released"');
		expect(read('unsaid/a.html')).toBe(read('now/a.html'));
		// A page that came later is in no release.
		write('site/late.html', html('Late'));
		expect((await inject('--out', 'one', '--release', '1')).stderr).toContain('late.html: not in release 1');
		expect(await inject('--out', 'x', '--release', '9')).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('9')
		});
		expect(await inject('--out', 'x', '--release', '1', '--working')).toMatchObject({ status: 2 });
		expect((await inject('--out', 'x', '--release', 'first')).stderr).toContain('A release is a number');
		expect(existsSync(join(work, 'x'))).toBe(false);
	});

	test('heads as files, each at its page’s path; a folder of somebody else’s is left alone', async () => {
		write('site/walks/index.html', html('Walks'));
		await docs();
		await done('release', '--site', 'Docs', '--note', 'First');
		expect((await done('fragments', 'heads', '--site', 'Docs', '--release', 'latest')).stderr).toContain(
			'of release 1'
		);
		expect(read('heads/a.html')).toContain('<title>');
		expect(read('heads/walks/index.html')).toContain('<title>Walks');
		// What is gone from the site is gone from the folder.
		rmSync(join(work, 'site/walks'), { recursive: true });
		await done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
		const { stdout } = await done('fragments', 'heads', '--site', 'Docs', '--working', '--json');
		expect(JSON.parse(stdout)).toMatchObject({ heads: 'the working copy' });
		expect(existsSync(join(work, 'heads/walks'))).toBe(false);
		expect(readdirSync(work).filter((name) => name.startsWith('.heads'))).toEqual([]);
		expect(await run('fragments', 'site', '--site', 'Docs')).toMatchObject({ status: 2 });
		expect(read('site/a.html')).toContain('<!doctype html>');
	});

	test('a release of one page alone; what takes much away is said twice; the way back; what differs', async () => {
		for (const one of ['b', 'c', 'd']) write(`site/${one}.html`, html(`Page ${one} · Docs`));
		await docs();
		await done('release', '--site', 'Docs', '--note', 'All six');
		for (const one of ['b', 'c', 'd', 'fr/a']) rmSync(join(work, `site/${one}.html`));
		await done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
		await done('release', '--site', 'Docs', '--only', '/b.html');
		const refused = await run('release', '--site', 'Docs');
		expect(refused).toMatchObject({ status: 1, stderr: expect.stringContaining('--removes 3') });
		await done('release', '--site', 'Docs', '--removes', '3', '--json');
		const listed = (await done('releases', '--site', 'Docs', '--json')).stdout;
		expect(listed.match(/"number":/g)).toHaveLength(3);
		expect((await done('diff', '1', '3', '--site', 'Docs', '--format', 'json')).stdout.trim().split('\n')).toHaveLength(
			4
		);
		expect((await done('diff', '1', '3', '--site', 'Docs', '--path', '/b.html')).stdout).toContain('/b.html');
		await done('rollback', '1', '--site', 'Docs', '--note', 'It was too much');
		expect((await done('releases', '--site', 'Docs')).stdout).toContain('It was too much');
		const back = await run('rollback', '3', '--site', 'Docs');
		expect(back).toMatchObject({ status: 1, stderr: expect.stringContaining('--removes 4') });
		await done('rollback', '3', '--site', 'Docs', '--removes', '4');
	});

	test('a site file over a site at work: refused until it is said of which revision', async () => {
		await docs();
		await done('export', '--site', 'Docs', '--out', 'docs.json');
		await done('import', 'docs.json');
		const serve = await start('serve', '--port', '0', '--log-level', 'error');
		const answer = await fetch(`${serve.at}/api/sites/Docs/rules`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json', origin: serve.at },
			body: JSON.stringify({
				...{ place: { layer: 'site' }, tag: 'title' },
				body: { kind: 'template', template: 'Written in the room' }
			})
		});
		expect(answer.status).toBe(200);
		await serve.end();
		const refused = await run('import', 'docs.json');
		expect(refused.status).toBe(1);
		const revision = /--revision (\d+)/.exec(refused.stderr)?.[1];
		expect(revision).toBeDefined();
		await done('import', 'docs.json', '--revision', revision!);
	});

	test('share pictures of a type, of a page, and all', async () => {
		await docs();
		await done('export', '--site', 'Docs', '--out', 'docs.json');
		const { STARTING_LAYOUTS } = await import('$core');
		const file = JSON.parse(read('docs.json')) as { types: { name: string; layout?: object }[] };
		file.types.forEach((type) => (type.layout = STARTING_LAYOUTS[0]!.layout));
		write('drawn.json', JSON.stringify(file));
		await done('import', 'drawn.json');
		const drawn = async (...flags: string[]) =>
			JSON.parse((await done('compose', '--site', 'Docs', '--json', ...flags)).stdout) as { drawn: number };
		expect(await drawn('--page', '/a.html')).toMatchObject({ drawn: 1 });
		expect(await drawn('--type', file.types[0]!.name)).toMatchObject({ drawn: expect.any(Number) });
		expect((await drawn()).drawn).toBe(0);
	});
});

describe('what is served', () => {
	const headsOf = async () => {
		for (const path of ['/', '/a.html', '/fr/a.html']) {
			const { stdout } = await done('render', '--site', 'Docs', '--path', path);
			served.set(
				path,
				`<!doctype html><html lang="en"><head><meta charset="utf-8">${stdout}</head><body>x</body></html>`
			);
		}
	};
	test('is compared with what was released: nothing is said of what was not looked at', async () => {
		await docs();
		const flags = ['verify', '--site', 'Docs', '--via', at, '--rate', '500'];
		expect(await run(...flags)).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('Nothing of Docs is released')
		});
		await done('release', '--site', 'Docs');
		await headsOf();
		const all = await done(...flags);
		expect(all.stdout + all.stderr).toMatch(/3 pages of 3 released looked at:\s+3 as released/);
		const some = await done(...flags, '--sample', '2');
		expect(some.stdout + some.stderr).toMatch(/2 pages of 3 released looked at:\s+2 as released/);
		served.set('/', html('Another'));
		const failed = await run(...flags, '--fail-on', 'missing', '--format', 'sarif');
		expect(failed.status).toBe(1);
		// Of itself, whatever is served otherwise; of some kinds, those alone; a kind that is none is not passed over.
		expect((await run(...flags)).status).toBe(1);
		expect((await run(...flags, '--fail-on', 'old,shut-out')).status).toBe(0);
		expect(await run(...flags, '--fail-on', 'mising')).toMatchObject({
			status: 2,
			stderr: expect.stringContaining('There is no “mising” to fail on')
		});
		expect(JSON.parse(failed.stdout)).toMatchObject({ runs: [{ results: [{ ruleId: 'served-missing' }] }] });
		expect(JSON.parse((await run(...flags, '--format', 'json')).stdout)).toMatchObject({
			pages: 3,
			released: 3,
			waiting: 0
		});
	});
	test('is probed through a stand-in', async () => {
		const flags = ['probe', 'https://shore.example/', '--via', at];
		const one = await run(...flags, '--reader', 'bottle');
		expect(one.stdout).toContain('The shore');
		const json = await run(...flags, '--reader', 'bottle', '--reader', 'gangway', '--format', 'json');
		expect(json.stdout).toContain('The shore');
		expect(JSON.parse((await run(...flags, '--format', 'sarif')).stdout)).toHaveProperty('runs');
		const report = await run(...flags, '--format', 'html');
		expect(report.stdout).toMatch(/^<!doctype html>[^]*The shore[^]*<\/html>\s*$/);
		// Another host has a machine of its own to be asked at.
		const other = ['probe', 'https://media.shore.example/', '--via', `https://media.shore.example=${at}`, '--via', at];
		expect((await run(...other, '--reader', 'bottle')).stdout).toContain('The shore');
		// An address of this machine says which way there is.
		expect((await run('probe', `${at}/`)).stdout).toContain('with --via');
	});
	test('heads, from as many processes as are asked for, where they are asked for', async () => {
		await docs();
		await done('release', '--site', 'Docs');
		const flags = ['--port', '0', '--host', '127.0.0.1', '--log-level', 'debug'];
		const one = await start('deliver', ...flags);
		const headAt = async (address: string) => (await fetch(`${address}/api/sites/Docs/head?path=/a.html`)).text();
		expect(await headAt(one.at)).toContain('<title>Page A · Docs</title>');
		await one.end();
		expect(one.text()).toContain('/api/sites/Docs/head');
		const free = new URL(one.at).port;
		const two = await start('deliver', '--port', free, '--workers', '2');
		expect(await headAt(two.at)).toContain('<title>Page A · Docs</title>');
		expect(two.text()).toContain('in 2 processes');
		await two.end();
	});
	test('the rooms, with a folder that may be read from and readers that may be told', async () => {
		await docs();
		mkdirSync(join(work, 'open'));
		const serve = await start('serve', '--port', '0', '--content', join(work, 'open'), '--readers', at);
		const cards = (await (await fetch(`${serve.at}/api/sites/Docs/cards`)).json()) as { hasReaders: boolean };
		expect(cards.hasReaders).toBe(true);
		await serve.end();
		const without = await start('serve', '--port', '0');
		expect(await (await fetch(`${without.at}/api/sites/Docs/cards`)).json()).toMatchObject({ hasReaders: false });
		const robots = await fetch(`${without.at}/api/sites/Docs/robots`);
		expect([robots.status, robots.headers.get('content-type')]).toEqual([200, 'text/plain; charset=utf-8']);
		expect(await robots.text()).toMatch(/User-agent: \*[^]*Sitemap: https:\/\/docs\.example\/sitemap\.xml/);
		// What is refused is told apart by its code, and names what it is about.
		const refused = await fetch(`${without.at}/api/sites/Dogs/pending`);
		expect([refused.status, refused.headers.get('content-type')]).toEqual([404, 'application/problem+json']);
		expect(await refused.json()).toMatchObject({ code: 'site-missing', site: 'Dogs', sites: ['Docs'], status: 404 });
		await without.end();
	});
});

test('a backup is put back where nothing is, and never over what is there', async () => {
	await docs();
	await done('backup', 'kept', '--json');
	const refused = await run('restore', 'kept');
	expect(refused.status).toBe(1);
	await done('restore', 'kept', '--db', join(work, 'again.db'), '--json');
	const quality = async (file: string) =>
		JSON.parse((await done('quality', '--site', 'Docs', '--json', '--db', file)).stdout) as { pages: number };
	expect(await quality(join(work, 'again.db'))).toEqual(await quality(db));
});

test('without a database named, it is data/kephalon.db of the folder one stands in', async () => {
	write('site/index.html', html('Home'));
	db = '';
	await done('import', 'site', '--base', 'https://docs.example', '--site', 'Docs');
	expect(existsSync(join(work, 'data/kephalon.db'))).toBe(true);
	expect(await pathsOf('Docs')).toEqual(['/']);
});

test('every flag of every verb is run by a test', async () => {
	const tests = readdirSync(dirname(fileURLToPath(import.meta.url)))
		.map((name) => readFileSync(fileURLToPath(new URL(name, import.meta.url)), 'utf8'))
		.join('\n');
	const verbs = (await done('--help')).stdout.matchAll(/^ {2}([a-z]+)/gm);
	const unrun: string[] = [];
	for (const [, verb] of verbs) {
		if (verb === 'help') continue;
		const { stdout } = await done(verb!, '--help');
		if (!tests.includes(`'${verb}'`)) unrun.push(verb!);
		for (const [, flag] of stdout.matchAll(/^ +(?:-\w, )?(--[a-z-]+)/gm))
			if (!tests.includes(`'${flag}'`)) unrun.push(`${verb} ${flag}`);
	}
	expect(unrun).toEqual([]);
});
