import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ALL_READERS, habitsInWords, nothingFound } from '$core';
import { TracingFetcher } from '../fetching/trace';
import { sarifOf } from '../findings/sarif';
import { PATIENT } from '../../core/readers/patient.sample';
import { probe as probeBy } from './probe';
import { probeInWords } from './told';

/** What is seen of an address, as it is told. */
const seenOf = async (...asked: Parameters<typeof probe>) => probeInWords(await probe(...asked));

/** No test hangs on how long a busy machine takes. */
const probe = (fetcher: TracingFetcher, address: string) => probeBy(fetcher, address, PATIENT);

/** A site with the faults that real ones have, each at an address. */
type Answer = (request: IncomingMessage, response: ServerResponse) => void;
let server: Server;
let base = '';
let fetcher: TracingFetcher;
const pictures: Record<string, Buffer> = {};

const SOUND = (more = '', picture = '/p.jpg') =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Eider</title><meta name="description" content="A duck of cold seas and shores."><link rel="canonical" href="https://s.example/eider"><meta property="og:title" content="Eider"><meta property="og:image" content="https://s.example${picture}"><meta property="og:image:width" content="1200"><meta property="og:image:height" content="630"><meta property="og:image:type" content="image/jpeg">${more}</head><body><p>${'Words of the page. '.repeat(30)}</p></body></html>`;
/** The same without any word on what its picture is. */
const BARE = (picture: string, more = '') =>
	SOUND(more, `${picture}"><!--p--><meta name="x" content="`)
		.replace(/<meta property="og:image:[^>]*>/g, '')
		.replace('<meta name="x" content="">', '');
const html =
	(text: string, type = 'text/html; charset=utf-8'): Answer =>
	(_, response) =>
		void response.writeHead(200, { 'content-type': type }).end(text);

let rotated = 0;
const ANSWERS: Record<string, Answer> = {
	'/robots.txt': (_, response) => void response.end('User-agent: ropewalk\nDisallow: /closed\nDisallow: /shut/\n'),
	'/sound': html(SOUND()),
	'/closed': html(SOUND()),
	'/gone': (_, response) =>
		void response.writeHead(404, { 'content-type': 'text/html' }).end('<title>Not found</title>'),
	'/shell': html(
		'<html><head><title>App</title><script src="/a.js"></script></head><body><div id="app"></div></body></html>'
	),
	'/far': html(
		`<html><head><style>${'a{}'.repeat(200_000)}</style><title>Far</title><meta property="og:title" content="Far"></head><body>x`
	),
	'/late': html(
		`<html><head><!--${' '.repeat(1100)}--><meta charset="utf-8"><title>Late</title></head><body>`,
		'text/html'
	),
	'/two-charsets': html(SOUND('', '/p.jpg').replace('charset="utf-8"', 'charset="iso-8859-1"')),
	'/relative': html(SOUND().replace('https://s.example/p.jpg', '/p.jpg')),
	'/local': html(SOUND().replace('https://s.example/eider', 'http://localhost:3000/eider')),
	'/bare': html('<html><head><title>Bare</title></head><body>words'),
	'/twice': html(SOUND('<meta property="og:title" content="Another tool"><title>Other</title>')),
	'/hidden': html(SOUND('<meta name="robots" content="noindex">')),
	'/sign-in': html('<html><head><title>Sign in</title></head><body><form><input type="password"></form>'),
	'/no-picture': html(SOUND('', '/none.jpg')),
	'/heavy': html(SOUND('', '/heavy.png')),
	'/page-as-picture': html(SOUND('', '/sound')),
	'/lies': html(SOUND('', '/small.jpg')),
	'/refresh': html(
		'<html><head><meta charset="utf-8"><meta http-equiv="refresh" content="0; url=/sound"></head><body>'
	),
	'/refresh-header': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html; charset=utf-8', refresh: '0; url=/sound' })
			.end(SOUND().replaceAll('Eider', 'Before')),
	'/refresh-loop': html(SOUND('<meta http-equiv="refresh" content="0; url=/refresh-loop-2">')),
	'/refresh-loop-2': html(SOUND('<meta http-equiv="refresh" content="0; url=/refresh-loop">')),
	'/refresh-late': html(SOUND('<meta http-equiv="refresh" content="300; url=/gone">')),
	'/nowhere-302': (_, response) => void response.writeHead(302).end(),
	'/nowhere-300': (_, response) => void response.writeHead(300, { 'content-type': 'text/html' }).end(SOUND()),
	'/unasked-304': (_, response) => void response.writeHead(304).end(),
	'/as-text': html(SOUND(), 'text/plain; charset=utf-8'),
	'/as-pdf': html('%PDF-1.4 <title>Eider</title>', 'application/pdf'),
	'/as-download': (_, response) =>
		void response
			.writeHead(200, {
				'content-type': 'text/html; charset=utf-8',
				'content-disposition': 'attachment; filename="a.html"'
			})
			.end(SOUND()),
	'/no-charset': html(SOUND().replace('<meta charset="utf-8">', '').replace('cold seas', 'cølder seas'), 'text/html'),
	'/wrong-bytes': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html; charset=utf-8' })
			.end(Buffer.from(SOUND().replace('A duck', 'Ein Küstenvogel'), 'latin1')),
	'/left': html(SOUND().replace('<title>Eider</title>', '<title>{{ page.title }}</title>')),
	'/undefined': html(SOUND().replace('og:title" content="Eider"', 'og:title" content="undefined"')),
	'/undefined-word': html(SOUND().replace('<title>Eider</title>', '<title>undefined behaviour</title>')),
	'/twice-escaped': html(SOUND().replace('<title>Eider</title>', '<title>Eiders &amp;amp; ducks</title>')),
	'/names-home': html(SOUND().replace('https://s.example/eider', 'https://s.example/')),
	'/x-robots': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'x-robots-tag': 'noindex' })
			.end(SOUND()),
	'/preview-none': html(SOUND('<meta name="robots" content="index, max-image-preview:none">')),
	'/x-robots-one': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'x-robots-tag': 'fathom: noindex, nofollow' })
			.end(SOUND()),
	'/x-robots-both': (_, response) =>
		void response
			.writeHead(200, {
				'content-type': 'text/html; charset=utf-8',
				'x-robots-tag': 'max-snippet:50, noindex, fathom: none'
			})
			.end(SOUND()),
	'/x-robots-none': (_, response) =>
		void response
			.writeHead(200, {
				'content-type': 'text/html; charset=utf-8',
				'x-robots-tag': 'max-image-preview:none, unavailable_after: 25 Jun 2099 15:00:00 GMT'
			})
			.end(SOUND()),
	'/many-pictures': html(
		BARE(
			'/p.jpg',
			Array.from({ length: 11 }, (_, at) => `<meta property="og:image" content="https://s.example/p.jpg?${at}">`).join(
				''
			)
		)
	),
	'/long-data': html(
		BARE('').replace('https://s.example"><!--p-->', `data:image/gif;base64,${'R0lGOD'.repeat(50_000)}">`)
	),
	'/refresh-base': html(
		'<html><head><meta charset="utf-8"><base href="/deep/"><meta http-equiv="refresh" content="0; url=../sound"></head>'
	),
	'/meta-one': html(SOUND('<meta name="fathom" content="noindex">')),
	'/base': html(
		SOUND()
			.replace('<title>', '<base href="https://s.example/deep/er/"><title>')
			.replace('https://s.example/p.jpg', '../../p.jpg')
	),
	'/japanese': html(
		`<html><head><meta charset="utf-8"><!--${'海'.repeat(70_000)}--><title>Far in bytes</title><meta property="og:title" content="Far in bytes"></head><body>x`
	),
	'/soft-404': html(SOUND().replace('<title>Eider</title>', '<title>Site | Page not found</title>')),
	'/soft-404-2': html(SOUND().replace('<title>Eider</title>', '<title>Sorry, we could not find that page</title>')),
	'/one-403': (request, response) =>
		/Galley/.test(request.headers['user-agent'] ?? '')
			? void response.writeHead(403, { 'content-type': 'text/html' }).end('no')
			: html(SOUND())(request, response),
	'/six-0': (_, response) => void response.writeHead(302, { location: '/six-1' }).end(),
	'/six-1': (_, response) => void response.writeHead(302, { location: '/six-2' }).end(),
	'/six-2': (_, response) => void response.writeHead(302, { location: '/six-3' }).end(),
	'/six-3': (_, response) => void response.writeHead(302, { location: '/six-4' }).end(),
	'/six-4': (_, response) => void response.writeHead(302, { location: '/six-5' }).end(),
	'/six-5': (_, response) => void response.writeHead(302, { location: '/sound' }).end(),
	'/picture-401': html(SOUND('', '/401.jpg')),
	'/401.jpg': (_, response) => void response.writeHead(401).end('no'),
	'/picture-empty': html(SOUND('', '/empty.jpg')),
	'/empty.jpg': (_, response) => void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(),
	'/picture-svg': html(BARE('/drawn.svg')),
	'/drawn.svg': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'image/svg+xml' })
			.end('<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="630"><rect width="9" height="9"/></svg>'),
	'/picture-mark': html(BARE('/mark.png')),
	'/picture-small': html(BARE('/small.jpg')),
	'/picture-3mb': html(BARE('/3mb.png')),
	'/picture-shut': html(BARE('/shut/p.jpg')),
	'/picture-data': html(BARE('').replace('https://s.example"><!--p-->', 'data:image/gif;base64,R0lGOD">')),
	'/picture-mailto': html(BARE('').replace('https://s.example"><!--p-->', 'mailto:a@s.example">')),
	'/forms': html(BARE('/p.jpg', '<meta name="twitter:image" content="https://s.example/form.webp">')),
	'/twitter-gone': html(BARE('/p.jpg', '<meta name="twitter:image" content="https://s.example/none.jpg">')),
	'/second-gone': html(BARE('/p.jpg', '<meta property="og:image" content="https://s.example/none.jpg">')),
	'/below': html(
		'<html><head><title>Below</title><div>oops</div><meta property="og:title" content="Below"><meta property="og:image" content="https://s.example/p.jpg"></head><body>words'
	),
	'/loop': (_, response) => void response.writeHead(302, { location: '/loop-2' }).end(),
	'/loop-2': (_, response) => void response.writeHead(302, { location: '/loop' }).end(),
	'/elsewhere': (_, response) =>
		void response
			.writeHead(302, { location: `http://127.0.0.2:${(server.address() as AddressInfo).port}/sound` })
			.end(),
	'/reset': (request) => void request.socket.destroy(),
	'/short': (_, response) => {
		response.writeHead(200, { 'content-type': 'text/html', 'content-length': '5000' });
		response.write('<title>Short</title>');
		setTimeout(() => response.socket?.destroy(), 20);
	},
	'/bomb': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' })
			.end(gzipSync(Buffer.alloc(80_000_000))),
	'/unpacked': (_, response) =>
		void response
			.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' })
			.end('<title>Plain</title>'),
	'/rotates': (request, response) =>
		html(SOUND(`<meta name="author" content="Author ${rotated++}">`))(request, response),
	'/two-faces': (request, response) =>
		html(/Galley/.test(request.headers['user-agent'] ?? '') ? SOUND('<meta name="author" content="x">') : SOUND())(
			request,
			response
		)
};

