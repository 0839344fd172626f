import { createServer, type Server, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ALL_READERS, type Habits, type ReaderProfile } from '$core';
import { OTHER_HABITS } from '../../core/readers/habits.sample';
import { PATIENT } from '../../core/readers/patient.sample';
import { ReadersService } from '../../../demo/readers';
import { TracingFetcher } from '../fetching/trace';
import { probe } from './probe';
import { probeInWords } from './told';

/** What is seen of an address, as it is told. */
const seenOf = async (...asked: Parameters<typeof probe>) => probeInWords(await probe(...asked));

/** Every habit of every reader does something: turned over, some probe of these addresses comes out otherwise. */

const BASE = 'https://s.example';
const words = '<p>Enough words that a page has of its own. '.repeat(10);
const page = (head: string, body = words) =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8">${head}</head><body>${body}</body></html>`;
const CARD =
	'<title>A title</title><meta name="description" content="Words."><link rel="canonical" href="https://s.example/own"><meta property="og:url" content="https://s.example/own"><meta property="og:title" content="A title"><meta property="og:image" content="https://s.example/p.png"><meta name="twitter:card" content="summary_large_image">';
const titled = (title: string) => CARD.replaceAll('A title', title);
type Answer = (request: IncomingMessage, response: ServerResponse) => void;
const html =
	(text: string, headers: Record<string, string> = {}): Answer =>
	(_, response) =>
		void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', ...headers }).end(text);
const leads =
	(location: string, status = 302): Answer =>
	(_, response) =>
		void response.writeHead(status, { location }).end();
/** Random letters: what is packed of them is hardly shorter. */
const letters = (count: number) => Array.from({ length: count }, () => Math.random().toString(36)[2] ?? 'x').join('');
const PICTURES = ['og:image', 'twitter:image', 'ld:image', 'itemprop:image', 'oembed'];

const ANSWERS: Record<string, Answer> = {
	'/robots.txt': (_, response) =>
		void response.end(
			[
				'User-agent: *',
				'Disallow: /shut',
				'',
				...ALL_READERS.map(({ habits }) => `User-agent: ${habits.name}\nDisallow: /named\nDisallow: /shut\n`)
			].join('\n')
		),
	'/shut': html(page(CARD)),
	'/named': html(page(CARD)),
	'/meta': html(
		page(CARD + ALL_READERS.map(({ habits }) => `<meta name="${habits.name}" content="noindex">`).join(''))
	),
	'/asks': (request, response) => {
		const { 'user-agent': agent, accept, 'accept-language': language = 'none' } = request.headers;
		html(page(titled(`${agent} ${accept} ${language}`.replace(/\W+/g, ' ').slice(-50))))(request, response);
	},
	'/r1': leads('/r2'),
	'/r2': leads('/own'),
	'/elsewhere': (request, response) => leads(`https://www.s.example/own`)(request, response),
	'/refresh': html(page(`<meta http-equiv="refresh" content="0; url=/other">${CARD}`)),
	'/other': html(page(titled('Another title'))),
	'/cookie': (request, response) =>
		/seen=1/.test(request.headers.cookie ?? '')
			? html(page(titled('With a cookie')))(request, response)
			: void response.writeHead(302, { location: '/cookie', 'set-cookie': 'seen=1' }).end(),
	'/own': html(page(CARD)),
	'/far': html(page(`<!--${' '.repeat(150_000)}-->${titled('Far')}`)),
	'/slow': (request, response) => void setTimeout(() => html(page(titled('Slow')))(request, response), 900),
	'/short': (_, response) => {
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'content-length': '90000' });
		response.write(page(titled('Half')));
		setTimeout(() => response.socket?.destroy(), 30);
	},
	'/below': html(page('', `${CARD}${words}`)),
	'/relative': html(page(CARD.replaceAll('https://s.example/', '/'))),
	'/twice': html(page(CARD + titled('Second'))),
	'/gone': (_, response) => void response.writeHead(404, { 'content-type': 'text/html' }).end('no'),
	'/wide': html(page(pictured('/p.png', '<meta property="og:image:width" content="50">'))),
	'/missing-first': html(page(`${pictured('/none.png')}<meta property="og:image" content="https://s.example/p.png">`)),
	'/none-but-page': html(
		page(CARD.replace(/<meta property="og:image"[^>]*>/, ''), `<img src="https://s.example/p.png">${words}`)
	),
	'/moves': html(page(pictured('/moves.gif')))
};
function pictured(src: string, more = '') {
	const image = `https://s.example${src}`;
	const tagged = `<title>A title</title><meta property="og:title" content="A title"><meta property="og:image" content="${image}">${more}<meta name="twitter:image" content="${image}"><meta name="twitter:card" content="summary_large_image">`;
	const itemprop = `<meta itemprop="image" content="${image}">`;
	return `${tagged}${itemprop}<script type="application/ld+json">${JSON.stringify({ name: 'A title', image })}</script><link rel="alternate" type="application/json+oembed" href="/oembed?${encodeURIComponent(image)}">`;
}

