import type { ServerResponse } from 'node:http';
import { expect, test } from 'vitest';
import type { ContentType, Fields } from '$core';
import type { Known, LiveRecords, Wanted } from '../sources/liveRecords';
import { SourceLane } from './sourceLane';

/** What becomes of a record: a head, or why there is none. */
const types = new Map<string, ContentType>([
	['note', { name: 'note', fields: [], rules: [] }],
	[
		'boat',
		{
			...{ name: 'boat', fields: [], rules: [] },
			source: { path: '/boats/{id}', address: 'https://data.example/{id}' }
		}
	]
]);
let known: Known = { is: 'gone' };
const asked: Wanted[] = [];
let made = 0;
const records = { get: (wanted: Wanted) => (asked.push(wanted), Promise.resolve(known)) } as unknown as LiveRecords;
const ready = (all: ReadonlyMap<string, ContentType> = types) => ({
	...{ release: 3, types: all, base: 'https://s.example/' },
	headOf: ({ path, fields }: { path: string; fields?: Fields }) => {
		made++;
		return path.includes('?')
			? { path, refused: 'no path' }
			: { path, html: `<title>${String(fields!.title)}</title>` };
	}
});
const lane = (of: ReturnType<typeof ready> | undefined = ready()) => new SourceLane(() => of as never, records);

async function answered(
	one: SourceLane,
	path: string | null,
	more: { known?: string; isEmptyElse?: boolean; address?: string } = {}
) {
	const place = one.placeOf('S', path, more.address ?? null, 'html');
	if (!place) return undefined;
	const said: { status?: number; headers: Record<string, unknown>; body?: string | undefined } = { headers: {} };
	let done: () => void = () => undefined;
	const ended = new Promise<void>((resolve) => (done = resolve));
	const response = {
		headersSent: false,
		setHeader: (name: string, value: string) => void (said.headers[name] = value),
		writeHead(status: number, headers: string[] | Record<string, unknown>) {
			said.status = status;
			const pairs = Array.isArray(headers)
				? headers.flatMap((name, at) => (at % 2 === 0 ? [[name, headers[at + 1]]] : []))
				: Object.entries(headers);
			Object.assign(said.headers, Object.fromEntries(pairs as [string, unknown][]));
			return response;
		},
		end(body?: Buffer) {
			said.body = body?.toString();
			done();
		}
	};
	const asking = { coding: '' as const, isJson: false, known: more.known, came: {} };
	const site = { id: 1, number: 3, isPrivate: 0 as const };
	one.answer(
		place,
		{ site, format: 'html', asked: asking, isEmptyElse: more.isEmptyElse ?? false },
		response as unknown as ServerResponse
	);
	await ended;
	return said;
}

test('of a page that a source has: by its path, by its address, and by nothing else', async () => {
	known = { is: 'there', fields: { title: 'Tern' }, isLate: false };
	const one = lane();
	const first = (await answered(one, '/boats/7'))!;
	expect([first.status, first.body, first.headers['kephalon-record']]).toEqual([200, '<title>Tern</title>', undefined]);
	expect(asked.at(-1)).toMatchObject({ source: '[1,"boat"]', address: 'https://data.example/7' });
	const byAddress = (await answered(one, null, { address: 'https://s.example/boats/7?x#y' }))!;
	expect(byAddress.headers.etag).toBe(first.headers.etag);
	expect((await answered(one, '/boats/7', { known: String(first.headers.etag) }))!.status).toBe(304);
	for (const path of ['/boats', '/notes/7', '/boats/7/8']) expect(await answered(one, path)).toBeUndefined();
	expect(await answered(one, null, { address: 'https://other.example/boats/7' })).toBeUndefined();
	expect(await answered(new SourceLane(() => undefined, records), '/boats/7')).toBeUndefined();
	expect(await answered(lane(ready(new Map([['note', types.get('note')!]]))), '/boats/7')).toBeUndefined();
});

test('as long as the record is the same it is made once, and another says so when it is late', async () => {
	const one = lane();
	known = { is: 'there', fields: { title: 'Tern' }, isLate: false };
	made = 0;
	await answered(one, '/boats/7');
	await answered(one, '/boats/7');
	expect(made).toBe(1);
	known = { ...known, isLate: true };
	expect((await answered(one, '/boats/7'))!.headers['kephalon-record']).toBe('late');
	known = { is: 'there', fields: { title: 'Tern' }, isLate: false };
	await answered(one, '/boats/7');
	expect(made).toBe(3);
});

test('one that is gone is not there, one that is away is so for now; empty where that is asked for', async () => {
	const one = lane();
	known = { is: 'gone' };
	expect((await answered(one, '/boats/7'))!.status).toBe(404);
	expect(await answered(one, '/boats/7', { isEmptyElse: true })).toMatchObject({
		status: 200,
		headers: { 'kephalon-empty': 'page-not-released' }
	});
	known = { is: 'away', why: 'Nobody listens there.' };
	expect(await answered(one, '/boats/7')).toMatchObject({ status: 503, headers: { 'retry-after': '5' } });
	expect(await answered(one, '/boats/7', { isEmptyElse: true })).toMatchObject({
		status: 200,
		headers: { 'kephalon-empty': 'source-away' }
	});
	known = { is: 'there', fields: { title: 'Tern' }, isLate: false };
	expect((await answered(one, '/boats/a?b'))!.status).toBe(404);
});
