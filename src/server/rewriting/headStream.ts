import { Transform, type TransformCallback } from 'node:stream';
import type { WrittenHead } from './writtenHead';

/** No head is longer than this (bytes): a page in which none has ended by then goes out as it is. */
const LONGEST_HEAD = 512 * 1024;
/** Where a head may be over. */
const END = /<\/head\s*>|<body[\s>]/i;
/** So much (bytes) behind the end of a head tells that it is over. */
const BEHIND_END = 4096;
/** So much of what was looked through is looked at again: an end may lie across two parts. */
const LONGEST_END = 32;

/**
 * Writes a head into a page that goes past: what stands behind the page's own head goes through byte for byte, and nothing of
 * it is held. A page that is not as it should be goes out as it came.
 */
export class HeadStream extends Transform {
	private readonly waiting: Buffer[] = [];
	private size = 0;
	/** How far its end was looked for, and where one is. */
	private seen = 0;
	private headEnd = 0;
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
		else if (this.size >= this.tried * 1.5 && this.mayBeOver()) this.tryWith(this.whole(), false);
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

	private mayBeOver(): boolean {
		if (this.tried > 0) return true;
		const whole = this.whole();
		this.waiting.splice(0, this.waiting.length, whole);
		const from = Math.max(0, this.seen - LONGEST_END);
		const at = END.exec(whole.toString('latin1', from))?.index;
		this.seen = whole.length;
		if (at !== undefined) this.headEnd = from + at;
		return at !== undefined;
	}

	private tryWith(whole: Buffer, isWhole: boolean) {
		// What tells what the head is stands a little behind its end; in a page that is not as usual, further on.
		const near = whole.subarray(0, this.headEnd + BEHIND_END);
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
