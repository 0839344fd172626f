import { charsetIn } from '$core';
import { declaredEncoding, decodeBytes, detectEncoding } from '../files/encoding';

/** Where the encoding of a served page was taken from. */
export type CharsetSource = 'byte-order-mark' | 'header' | 'markup' | 'bytes';

/**
 * A served page as text: by its byte order mark, else by what its server says, else by what its first 1024 bytes say,
 * else by its bytes (HTML standard, 13.2.3).
 */
export function decodeServed(
	body: Buffer,
	contentType: string | undefined
): { readonly text: string; readonly encoding: string; readonly from: CharsetSource } {
	const hasMark =
		(body[0] === 0xef && body[1] === 0xbb && body[2] === 0xbf) ||
		(body[0] === 0xff && body[1] === 0xfe) ||
		(body[0] === 0xfe && body[1] === 0xff);
	const header = hasMark ? undefined : encodingSaid(contentType);
	const encoding = header ?? detectEncoding(body);
	return {
		text: decodeBytes(body, encoding),
		encoding,
		from: hasMark ? 'byte-order-mark' : header ? 'header' : declaredEncoding(body) === undefined ? 'bytes' : 'markup'
	};
}

/** The encoding that a `Content-Type` names; undefined for none that there is. */
export function encodingSaid(contentType: string | undefined): string | undefined {
	const said = charsetIn(contentType ?? '');
	return said === undefined ? undefined : labelled(said);
}

/** The encoding that a label means, undefined for a label that is none. */
export function labelled(label: string): string | undefined {
	try {
		return new TextDecoder(label).encoding;
	} catch {
		return undefined;
	}
}