beforeAll(async () => {
	const draw = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#357' } });
	pictures['/p.jpg'] = await draw(1200, 630).jpeg().toBuffer();
	pictures['/small.jpg'] = await draw(300, 200).png().toBuffer();
	pictures['/heavy.png'] = Buffer.concat([await draw(1200, 630).png().toBuffer(), Buffer.alloc(9_000_000)]);
	pictures['/mark.png'] = await draw(1, 1).png().toBuffer();
	pictures['/3mb.png'] = Buffer.concat([await draw(1200, 630).png().toBuffer(), Buffer.alloc(3_000_000)]);
	pictures['/form.webp'] = await draw(1200, 600).webp().toBuffer();
	pictures['/shut/p.jpg'] = pictures['/p.jpg'];
	server = createServer((request, response) => {
		const path = request.url as string;
		const picture = pictures[path.split('?')[0]!];
		if (picture) return void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(picture);
		const answer = ANSWERS[path];
		if (answer) answer(request, response);
		else response.writeHead(404).end();
	});
	await new Promise<void>((done) => server.listen(0, '0.0.0.0', done));
	base = 'https://s.example';
	fetcher = new TracingFetcher(new Set([`127.0.0.2:${(server.address() as AddressInfo).port}`]), {
		origin: base,
		at: `http://127.0.0.1:${(server.address() as AddressInfo).port}`
	});
});
afterAll(async () => {
	await fetcher.close();
	server.closeAllConnections();
	await new Promise((done) => server.close(done));
});

const readerOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)!;

const codes = async (path: string) => (await seenOf(fetcher, base + path)).findings.map(({ code }) => code);

test('a sound page has no finding, and every reader has its card from what is served', async () => {
	const found = await seenOf(fetcher, `${base}/sound`);
	expect(found.findings).toEqual([]);
	expect(found.readers).toHaveLength(ALL_READERS.length);
	for (const { card, isShutOut } of found.readers) expect([isShutOut, card?.title.shown]).toEqual([false, 'Eider']);
	expect(found.picture).toMatchObject({
		address: `${base}/p.jpg`,
		facts: { width: 1200, height: 630, type: 'image/jpeg' }
	});
	expect(found.tags.find(({ name }) => name === 'og:title')).toMatchObject({ value: 'Eider', line: 1 });
	expect(found.head).toContain('og:image:type');
	expect(found.readers.find(({ reader }) => reader === 'fathom')?.key).toBe('https://s.example/eider');
	expect(found.readers.find(({ reader }) => reader === 'galley')?.key).toBe(`${base}/sound`);
});

test('what a reader reads is counted in bytes, and relative addresses stand under the base of the page', async () => {
	const far = await seenOf(fetcher, `${base}/japanese`);
	const title = (id: string) => far.readers.find(({ reader }) => reader === id)?.card?.title.shown;
	// 70,000 characters of three bytes, and a reader of 200 kB.
	expect([readerOf('bottle').habits.bytes, title('bottle'), title('gangway')]).toEqual([200_000, '', 'Far in bytes']);
	expect(far.findings.find(({ code }) => code === 'beyond-reading')?.says).toContain('Bottle');
	const under = await seenOf(fetcher, `${base}/base`);
	expect(under.readers.find(({ reader }) => reader === 'gangway')?.card?.picture?.address).toBe(`${base}/p.jpg`);
});

