import { afterEach, expect, test, vi } from 'vitest';
import { addressOf, call, follow, isRefused, NO_ANSWER } from './client';

/** A long work that is followed: what is shown is what was answered, whole, in part, or not at all. */
afterEach(() => vi.restoreAllMocks());

const answer = (body: BodyInit | null, init?: ResponseInit) =>
	vi.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(body, init));
async function following(signal = new AbortController().signal) {
	const told: unknown[][] = [];
	const come = await follow(
		'POST /sites/{site}/drift',
		{ site: 'S', body: {} },
		{ signal, progress: (...how) => told.push(how) },
		{ stopped: 'Stopped: all stays.', broken: 'It broke off.' }
	);
	return { told, come };
}

test('each line says how far it is, and what was done last where that is told; then what it came to', async () => {
	answer('{"done":1}\n{"done":2,"all":9}\n{"done":3,"all":9,"last":"/a: fetched"}\n{"made":7}\n');
	expect(await following()).toEqual({
		told: [
			[1, 0, undefined],
			[2, 9, undefined],
			[3, 9, '/a: fetched']
		],
		come: { made: 7 }
	});
});

test('an answer that ends before its last line is not taken for one', async () => {
	answer('{"done":1}\n{"done":2}\n');
	expect((await following()).come).toEqual({ refused: 'It broke off.' });
	answer('');
	expect((await following()).come).toEqual({ refused: 'It broke off.' });
	answer('{"done":1}\n{"made":');
	expect((await following()).come).toEqual({ refused: 'It broke off.' });
});

test('a refusal is told with what is to be said, before the first line as after it', async () => {
	answer(JSON.stringify({ code: 'release-removes', detail: 'Say how many.', removes: 7 }), { status: 409 });
	expect((await following()).come).toEqual({ refused: 'Say how many.', removes: 7 });
	answer('{"done":1}\n{"code":"stopped","refused":"Stopped."}\n');
	expect((await following()).come).toMatchObject({ refused: 'Stopped.' });
	answer('{"done":1}\n{"failed":"0a1b2c3d"}\n');
	expect((await following()).come).toMatchObject({ refused: expect.stringContaining('0a1b2c3d') as string });
});

const textOf = (blob: Blob) =>
	new Promise((done) => {
		const reader = new FileReader();
		reader.onload = () => done(reader.result);
		reader.readAsText(blob);
	});

test('an address names its site and what is asked, whatever they hold', () => {
	expect(
		addressOf('GET /sites/{site}/grid', { site: 'A/b & c', query: { q: 'ü?', type: '', limit: 0, sort: undefined } })
	).toBe('/api/v1/sites/A%2Fb%20%26%20c/grid?q=%C3%BC%3F&limit=0');
	expect(addressOf('POST /table', {})).toBe('/api/v1/table');
});

test('bytes go as they are, behind the line of a record where there is one; what outlives the page says so', async () => {
	const sent = answer('{}');
	const file = new Blob(['a,b\n']);
	await call('POST /table', { body: { base: 'x' }, bytes: file });
	await call('POST /sites/{site}/pictures', { site: 'S', bytes: file, headers: { 'x-file-name': 'a' } });
	await call('POST /sites/{site}/launch', { site: 'S', body: { id: 'x', on: true }, keepalive: true });
	await call('GET /sites/{site}/worst', { site: 'S' });
	const [table, picture, launch, worst] = sent.mock.calls.map(([, request]) => request!);
	expect(await textOf(table!.body as Blob)).toBe('{"base":"x"}\na,b\n');
	expect(table!.headers).toEqual({ 'content-type': 'application/octet-stream' });
	expect(picture!.body).toBe(file);
	expect(picture!.headers).toEqual({ 'content-type': 'application/octet-stream', 'x-file-name': 'a' });
	expect(launch).toMatchObject({ method: 'POST', keepalive: true, body: '{"id":"x","on":true}' });
	expect(worst).toEqual({ method: 'GET', headers: {} });
});

test('no answer is told as none, and stopping as stopping', async () => {
	vi.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('gone'));
	expect((await following()).come).toEqual(NO_ANSWER);
	const stop = new AbortController();
	stop.abort();
	vi.spyOn(globalThis, 'fetch').mockRejectedValue(new DOMException('stopped', 'AbortError'));
	expect((await following(stop.signal)).come).toEqual({ refused: 'Stopped: all stays.' });
});

test('half an answer to a question is none; one that is no JSON says its status', async () => {
	answer('{"groups": [');
	expect(isRefused(await call('GET /sites/{site}/worst', { site: 'S' }))).toBe(true);
	answer('<html>', { status: 502 });
	expect(await call('GET /sites/{site}/worst', { site: 'S' })).toEqual({
		refused: expect.stringContaining('502') as string
	});
});
