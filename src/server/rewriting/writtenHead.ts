import { headOfJson, injectHead, injectTop, isXhtml, managedBy, renderLines, type HeadJson } from '$core';
import { editBytes } from '../files/encoding';

/** A released head, ready to be written into pages that go past. */
export class WrittenHead {
	private readonly isManaged: (name: string) => boolean;
	private readonly lines = new Map<boolean, readonly string[]>();

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
		return edited ?? 'none';
	}
}
