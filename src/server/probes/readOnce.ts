import { readServedHead, type ServedHead, type ServedTag } from '$core';
import { decodeServed } from '../fetching/charset';
import { bytesOf } from '../files/encoding';

/** A page that was served, as text and by its head. */
export interface PageRead {
	/** Its bytes, kept once however many readers got them. */
	readonly body: Buffer;
	readonly text: string;
	readonly encoding: ReturnType<typeof decodeServed>;
	readonly head: ServedHead;
	/** Bytes of the page, unpacked, up to the end of a tag. */
	readonly bytesTo: (tag: ServedTag) => number;
}

export type ReadOnce = (body: Buffer, contentType: string | undefined) => PageRead;

/** Reads pages as they are served; the same bytes for several readers once. */
export function readOnce(): ReadOnce {
	// Few are different: they are told apart at their first different byte.
	const pages: { readonly contentType: string | undefined; readonly read: PageRead }[] = [];
	return (body, contentType) => {
		const known = pages.find((one) => one.contentType === contentType && one.read.body.equals(body));
		if (known) return known.read;
		const encoding = decodeServed(body, contentType);
		const head = readServedHead(encoding.text);
		const read = { body, text: encoding.text, encoding, head, bytesTo: byteCounter(body, encoding, head.tags) };
		pages.push({ contentType, read });
		return read;
	};
}

/** Counts bytes up to the ends of tags: as many as characters where each is one byte. What lies between two ends is counted once. */
function byteCounter(
	body: Buffer,
	{ text, encoding }: ReturnType<typeof decodeServed>,
	tags: readonly ServedTag[]
): PageRead['bytesTo'] {
	if (body.length === text.length) return ({ end }) => end;
	const counts = new Map<number, number>();
	let [last, bytes] = [0, 0];
	// Markup may put tags in another order than they stand in.
	for (const end of tags.map((tag) => tag.end).sort((one, other) => one - other)) {
		bytes += bytesOf(text.slice(last, end), encoding);
		last = end;
		counts.set(end, bytes);
	}
	return ({ end }) => counts.get(end) ?? end;
}
