import { Transform, type TransformCallback } from 'node:stream';
import type { WrittenHead } from './writtenHead';

/** No head is longer than this (bytes): a page in which none has ended by then goes out as it is. */
const LONGEST_HEAD = 512 * 1024;
/** Where a head may be over. */
const END = /<\/head\s*>|<body[\s>]/i;
/** So much (bytes) behind the end of a head tells that it is over. */
const BEHIND_END = 4096;
/** No end is longer than this (bytes), but for spaces that nobody writes. */
const LONGEST_END = 32;

/**
 * Writes a head into a page that goes past: what stands behind the page's own head goes through byte for byte, and nothing of
 * it is held. A page that is not as it should be goes out as it came.
 */
export class HeadStream extends Transform {
	private readonly waiting: Buffer[] = [];
	private size = 0;
	/** Where its end is, once one was seen, and the last that was looked through for it. */
	private headEnd = -1;
	private carried = '';
	/** It was tried at this size: half as much again has to come before it is tried anew. */
	private tried = 0;
	private isDone = false;

	constructor(
		private readonly head: WrittenHead,
		private readonly encoding: string | undefined,
		private readonly name: string
	) {
		super();
	}

	override _transform(part: Buffer, _encoding: BufferEncoding, done: TransformCallback) {
		if (this.isDone) return done(null, part);
		this.waiting.push(part);
		this.size += part.length;
		if (this.size > LONGEST_HEAD) this.letGo(this.whole());
		else if (this.mayBeOver(part) && this.size >= this.tried * 1.5) this.tryWith(this.whole(), false);
		done();
	}

	override _flush(done: TransformCallback) {
		if (!this.isDone) {
			const whole = this.whole();
			// All of it is there: what the head is cannot become clearer.
			this.tryWith(whole, true);
			if (!this.isDone) this.letGo(whole);
		}
		done();
	}

	private whole(): Buffer {
		const [first] = this.waiting;
		return this.waiting.length === 1 ? first! : Buffer.concat(this.waiting);
	}

	/** Looks through what came, and a little of what came before: an end may lie across two parts. */
	private mayBeOver(part: Buffer): boolean {
		if (this.headEnd >= 0) return true;
		const before = this.size - part.length - this.carried.length;
		const text = this.carried + part.toString('latin1');
		const at = END.exec(text)?.index;
		this.carried = text.slice(-LONGEST_END);
		if (at !== undefined) this.headEnd = before + at;
		return at !== undefined;
	}

	private tryWith(whole: Buffer, isWhole: boolean) {
		// What tells what the head is stands a little behind its end; in a page that is not as usual, further on.
		const near = this.headEnd < 0 ? whole : whole.subarray(0, this.headEnd + BEHIND_END);
		for (const start of near.length < whole.length ? [near, whole] : [whole]) {
			const written = this.head.into(start, this.encoding, {
				name: this.name,
				isWhole: isWhole && start.length === whole.length
			});
			if (written === undefined) continue;
			return written === 'none' ? this.letGo(whole) : this.letGo(written, whole.subarray(start.length));
		}
		this.tried = whole.length;
	}

	private letGo(...parts: readonly Buffer[]) {
		this.isDone = true;
		this.waiting.length = 0;
		for (const part of parts) if (part.length > 0) this.push(part);
	}
}