test('pictures beyond those that are fetched are counted, and a picture written into its address is told in short', async () => {
	const many = await seenOf(fetcher, `${base}/many-pictures`);
	// Eight are fetched; a reader that takes every one shows twelve.
	expect(many.unseen).toBe(4);
	expect(nothingFound(many)).toBe('No fault was found, but 4 of its pictures were not looked at.');
	const long = await seenOf(fetcher, `${base}/long-data`);
	expect(JSON.stringify(long.readers).length).toBeLessThan(40_000);
	const under = await seenOf(fetcher, `${base}/refresh-base`);
	expect(under.readers.find(({ reader }) => reader === 'porthole')?.hops.at(-1)?.address).toBe(`${base}/sound`);
});

test('a refresh is followed by those who do, in the page and as a header, and told for the others', async () => {
	for (const path of ['/refresh', '/refresh-header']) {
		const { readers, findings } = await seenOf(fetcher, base + path);
		for (const { reader, card, hops } of readers) {
			const follows = readerOf(reader).habits.refreshes;
			expect([reader, hops.map(({ address }) => address)]).toEqual([
				reader,
				follows ? [base + path, `${base}/sound`] : [base + path]
			]);
			expect([reader, card?.title.shown === 'Eider']).toEqual([reader, follows]);
		}
		const told = findings.find(({ code }) => code === 'leads-on');
		expect(told?.says).toMatch(
			/^It leads on to https:\/\/s\.example\/sound by a refresh, which .*Gangway.* do not follow$/
		);
		expect(told?.says).not.toContain('Porthole');
	}
	const { readers } = await seenOf(fetcher, `${base}/refresh-loop`);
	expect(readers.find(({ reader }) => reader === 'porthole')).toMatchObject({ end: 'loop' });
	expect(readers.find(({ reader }) => reader === 'gangway')).toMatchObject({ end: 'whole' });
});