let server: Server;
let fetcher: TracingFetcher;
const drawn: Record<string, Buffer> = {};
beforeAll(async () => {
	const draw = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#357' } });
	drawn['/p.png'] = await draw(1200, 630).png().toBuffer();
	const frames = await Promise.all([draw(1200, 630).png().toBuffer(), draw(1200, 630).negate().png().toBuffer()]);
	drawn['/moves.gif'] = await sharp(frames, { join: { animated: true } })
		.gif()
		.toBuffer();
	server = createServer((request, response) => {
		const [path = '', query = ''] = (request.url ?? '').split('?');
		const picture = drawn[path];
		if (picture) return void response.writeHead(200, { 'content-type': 'image/png' }).end(picture);
		if (path === '/oembed')
			return void response
				.writeHead(200, { 'content-type': 'application/json' })
				.end(JSON.stringify({ title: 'A title', thumbnail_url: decodeURIComponent(query) }));
		// Its head lies beyond what a reader of its limit gets packed, or does not.
		const packed = /^\/packed-(\d+)$/.exec(path);
		if (packed) {
			const body = page(`<!--${letters(Number(packed[1]))}-->${titled('Packed')}`);
			response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'content-encoding': 'gzip' });
			return void response.end(gzipSync(body));
		}
		const answer = ANSWERS[path];
		if (answer) answer(request, response);
		else response.writeHead(404).end();
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	fetcher = new TracingFetcher(new Set(), [
		{ origin: BASE, at },
		{ origin: 'https://www.s.example', at }
	]);
});
afterAll(async () => {
	await fetcher.close();
	server.closeAllConnections();
	server.close();
});

/** What a reader makes of an address, without what is only time. */
async function seenBy(reader: ReaderProfile, path: string): Promise<string> {
	const { readers, findings } = await seenOf(fetcher, BASE + path, [reader]);
	const [{ hops, took: _, card, ...one } = never()] = readers;
	const { reader: __, ...made } = card ?? { reader };
	const way = hops.map(({ address, status }) => [address, status]);
	return JSON.stringify([way, one, made, findings]);
}
const never = (): never => {
	throw new Error('No reader was asked.');
};

const ADDRESSES: { readonly [H in keyof Required<Habits>]: readonly string[] } = {
	agent: ['/asks'],
	name: ['/meta', '/named'],
	accepts: ['/asks'],
	languages: ['/asks'],
	redirects: ['/r1'],
	follows: ['/r1'],
	otherHosts: ['/elsewhere'],
	refreshes: ['/refresh'],
	cookies: ['/cookie'],
	bytes: ['/far'],
	counts: [
		'/packed-200000',
		'/packed-320000',
		'/packed-550000',
		'/packed-1100000',
		'/packed-2100000',
		'/packed-3100000'
	],
	patience: ['/slow'],
	unfinished: ['/short'],
	readsBody: ['/below'],
	relative: ['/relative'],
	doubled: ['/twice'],
	obeysRobots: ['/shut'],
	keeps: ['/own', '/gone']
};

