import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { gunzipSync } from 'node:zlib';
import { request } from 'undici';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';

/** The configurations in `deploy/`, run as they are by Debian's nginx, Apache and Varnish: only addresses and folders are put in. */
const root = fileURLToPath(new URL('../../', import.meta.url));
const top = mkdtempSync(join(tmpdir(), 'kephalon-serving-'));
const started: ChildProcess[] = [];
afterAll(async () => {
	await Promise.all(started.map(ended));
	rmSync(top, { recursive: true, force: true });
});

/** Title and path of the pages that have a head, each with the file that it stands in. */
const PAGES = [
	['Home', '/', 'index.html'],
	['Walks', '/walks/', 'walks/index.html'],
	['Tide tables', '/tides.html', 'tides.html'],
	['Café & bar', '/caf%C3%A9%20&%20bar+1.html', 'café & bar+1.html']
] as const;
const LONG = 'A paragraph that is long enough to be packed on its way. '.repeat(40);
const document = (head: string, text: string) =>
	`<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n${head}</head>\n<body><h1>${text}</h1><p>${LONG}</p></body>\n</html>\n`;

const kephalon = (...args: string[]) => {
	const { status, stderr } = spawnSync(process.execPath, [join(root, 'bin/kephalon.js'), ...args], {
		encoding: 'utf8',
		cwd: top,
		env: { ...process.env, KEPHALON_DB: join(top, 'k.db') }
	});
	expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
};
function write(path: string, text: string) {
	const file = join(top, path);
	mkdirSync(dirname(file), { recursive: true });
	writeFileSync(file, text);
}

const freePort = () =>
	new Promise<number>((resolve) => {
		const server = createServer().listen(0, '127.0.0.1', () => {
			const { port } = server.address() as AddressInfo;
			server.close(() => resolve(port));
		});
	});
async function ended(child: ChildProcess) {
	if (child.exitCode !== null || child.signalCode !== null) return;
	const gone = new Promise((done) => child.once('exit', done));
	child.kill('SIGTERM');
	await gone;
}
/** Starts a program and waits until it answers. */
async function start(command: string, args: readonly string[], port: number): Promise<ChildProcess> {
	const child = spawn(command, args, { cwd: top, env: { ...process.env, KEPHALON_DB: join(top, 'k.db') } });
	started.push(child);
	let said = '';
	for (const stream of [child.stdout, child.stderr]) stream.on('data', (data: Buffer) => (said += data.toString()));
	for (let tries = 0; tries < 300; tries++) {
		if (child.exitCode !== null) throw new Error(`${command} ended at once: ${said}`);
		try {
			await (await request(`http://127.0.0.1:${port}/`)).body.dump();
			return child;
		} catch {
			await sleep(50);
		}
	}
	throw new Error(`${command} does not answer: ${said}`);
}

let delivery: ChildProcess;
let delivered = 0;
const deliver = async () =>
	(delivery = await start(
		process.execPath,
		[join(root, 'bin/kephalon.js'), 'deliver', '--port', String(delivered)],
		delivered
	));
beforeAll(async () => {
	for (const [title, , file] of PAGES) write(`source/${file}`, document(`<title>${title}</title>\n`, title));
	kephalon('import', 'source', '--base', 'https://docs.example', '--site', 'Docs');
	kephalon('release', '--site', 'Docs');
	delivered = await freePort();
	await deliver();
});

/** Web servers that know nothing of Kephalon, as the front finds them. */
const PLAIN = new Map([
	['plain-nginx', 'server { listen 80; root /srv/docs; gzip_types text/html; gzip_proxied any; }'],
	[
		'plain-apache',
		'<VirtualHost *:80>\nDocumentRoot /srv/docs\n<Directory /srv/docs>\nRequire all granted\n</Directory>\nDirectoryIndex index.html\n</VirtualHost>'
	]
]);