test('a host that is not there shuts nobody out; a robots.txt that fails is told as that', async () => {
	const nowhere = await seenOf(fetcher, 'https://nowhere.invalid/');
	expect(nowhere.findings.map(({ code }) => code)).toEqual(['unreachable']);
	for (const { isShutOut, card } of nowhere.readers) expect([isShutOut, card]).toEqual([false, undefined]);
	let breaks = false;
	const failing = createServer((request, response) => {
		if (request.url === '/robots.txt' && breaks) {
			response.writeHead(200, { 'content-length': '500' }).write('User-agent: *');
			return void setTimeout(() => response.destroy(), 5);
		}
		if (request.url === '/robots.txt') return void response.writeHead(503).end('busy');
		html(SOUND())(request, response);
	});
	await new Promise<void>((done) => failing.listen(0, '127.0.0.1', done));
	const own = new TracingFetcher(new Set(), {
		origin: base,
		at: `http://127.0.0.1:${(failing.address() as AddressInfo).port}`
	});
	const found = await seenOf(own, `${base}/sound`);
	expect(found.findings.find(({ code }) => code === 'robots-failing')).toMatchObject({
		says: expect.stringMatching(
			/^robots.txt answers with 503, and while it does .*Gangway.* read nothing here$/
		) as string
	});
	expect(found.findings.map(({ code }) => code)).not.toContain('blocked-by-robots');
	const by = new Map(found.readers.map((one) => [one.reader, one]));
	expect(by.get('gangway')).toMatchObject({ isShutOut: true, robotsFail: 'answers with 503', card: undefined });
	expect(by.get('galley')).toMatchObject({ isShutOut: false, card: { title: { shown: 'Eider' } } });
	// One that breaks off is no answer with 200.
	breaks = true;
	const half = new TracingFetcher(new Set(), {
		origin: base,
		at: `http://127.0.0.1:${(failing.address() as AddressInfo).port}`
	});
	expect((await seenOf(half, `${base}/sound`)).findings.find(({ code }) => code === 'robots-failing')?.says).toMatch(
		/^robots.txt breaks off on its way, and while it does/
	);
	await half.close();
	await own.close();
	failing.closeAllConnections();
	await new Promise((done) => failing.close(done));
});

describe('each card has the picture that its reader would show, and says why not another', () => {
	const picturesOn = async (path: string) => {
		const { readers } = await seenOf(fetcher, base + path);
		return new Map(
			readers.flatMap(({ reader, card }) =>
				card && readerOf(reader).frame?.judges === 'fetch' ? [[reader, card] as const] : []
			)
		);
	};
	test.each([
		['/no-picture', /answers with 404/],
		['/picture-401', /answers with 401/],
		['/page-as-picture', /is no picture but text\/html/],
		['/picture-empty', /is empty/],
		['/picture-svg', /is SVG/],
		['/picture-mark', /1 × 1/],
		['/picture-data', /address of data:/],
		['/picture-mailto', /address of mailto:/]
	])('%s: none on any', async (path, why) => {
		const cards = await picturesOn(path);
		expect(cards.size).toBeGreaterThan(4);
		for (const [reader, { picture, passedOver }] of cards) {
			expect([reader, picture]).toEqual([reader, undefined]);
			expect([reader, passedOver[0]?.why]).toEqual([reader, expect.stringMatching(why) as string]);
		}
	});
	test('one that is too heavy is on the cards of those that fetch as much', async () => {
		for (const [reader, { picture, passedOver }] of await picturesOn('/picture-3mb')) {
			const most = readerOf(reader).frame!.maxBytes ?? Infinity;
			expect([reader, picture !== undefined]).toEqual([reader, most > 3_100_000]);
			if (most < 3_000_000) expect(passedOver[0]?.why).toContain('3.0 MB');
		}
	});
	test('one that robots.txt shuts is on the cards of those that do not ask it', async () => {
		const cards = await picturesOn('/picture-shut');
		expect(cards.get('ropewalk')).toMatchObject({
			picture: undefined,
			passedOver: [{ why: 'is shut by the robots.txt of its host' }]
		});
		expect(cards.get('galley')?.picture?.address).toBe(`${base}/shut/p.jpg`);
	});
	test('a first choice that is gone gives way to the next', async () => {
		const cards = await picturesOn('/twitter-gone');
		expect(cards.get('headland')).toMatchObject({
			picture: { address: `${base}/p.jpg`, from: 'og:image', width: 1200 },
			passedOver: [{ address: `${base}/none.jpg`, from: 'twitter:image' }]
		});
		expect((await picturesOn('/second-gone')).get('gangway')).toMatchObject({
			picture: { address: `${base}/p.jpg` },
			passedOver: []
		});
	});
	test('a narrow one makes a small card, whatever its tags say', async () => {
		expect((await picturesOn('/lies')).get('gangway')?.picture).toMatchObject({ width: 300, small: true });
	});
});

