import { Duplex, Transform, type TransformCallback } from 'node:stream';

/** So much of an answer is held back until its head is whole (bytes); a longer head is passed on as it is. */
const MOST_HELD = 64_000;
const END = /\r?\n\r?\n/;

/** A head whose lengths agree says its length once, as a recipient may take it (RFC 9110, 8.6); else it stays as it is. */
export function sayLengthOnce(head: string): string {
	const lines = head.split('\n');
	const isLength = (line: string) => /^content-length:/i.test(line);
	const said = lines.filter(isLength).flatMap((line) => line.slice(line.indexOf(':') + 1).split(','));
	const [length = ''] = said.map((one) => one.trim());
	if (said.length < 2 || !/^\d+$/.test(length) || said.some((one) => one.trim() !== length)) return head;
	const first = lines.findIndex(isLength);
	return lines
		.flatMap((line, at) => {
			if (!isLength(line)) return line;
			return at === first ? `content-length: ${length}${line.endsWith('\r') ? '\r' : ''}` : [];
		})
		.join('\n');
}

/** What comes over a connection, with the head of the first answer mended. */
class HeadFirst extends Transform {
	private held: Buffer | undefined = Buffer.alloc(0);

	override _transform(chunk: Buffer, _encoding: BufferEncoding, done: TransformCallback) {
		if (!this.held) return void done(null, chunk);
		this.held = Buffer.concat([this.held, chunk]);
		const text = this.held.toString('latin1');
		const end = END.exec(text);
		if (!end && this.held.length < MOST_HELD) return void done();
		this.letGo(text, end ? end.index + end[0].length : 0);
		done();
	}
	override _flush(done: TransformCallback) {
		if (this.held) this.letGo(this.held.toString('latin1'), 0);
		done();
	}
	private letGo(text: string, end: number) {
		this.held = undefined;
		this.push(Buffer.from(sayLengthOnce(text.slice(0, end)) + text.slice(end), 'latin1'));
	}
}

/** A connection on which the answer's head says its length once. */
export function withOneLength(socket: Duplex): Duplex {
	const readable = new HeadFirst();
	socket.on('error', (error) => readable.destroy(error));
	socket.pipe(readable);
	const whole = Duplex.from({ readable, writable: socket });
	whole.once('close', () => socket.destroy());
	return whole;
}