/** A configuration of ours in which the web server finds what is there on this machine. */
const fitted = (name: string, port: number, pages: string) =>
	(PLAIN.get(name) ?? readFileSync(join(root, 'deploy', name), 'utf8'))
		.replaceAll('127.0.0.1:4880', `127.0.0.1:${delivered}`)
		.replaceAll('/srv/docs-heads', join(top, 'heads'))
		.replaceAll('/srv/docs', join(top, pages))
		.replaceAll('/var/cache/nginx', join(top, `cache-${name}`))
		.replace('listen 80;', `listen 127.0.0.1:${port};`)
		.replace('<VirtualHost *:80>', `Listen 127.0.0.1:${port}\n<VirtualHost 127.0.0.1:${port}>`);

async function nginx(name: string, pages: string) {
	const port = await freePort();
	mkdirSync(join(top, `cache-${name}`), { recursive: true });
	const temp = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
		(kind) => `${kind}_temp_path ${join(top, `temp-${kind}`)};`
	);
	write(
		`${name}.main`,
		`daemon off; user root; pid ${join(top, `${name}.pid`)}; error_log stderr;\nevents {}\nhttp { include /etc/nginx/mime.types; access_log off; gzip on; ${temp.join(' ')}\n${fitted(name, port, pages)}\n}\n`
	);
	await start('/usr/sbin/nginx', ['-e', 'stderr', '-c', join(top, `${name}.main`)], port);
	return port;
}

const MODULES =
	'mpm_event authz_core authz_host dir mime alias env include filter proxy proxy_http rewrite headers substitute deflate';
async function apache(name: string, pages: string) {
	const port = await freePort();
	const modules = MODULES.split(' ').map((one) => `LoadModule ${one}_module /usr/lib/apache2/modules/mod_${one}.so`);
	write(
		`${name}.main`,
		`ServerRoot ${top}\nServerName localhost\nPidFile ${join(top, `${name}.pid`)}\nErrorLog "|/bin/cat 1>&2"\nDefaultRuntimeDir ${top}\nUser www-data\nGroup www-data\n${modules.join('\n')}\nTypesConfig ${join(top, 'types')}\nAddOutputFilterByType DEFLATE text/html\n${fitted(name, port, pages)}`
	);
	write('types', 'text/html html\n');
	spawnSync('chmod', ['-R', 'a+rX', top]);
	await start('/usr/sbin/apache2', ['-D', 'FOREGROUND', '-f', join(top, `${name}.main`)], port);
	return port;
}

/** Varnish stands before a web server that knows nothing of heads. */
async function varnish(name: string, pages: string) {
	const behind = await nginx('plain-nginx', pages);
	const port = await freePort();
	const vcl = readFileSync(join(root, 'deploy', name), 'utf8')
		.replace('.port = "8080"', `.port = "${behind}"`)
		.replace('.port = "4880"', `.port = "${delivered}"`);
	write(name, vcl);
	const where = ['-n', join(top, 'varnish'), '-s', 'malloc,64m', '-a', `127.0.0.1:${port}`];
	await start('/usr/sbin/varnishd', ['-F', '-j', 'none', '-f', join(top, name), ...where], port);
	return port;
}

const INCLUDE = '<!--#include virtual="/kephalon-head$KEPHALON_PATH?or=empty" -->\n';
/** Each configuration with what its pages say in their head. */
const SERVERS = [
	['nginx-include.conf', nginx, '<!--# include virtual="/kephalon-head" -->\n'],
	['nginx-substitute.conf', nginx, ''],
	['nginx-files.conf', nginx, '<!--# include virtual="/kephalon-heads$document_uri" -->\n'],
	['apache-include.conf', apache, INCLUDE],
	['apache-substitute.conf', apache, ''],
	['apache-files.conf', apache, '<!--#include virtual="/kephalon-heads$DOCUMENT_URI" -->\n'],
	['varnish.vcl', varnish, '<esi:include src="/kephalon-head"/>\n']
] as const;