describe('each fault is found, and nothing else', () => {
	test.each([
		['/closed', ['blocked-by-robots']],
		['/gone', ['error-page']],
		['/shell', ['needs-scripts']],
		['/two-charsets', ['wrong-charset']],
		['/relative', ['relative-address']],
		['/local', ['local-served']],
		['/twice', ['doubled-tag', 'doubled-tag']],
		['/hidden', ['noindex-served']],
		['/no-picture', ['picture-missing']],
		['/heavy', ['served-heavy', 'picture-lies']],
		['/page-as-picture', ['picture-unreadable']],
		['/lies', ['served-small', 'picture-lies']],
		['/refresh-late', []],
		['/nowhere-302', ['leads-nowhere']],
		['/nowhere-300', ['leads-nowhere']],
		['/unasked-304', ['leads-nowhere']],
		['/as-text', ['no-page']],
		['/as-pdf', ['no-page']],
		['/as-download', ['no-page']],
		['/no-charset', ['no-charset']],
		['/wrong-bytes', ['broken-characters']],
		['/left', ['template-left']],
		['/undefined', ['template-left']],
		['/undefined-word', []],
		['/twice-escaped', ['escaped-twice']],
		['/names-home', ['names-home']],
		['/x-robots', ['noindex-served']],
		['/preview-none', ['no-picture-preview']],
		['/x-robots-one', ['noindex-for']],
		['/x-robots-both', ['noindex-served', 'noindex-for']],
		['/x-robots-none', ['no-picture-preview']],
		['/many-pictures', []],
		['/meta-one', ['noindex-for']],
		['/base', ['relative-address']],
		['/soft-404', ['not-found-served']],
		['/soft-404-2', ['not-found-served']],
		['/one-403', ['fails-for']],
		['/six-0', ['fails-for']],
		['/picture-401', ['picture-missing']],
		['/picture-empty', ['picture-unreadable']],
		['/picture-svg', ['picture-form']],
		['/picture-mark', ['picture-mark']],
		['/picture-small', ['served-small']],
		['/picture-3mb', ['served-heavy']],
		['/picture-shut', ['picture-shut']],
		['/picture-data', ['scheme-address']],
		['/picture-mailto', ['scheme-address']],
		['/forms', []],
		['/twitter-gone', ['picture-missing']],
		['/second-gone', ['picture-missing']],
		['/loop', ['broken']],
		['/reset', ['unreachable']],
		['/two-faces', ['differs-by-reader']],
		// Another each time for everyone is another for nobody.
		['/rotates', []]
	])('%s', async (path, wanted) => {
		expect(await codes(path)).toEqual(wanted);
	});
	test.each([
		['/far', 'beyond-reading'],
		['/late', 'late-charset'],
		['/bare', 'missing-tag'],
		['/sign-in', 'sign-in-page'],
		['/below', 'below-head'],
		['/short', 'broken'],
		['/bomb', 'endless-page'],
		['/unpacked', 'broken'],
		['/elsewhere', 'redirected-elsewhere']
	])('%s, with what follows from it', async (path, wanted) => {
		expect(await codes(path)).toContain(wanted);
	});
});

