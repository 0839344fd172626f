import { readdirSync } from 'node:fs';
import { createServer, type Server, type Socket } from 'node:net';
import type { AddressInfo } from 'node:net';
import { createHash } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Answer, ReaderCase, Serves } from '../../../conformance/readers/cases/answers';
import { CASES } from '../../../conformance/readers/cases/cases';
import { PATIENT } from '../../core/readers/patient.sample';
import { TracingFetcher } from '../fetching/trace';
import { probe } from './probe';
import { probeInWords, type ToldProbe } from './told';

/** What is seen of an address, as it is told. */
const seenOf = async (...asked: Parameters<typeof probe>) => probeInWords(await probe(...asked));

/** Each case of `conformance/readers`, answered byte for byte from a socket; what comes of it is what the file says. */

const files: Record<string, Buffer> = {};
let serves: Serves = {};
let server: Server;
let fetcher: TracingFetcher;
const open = new Set<Socket>();

beforeAll(async () => {
	const draw = (width: number, height: number, background = '#357') =>
		sharp({ create: { width, height, channels: 3, background } });
	files['p.jpg'] = await draw(1200, 630).jpeg().toBuffer();
	files['p.png'] = await draw(1200, 630).png().toBuffer();
	files['p.webp'] = await draw(1200, 630).webp().toBuffer();
	files['p.avif'] = await draw(1200, 630).avif().toBuffer();
	files['half.jpg'] = files['p.jpg'].subarray(0, Math.floor(files['p.jpg'].length / 2));
	files['small.jpg'] = await draw(300, 157).jpeg().toBuffer();
	files['dot.png'] = await draw(1, 1).png().toBuffer();
	const frames = await Promise.all(['#357', '#753'].map((colour) => draw(600, 315, colour).png().toBuffer()));
	files['moves.gif'] = await sharp(frames, { join: { animated: true } })
		.gif()
		.toBuffer();
	files['moves.webp'] = await sharp(frames, { join: { animated: true } })
		.webp()
		.toBuffer();
	server = createServer((socket) => {
		open.add(socket);
		socket.on('error', () => undefined).on('close', () => open.delete(socket));
		let asked = '';
		socket.on('data', (part) => {
			asked += part.toString('latin1');
			if (!asked.includes('\r\n\r\n')) return;
			const [, path = ''] = asked.split(' ');
			void say(socket, answerFor(path, /user-agent: ([^\r]*)/i.exec(asked)?.[1] ?? ''));
			asked = '';
		});
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	fetcher = new TracingFetcher(new Set(), [
		{ origin: 'https://s.example', at },
		{ origin: 'https://www.s.example', at }
	]);
});
afterAll(async () => {
	await fetcher.close();
	for (const socket of open) socket.destroy();
	server.close();
});

const NONE: Answer = { head: ['HTTP/1.1 404 Not Found', 'Content-Type: text/plain'], body: 'none' };
function answerFor(path: string, agent: string): Answer {
	const found = serves[path];
	if (!found) return NONE;
	if (isAnswer(found)) return found;
	return found[Object.keys(found).find((name) => agent.includes(name)) ?? ''] ?? NONE;
}
const isAnswer = (one: Serves[string]): one is Answer => Array.isArray((one as Answer).head);

async function say(socket: Socket, { head, body = '', endsAfter, isEndless }: Answer) {
	const bytes = bytesOf(body);
	// A length is said unless the answer says one itself, or has no end.
	const says = [...head, 'Connection: close'];
	const isBare = head[0]!.includes(' 304 ') || head[0]!.includes(' 204 ');
	if (!isEndless && !isBare && !head.some((line) => /^(?:content-length|transfer-encoding):/i.test(line)))
		says.push(`Content-Length: ${bytes.length}`);
	socket.write(`${says.join('\r\n')}\r\n\r\n`);
	if (!isEndless) {
		socket.end(bytes.subarray(0, endsAfter ?? bytes.length));
		return;
	}
	while (!socket.destroyed && socket.writable)
		if (!socket.write(bytes)) await new Promise((done) => socket.once('drain', done).once('close', done));
}
function bytesOf(body: NonNullable<Answer['body']>): Buffer {
	if (typeof body === 'string') return Buffer.from(body);
	if (Buffer.isBuffer(body)) return body;
	return Buffer.concat([files[body.file]!, Buffer.alloc(body.pad ?? 0)]);
}

/** A case as it stands in its file: what is served, then what each reader makes of it. */
function written({ name, path = '/eider', serves: served }: ReaderCase, { readers, findings }: ToldProbe) {
	return {
		...{ name, address: `https://s.example${path}` },
		serves: Object.fromEntries(
			Object.entries(served).map(([at, one]) => [
				at,
				isAnswer(one) ? saidOf(one) : Object.fromEntries(Object.entries(one).map(([who, its]) => [who, saidOf(its)]))
			])
		),
		findings: findings.map(({ code, tag, line }) => ({ code, ...(tag && { tag }), ...(line && { line }) })),
		readers: Object.fromEntries(
			readers.map(({ reader, isShutOut, hops, end, encoding, card, byChance, key, keeps }) => [
				reader,
				{
					...(isShutOut ? { isShutOut } : { way: hops.map(({ address, status }) => [status, address]), end, encoding }),
					card: card
						? {
								...{ title: textOf(card.title), description: textOf(card.description), host: card.host },
								pictures: card.pictures.map(({ alt: _, ...one }) => one),
								...(card.passedOver.length > 0 && { passedOver: card.passedOver }),
								...(card.icon && { icon: card.icon })
							}
						: null,
					...(byChance.length > 0 && { byChance }),
					...{ key, keeps }
				}
			])
		)
	};
}
const textOf = ({ shown, cut, from }: { shown: string; cut: string; from: string | undefined }) => ({
	shown,
	cut,
	from
});
/** Long bodies and those that are no text stand as what they come to: they are made in `cases.ts`. */
function saidOf({ body = '', ...answer }: Answer) {
	if (typeof body === 'string' && body.length < 3000) return { ...answer, body };
	if (typeof body !== 'string' && 'file' in body) return { ...answer, ...body };
	const bytes = bytesOf(body);
	return bytes.length < 3000
		? { ...answer, base64: bytes.toString('base64') }
		: { ...answer, sha256: createHash('sha256').update(bytes).digest('hex'), bytes: bytes.length };
}

/** What the file of a case is called. */
const fileOf = (name: string) =>
	name
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-|-$/g, '');

test.each(CASES.map((one) => [one.name, one] as const))('%s', { timeout: 60_000 }, async (name, one) => {
	serves = one.serves;
	// What robots.txt says is asked once in a run: each case is one.
	const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	const own = new TracingFetcher(new Set(), [
		{ origin: 'https://s.example', at },
		{ origin: 'https://www.s.example', at }
	]);
	const seen = await seenOf(own, `https://s.example${one.path ?? '/eider'}`, PATIENT);
	await own.close();
	expect(seen.findings.map(({ code }) => code).sort()).toEqual([...one.tells].sort());
	for (const [id, wanted] of Object.entries(one.cards ?? {})) {
		const { card } = seen.readers.find(({ reader }) => reader === id)!;
		const shows = card && {
			...(wanted?.title !== undefined && { title: card.title.shown }),
			...(wanted?.picture !== undefined && { picture: card.picture?.address ?? null })
		};
		expect([id, shows ?? null]).toEqual([id, wanted]);
	}
	const file = fileURLToPath(new URL(`../../../conformance/readers/${fileOf(name)}.json`, import.meta.url));
	// How far one comes that has no end is the network's.
	const isEndless = Object.values(one.serves).some((served) => isAnswer(served) && served.isEndless);
	if (isEndless) return;
	await expect(`${JSON.stringify(written(one, seen), null, '\t')}\n`).toMatchFileSnapshot(file);
});

test('there are at least three hundred of what one reader makes of one answer, and no two cases of one name', () => {
	expect(CASES.length * 13).toBeGreaterThan(300);
	expect(new Set(CASES.map(({ name }) => fileOf(name))).size).toBe(CASES.length);
	const endless = CASES.filter(({ name }) => name === 'an endless body').length;
	const written = readdirSync(new URL('../../../conformance/readers', import.meta.url)).filter((file) =>
		file.endsWith('.json')
	);
	expect(written.length).toBe(CASES.length - endless);
});
