import { PassThrough } from 'node:stream';
import { expect, test } from 'vitest';
import { sayLengthOnce, withOneLength } from './oneLength';

test.each([
	['twice alike', 'A: b\r\nContent-Length: 5\r\ncontent-length: 5\r\nC: d', 'A: b\r\ncontent-length: 5\r\nC: d'],
	['twice, by line feeds alone', 'Content-Length: 5\nContent-Length: 5\n\n', 'content-length: 5\n\n'],
	['in one field', 'A: b\r\nContent-Length: 5, 5\r\nC: d', 'A: b\r\ncontent-length: 5\r\nC: d'],
	['three times', 'Content-Length: 5\r\nContent-Length:5\r\nContent-Length: 5\r\n', 'content-length: 5\r\n'],
	['once', 'Content-Length: 5\r\nA: b', 'Content-Length: 5\r\nA: b'],
	['not alike', 'Content-Length: 5\r\nContent-Length: 6', 'Content-Length: 5\r\nContent-Length: 6'],
	['no number', 'Content-Length: x\r\nContent-Length: x', 'Content-Length: x\r\nContent-Length: x'],
	['not at all', 'A: content-length: 5', 'A: content-length: 5']
])('a length said %s', (_, head, wanted) => {
	expect(sayLengthOnce(head)).toBe(wanted);
});

async function through(...parts: readonly Buffer[]): Promise<string> {
	const socket = new PassThrough();
	const whole = withOneLength(socket);
	const got: Buffer[] = [];
	whole.on('data', (chunk: Buffer) => got.push(chunk));
	const ended = new Promise((done) => whole.once('end', done));
	for (const part of parts) socket.write(part);
	socket.end();
	await ended;
	return Buffer.concat(got).toString('latin1');
}
const HEAD = 'HTTP/1.1 200 OK\r\nContent-Length: 9\r\nContent-Length: 9\r\n\r\n';
const BODY = 'é\r\n\r\nContent-Length: 9\r\nContent-Length: 9';

test('only the head is mended, however it comes in pieces', async () => {
	const whole = Buffer.from(HEAD + BODY, 'latin1');
	const wanted = `HTTP/1.1 200 OK\r\ncontent-length: 9\r\n\r\n${BODY}`;
	expect(await through(whole)).toBe(wanted);
	expect(await through(...[...whole].map((byte) => Buffer.from([byte])))).toBe(wanted);
});

test('what has no end of a head, or too long a one, comes as it is', async () => {
	expect(await through(Buffer.from('SSH-2.0-harbour\r\n'))).toBe('SSH-2.0-harbour\r\n');
	const long = `A: ${'b'.repeat(70_000)}`;
	expect(await through(Buffer.from(long), Buffer.from(HEAD))).toBe(long + HEAD);
});

test('a connection that breaks is told to whoever reads', async () => {
	const socket = new PassThrough();
	const whole = withOneLength(socket);
	const broken = new Promise((done) => whole.once('error', done));
	socket.destroy(new Error('It broke.'));
	expect(await broken).toMatchObject({ message: 'It broke.' });
});
