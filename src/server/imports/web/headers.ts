import { directivesFor, parseUrl, settleText, type FoundTag } from '$core';
import { decodeServed, labelled } from '../../fetching/charset';
import { declaredEncoding } from '../../files/encoding';

/** What a server says of a page beside its markup: as tags, and what people should hear of it. */
export interface SaidByServer {
	readonly text: string;
	readonly found: readonly FoundTag[];
	readonly told: readonly string[];
}

/** Reads a page with the headers that it came with. `inMarkup` gives what the page itself says of a tag. */
export function readServed(
	body: Buffer,
	headers: Readonly<Record<string, string>>,
	address: string,
	inMarkup: (text: string) => (tag: string) => string | undefined
): SaidByServer {
	const { text, encoding } = decodeServed(body, headers['content-type']);
	const said = inMarkup(text);
	const found: FoundTag[] = [];
	const told: string[] = [];
	const robots = settleText(directivesFor(headers['x-robots-tag'] ?? ''));
	if (robots !== '') {
		const own = said('robots');
		told.push(`the server says X-Robots-Tag: ${robots}${own === undefined ? '' : `, the page robots: ${own}`}`);
		found.push({ name: 'robots', value: own === undefined ? robots : `${own}, ${robots}` });
	}
	const canonical = canonicalIn(headers.link ?? '');
	if (canonical !== undefined) {
		const [there, own] = [whole(canonical, address), said('canonical')];
		if (own === undefined) {
			found.push({ name: 'canonical', value: there });
			if (there !== address) told.push(`the server says that it stands at ${there} (Link: rel=canonical)`);
		} else if (whole(own, address) !== there)
			told.push(`the server says that it stands at ${there} (Link: rel=canonical), the page at ${own}`);
	}
	const declared = labelled(declaredEncoding(body) ?? '');
	if (declared !== undefined && declared !== encoding)
		told.push(`it is read as ${encoding}, as the server says; the page says ${declared}`);
	if (text.includes('\uFFFD')) told.push(`it holds bytes that are no ${encoding}`);
	return { text, found, told };
}

const whole = (address: string, from: string) => parseUrl(address, from)?.href ?? address;

/** So much of a header is read (UTF-16 code units). */
const MOST_HEADER = 4000;

/** Where a `Link` header says that a page stands (RFC 8288, RFC 6596). */
function canonicalIn(header: string): string | undefined {
	for (const [, address, about = ''] of header.slice(0, MOST_HEADER).matchAll(/<([^<>]*)>([^<]*)/g))
		if (/;\s*rel\s*=\s*(?:"[^"]*\bcanonical\b[^"]*"|canonical\b)/i.test(about)) return address;
	return undefined;
}
