import { parseUrl } from '$core';

/**
 * Where a `Location` leads, seen from an address (RFC 9110, section 10.2.2); undefined for none. A field comes as one unit a byte: an
 * address in letters beyond ASCII was sent as UTF-8, and is read so, as browsers do.
 */
export function leadsTo(field: string | undefined, from: string): URL | undefined {
	return field ? parseUrl(asWritten(field), from) : undefined;
}

function asWritten(field: string): string {
	if (![...field].some((unit) => unit > '\u007f')) return field;
	try {
		return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.from(field, 'latin1'));
	} catch {
		return field;
	}
}
