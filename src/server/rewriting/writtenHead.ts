import { headOfJson, injectHead, injectTop, isXhtml, managedBy, renderLines, type HeadJson } from '$core';
import { editBytes } from '../files/encoding';

/** So many beginnings of one page are kept, each of so many bytes at the most. */
const MOST_KEPT = 3;
const LONGEST_KEPT = 32 * 1024;

/** A released head, ready to be written into pages that go past. */
export class WrittenHead {
	private readonly isManaged: (name: string) => boolean;
	private readonly lines = new Map<boolean, readonly string[]>();
	/** Beginnings that it was written into last: most pages come again as they were. */
	private readonly written: { readonly start: Buffer; readonly how: string; readonly out: Buffer }[] = [];

	constructor(
		private readonly json: HeadJson,
		/** What tells it from any other. */
		readonly tag: string,
		/** From when on it stands (milliseconds since 1970). */
		readonly since: number
	) {
		this.isManaged = managedBy(headOfJson(json), json.leftOut ?? []);
	}

	private linesFor(xhtml: boolean): readonly string[] {
		const known = this.lines.get(xhtml) ?? renderLines(headOfJson(this.json), { xhtml });
		this.lines.set(xhtml, known);
		return known;
	}

	/**
	 * The beginning of a page with the head in it: undefined where more of it has to come, 'none' where its encoding allows no
	 * such edit. `encoding` is what its server says, which goes before what it says itself.
	 */
	into(
		start: Buffer,
		encoding: string | undefined,
		{ name = '', isWhole }: { readonly name?: string; readonly isWhole: boolean }
	): Buffer | 'none' | undefined {
		const how = `${encoding ?? ''} ${isXhtml('', name)} ${isWhole}`;
		const known = this.written.find((one) => one.how === how && one.start.equals(start));
		if (known) return known.out;
		let needsMore = false;
		const edited = editBytes(
			start,
			(source, write) => {
				const xhtml = isXhtml(source, name);
				const lines = this.linesFor(xhtml).map(write);
				if (isWhole) return injectHead(source, lines, this.isManaged, xhtml);
				const written = injectTop(source, lines, this.isManaged, xhtml);
				needsMore = written === undefined;
				return written ?? source;
			},
			encoding
		);
		if (needsMore) return undefined;
		if (edited && start.length <= LONGEST_KEPT) {
			if (this.written.length >= MOST_KEPT) this.written.shift();
			this.written.push({ start: Buffer.from(start), how, out: edited });
		}
		return edited ?? 'none';
	}
}