test('what is told of each address, word for word, and what each reader made of it', async () => {
	const told: string[] = [];
	for (const path of Object.keys(ANSWERS).filter((one) => one !== '/rotates')) {
		const { findings, readers, tags, picture } = await seenOf(fetcher, base + path);
		told.push(`# ${path}`, ...findings.map((one) => JSON.stringify(one)));
		for (const { reader, hops, bytes, end, card, took: _, ...more } of readers) {
			const { title, description, picture: shown, host, placeFrom } = card ?? {};
			const taken = [title?.shown, title?.from, description?.shown, shown?.address, shown?.small, host, placeFrom];
			// How much came before it was cut is the network's.
			const read = end === 'whole' ? bytes : end;
			told.push(JSON.stringify([reader, hops.map(({ status }) => status), read, more, taken]));
		}
		told.push(
			JSON.stringify(picture ?? null),
			...tags.map(({ tag, ...one }) => JSON.stringify({ ...one, tag: tag?.name }))
		);
	}
	const text = `${told.join('\n')}\n`.replace(/127\.0\.0\.2:\d+/g, '127.0.0.2:PORT');
	await expect(text).toMatchFileSnapshot('told.txt');
});

test('a reader takes what its habits say: relative addresses, doubled tags, tags below the head, pictures by chance', async () => {
	const cardOf = async (path: string, reader: string) =>
		(await seenOf(fetcher, base + path)).readers.find((one) => one.reader === reader)!;
	expect((await cardOf('/relative', 'gangway')).card?.picture?.address).toBe(`${base}/p.jpg`);
	expect((await cardOf('/relative', 'bottle')).card?.picture).toBeUndefined();
	expect((await cardOf('/twice', 'gangway')).card?.title.shown).toBe('Eider');
	expect((await cardOf('/twice', 'headland')).card?.title.shown).toBe('Another tool');
	expect((await cardOf('/below', 'gangway')).card?.picture).toBeUndefined();
	expect((await cardOf('/below', 'wrack')).card?.picture?.address).toBe(`${base}/p.jpg`);
	expect((await cardOf('/closed', 'ropewalk')).isShutOut).toBe(true);
	expect((await cardOf('/far', 'bottle')).end).toBe('cut');
});

test('private addresses are refused, also by a redirect', async () => {
	const plain = new TracingFetcher();
	const found = await seenOf(plain, 'http://127.0.0.1:1/');
	expect(found.findings.map(({ code, says }) => [code, says])).toEqual([
		['unreachable', expect.stringContaining('leads to this machine')]
	]);
	await plain.close();
});

test('every reader has its habits, each told in a sentence', () => {
	for (const { id } of ALL_READERS) {
		const words = habitsInWords(readerOf(id));
		expect(words.length).toBeGreaterThan(11);
		for (const sentence of words) expect(sentence).toMatch(/^[A-Z].*\.$/);
	}
});

test('SARIF: a rule for each kind, levels by weight, places with lines', () => {
	const one = { code: 'gap', says: 'A gap', mend: 'Mend it.', weight: 5, place: 'a b.html', line: 3 };
	expect(sarifOf([one, { ...one, line: 9 }], '1.0')).toMatchObject({
		version: '2.1.0',
		runs: [
			{
				tool: { driver: { rules: [{ id: 'gap', defaultConfiguration: { level: 'warning' } }] } },
				results: [
					{
						ruleId: 'gap',
						ruleIndex: 0,
						level: 'warning',
						locations: [{ physicalLocation: { artifactLocation: { uri: 'a%20b.html' }, region: { startLine: 3 } } }]
					},
					{ ruleIndex: 0 }
				]
			}
		]
	});
});