describe.each(SERVERS)('%s', (name, serve, head) => {
	const pages = `pages-${name}`;
	const isFiles = name.includes('files');
	let port = 0;
	beforeAll(async () => {
		for (const [title, , file] of PAGES) write(`${pages}/${file}`, document(head, title));
		write(`${pages}/unknown.html`, document(head, 'Nobody knows it'));
		if (isFiles) kephalon('fragments', 'heads', '--site', 'Docs', '--release', 'latest');
		port = await serve(name, pages);
	});
	const get = async (path: string, headers: Record<string, string> = {}) => {
		const answer = await request(`http://127.0.0.1:${port}${path}`, { headers });
		const body = Buffer.from(await answer.body.arrayBuffer());
		const packed = answer.headers['content-encoding'] === 'gzip';
		return { status: answer.statusCode, packed, text: (packed ? gunzipSync(body) : body).toString() };
	};
	const released = async (path: string) =>
		(await request(`http://127.0.0.1:${delivered}/api/sites/Docs/head${path}`)).body.text();
	/** A page with its released head, and nothing else in it changed. */
	const whole = async (path: string, title: string) => {
		const lines = await released(path);
		return document(head === '' ? lines : `${lines}\n`, title);
	};

	test.each(PAGES)('%s goes out with its released head, every byte else as it was', async (title, path) => {
		expect(await get(path)).toEqual({ status: 200, packed: false, text: await whole(path, title) });
		expect(await get(`${path}?utm=1&path=/tides.html`)).toMatchObject({ text: await whole(path, title) });
		// Packed pages hold the same, for who reads what.
		for (const coding of ['gzip', 'gzip, br']) {
			const { text, packed } = await get(path, { 'accept-encoding': coding });
			expect(text).toBe(await whole(path, title));
			expect(packed).toBe(true);
		}
	});
	test('a page that nobody knows goes out without one', async () => {
		const { status, text } = await get('/unknown.html');
		expect(status).toBe(200);
		expect(text.replace('<!-- -->', '')).toBe(document(head === '' ? '' : '\n', 'Nobody knows it'));
	});
	test('heads are parts of pages, and no pages by themselves', async () => {
		for (const path of ['/kephalon-head/tides.html', '/kephalon-head', '/kephalon-heads/tides.html']) {
			const { status, text } = await get(path);
			expect([403, 404].includes(status) || text === '', path).toBe(true);
			expect(text).not.toContain('Tide tables');
		}
	});
	test('while Kephalon is away, pages go on', async () => {
		if (isFiles) {
			await ended(delivery);
			expect((await get('/tides.html')).text).toContain('<title>Tide tables</title>');
			await deliver();
			return;
		}
		const before = await get('/walks/');
		await ended(delivery);
		const away = await get('/walks/');
		expect([away.status, away.text.endsWith(before.text.slice(-200))]).toEqual([200, true]);
		// nginx and Varnish keep the last good head.
		if (!name.startsWith('apache')) expect(away.text).toBe(before.text);
		await deliver();
		await expect.poll(async () => (await get('/walks/')).text, { timeout: 60_000 }).toBe(before.text);
	});
});