describe.each(PATIENT.map((reader) => [reader.id, reader] as const))('%s', (_, reader) => {
	test.each(Object.keys(ADDRESSES) as (keyof Habits)[])('%s', async (habit) => {
		let other = OTHER_HABITS[habit](reader.habits[habit] as never);
		// A reader of as much as nothing is beyond differs by what it can still read.
		if (habit === 'counts' && reader.habits.bytes > 3_500_000) {
			// It reads as much as anybody fetches: whether that is counted packed changes nothing it can state.
			expect(reader.habits).toMatchObject({ counts: 'unpacked', bytes: 5_000_000 });
			return;
		}
		if (habit === 'follows') other = [] as never;
		const flipped = { ...reader, habits: { ...reader.habits, [habit]: other } };
		let changes = false;
		for (const path of ADDRESSES[habit])
			changes ||= (await seenBy(reader, path)) !== (await seenBy(flipped as ReaderProfile, path));
		expect(changes).toBe(true);
	});
	const { frame } = reader;
	if (frame)
		test.each([
			['judges', frame.judges === 'fetch' ? 'tags' : 'fetch', '/wide'],
			['failing', frame.failing === 'next' ? 'blank' : 'next', '/missing-first'],
			['otherwise', frame.otherwise === 'none' ? 'first' : 'none', '/none-but-page'],
			['animated', frame.animated === 'none' ? 'still' : 'none', '/moves'],
			['takes', ['gif'], '/own'],
			['minWidth', 5000, '/own'],
			['maxBytes', 100, '/own']
		] as const)('%s', async (habit, other, path) => {
			// One that believes tags does not look at what it fetched.
			const judging = habit === 'judges' ? frame : { ...frame, judges: 'fetch' as const };
			const before = { ...reader, frame: judging };
			const flipped = { ...reader, frame: { ...judging, [habit]: other } };
			expect(await seenBy(before, path)).not.toBe(await seenBy(flipped, path));
		});
	const { keeps } = reader.habits;
	if (keeps)
		test.each([
			['under', keeps.under === 'address' ? 'og:url' : 'address', '/twice'],
			['hours', 1, '/own'],
			['failed', 3, '/gone']
		] as const)('keeps: %s', async (part, other, path) => {
			const flipped = { ...reader, habits: { ...reader.habits, keeps: { ...keeps, [part]: other } } };
			expect(await seenBy(reader, path)).not.toBe(await seenBy(flipped, path));
		});
	if (keeps)
		test('keeps: again', async () => {
			const asked = async (again: typeof keeps.again) => {
				const flipped = { ...reader, habits: { ...reader.habits, keeps: { ...keeps, again } } };
				const service = new ReadersService(
					{ origin: BASE, at: `http://127.0.0.1:${(server.address() as AddressInfo).port}` },
					undefined,
					[flipped]
				);
				await service.card(reader.id, `${BASE}/own`);
				return (await service.again(reader.id, `${BASE}/own`)).is;
			};
			expect([
				await asked('ask'),
				await asked('ask-twice'),
				await asked('new-address'),
				await asked('wait'),
				await asked('never')
			]).toEqual(['fetched', 'ask-again', 'new-address', 'wait', 'never']);
		});
});

test('what a reader asks a page for is what it takes: each source in its order', async () => {
	expect(PICTURES.length).toBeGreaterThan(3);
	for (const reader of PATIENT)
		for (const part of ['title', 'description', 'picture'] as const) {
			if (reader[part].length === 0 || (part === 'description' && reader.shows.description.limit === 0)) continue;
			const without = { ...reader, [part]: [] };
			expect([reader.id, part, (await seenBy(reader, '/own')) !== (await seenBy(without, '/own'))]).toEqual([
				...[reader.id, part, true]
			]);
		}
});