describe.each([
	['plain-nginx', nginx],
	['plain-apache', apache]
] as const)('the front of %s', (name, serve) => {
	const pages = `pages-${name}`;
	let port = 0;
	let behind = 0;
	beforeAll(async () => {
		for (const [title, , file] of PAGES)
			write(
				`${pages}/${file}`,
				document(`<title>Its own</title>\n<meta property="og:title" content="Its own">\n`, title)
			);
		write(`${pages}/unknown.html`, document('<title>Its own</title>\n', 'Nobody knows it'));
		write(`${pages}/data.bin`, LONG);
		behind = await serve(name, pages);
		port = await freePort();
		await start(
			process.execPath,
			[
				...[join(root, 'bin/kephalon.js'), 'front', '--site', 'Docs', '--upstream', `http://127.0.0.1:${behind}`],
				...['--port', String(port)]
			],
			port
		);
	});
	const get = async (at: number, path: string, headers: Record<string, string> = {}) => {
		const answer = await request(`http://127.0.0.1:${at}${path}`, { headers, reset: true });
		const body = Buffer.from(await answer.body.arrayBuffer());
		const packed = answer.headers['content-encoding'] === 'gzip';
		return {
			status: answer.statusCode,
			headers: answer.headers,
			packed,
			text: (packed ? gunzipSync(body) : body).toString()
		};
	};
	const ended = (text: string) => text.slice(text.indexOf('</head>'));

	test.each(PAGES)(
		'%s goes out with its released head in the place of its own, every byte else as it was',
		async (title, path) => {
			const own = await get(behind, path);
			for (const coding of ['', 'gzip', 'gzip, br']) {
				const { text, packed, status } = await get(port, path, coding === '' ? {} : { 'accept-encoding': coding });
				expect(status).toBe(200);
				expect(packed).toBe(coding !== '');
				expect(text).toContain(`<title>${title.replace('&', '&amp;')}</title>`);
				expect(text).not.toContain('Its own');
				expect(ended(text)).toBe(ended(own.text));
			}
		}
	);
	test('who has a page is told so, until its head is another', async () => {
		const { headers } = await get(port, '/tides.html');
		const known = { 'if-none-match': String(headers.etag), 'if-modified-since': String(headers['last-modified']) };
		expect(await get(port, '/tides.html', known)).toMatchObject({ status: 304, text: '' });
		expect(await get(port, '/tides.html', { ...known, 'if-none-match': '"other"' })).toMatchObject({ status: 200 });
		// The server behind knows nothing of heads: asked by its own name for the page, it says that nothing has changed.
		const own = await get(behind, '/tides.html');
		expect(await get(port, '/tides.html', { 'if-none-match': String(own.headers.etag) })).toMatchObject({
			status: 200
		});
	});
	test('a page that nobody knows, parts of files and what is not there are as the server behind has them', async () => {
		const asked: [string, Record<string, string>][] = [
			['/unknown.html', {}],
			['/none.html', {}],
			['/data.bin', { range: 'bytes=10-99' }],
			['/data.bin', { 'accept-encoding': 'gzip' }]
		];
		for (const [path, headers] of asked) {
			const [through, own] = [await get(port, path, headers), await get(behind, path, headers)];
			expect([path, through.status, through.text]).toEqual([path, own.status, own.text]);
			for (const field of ['etag', 'content-range', 'content-type', 'last-modified'])
				expect([field, through.headers[field]]).toEqual([field, own.headers[field]]);
		}
	});
	test('a release is seen with the next page', async () => {
		kephalon('import', 'source', '--base', 'https://docs.example', '--site', 'Docs');
		write('source/tides.html', document('<title>Tide tables, anew</title>\n', 'Tide tables'));
		kephalon('import', 'source', '--base', 'https://docs.example', '--site', 'Docs');
		kephalon('release', '--site', 'Docs');
		expect((await get(port, '/tides.html')).text).toContain('<title>Tide tables, anew</title>');
		write('source/tides.html', document('<title>Tide tables</title>\n', 'Tide tables'));
		kephalon('import', 'source', '--base', 'https://docs.example', '--site', 'Docs');
		kephalon('release', '--site', 'Docs');
		expect((await get(port, '/tides.html')).text).toContain('<title>Tide tables</title>');
	});
});

describe('snippet.mjs', () => {
	test('gives the head of a page, what is known while Kephalon is away, and nothing for a page that nobody knows', async () => {
		write(
			'snippet.mjs',
			readFileSync(join(root, 'deploy/snippet.mjs'), 'utf8').replace('127.0.0.1:4880', `127.0.0.1:${delivered}`)
		);
		const { headOf } = (await import(/* @vite-ignore */ join(top, 'snippet.mjs'))) as {
			headOf: (path: string) => Promise<string>;
		};
		const head = await headOf('/tides.html');
		expect(head).toContain('<title>Tide tables</title>');
		// The second time nothing is sent again.
		expect(await headOf('/tides.html')).toBe(head);
		expect(await headOf('/caf%C3%A9%20&%20bar+1.html')).toContain('<title>Café &amp; bar</title>');
		expect(await headOf('/unknown.html')).toBe('');
		await ended(delivery);
		expect([await headOf('/tides.html'), await headOf('/walks/')]).toEqual([head, '']);
		await deliver();
		expect(await headOf('/walks/')).toContain('<title>Walks</title>');
	});
});
