import { isAscii, isUtf8 } from 'node:buffer';
import iconv from 'iconv-lite';

/** A file's text with what is needed to write it back byte for byte. */
export interface DecodedFile {
	/** The text as a reader sees it. */
	readonly text: string;
	/** The encoding's name in the WHATWG Encoding Standard, such as `utf-8` or `windows-1252`. */
	readonly encoding: string;
}

const LABEL = /<meta[^>]+charset\s*=\s*(?:["']\s*)?([\w:-]+)|^\s*<\?xml[^>]+encoding\s*=\s*["']([\w:-]+)["']/i;
/** What stands in a comment declares nothing (HTML standard, 13.2.3.2). */
const COMMENT = /<!--[^]*?(?:-->|$)/g;
/** Encodings in which an ASCII byte may be part of another character: offsets in bytes mean nothing there. */
const STATEFUL = new Set(['iso-2022-jp', 'utf-16le', 'utf-16be']);

/** The encoding a file is in: by what it says of itself, else by its bytes. */
export function detectEncoding(bytes: Buffer): string {
	return declaredEncoding(bytes) ?? (isUtf8(bytes) ? 'utf-8' : 'windows-1252');
}

/** What a file says of its encoding: by its byte order mark, or by what it declares in its first 1024 bytes. */
export function declaredEncoding(bytes: Buffer): string | undefined {
	if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
	if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
	if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
	const start = bytes.subarray(0, 1024).toString('latin1').replace(COMMENT, '');
	const declared = LABEL.exec(start);
	const label = declared?.[1] ?? declared?.[2];
	return label === undefined ? undefined : canonicalName(label);
}

function canonicalName(label: string): string | undefined {
	try {
		const name = new TextDecoder(label).encoding;
		// A file that can be read for its label is not in UTF-16 (HTML standard, 13.2.3.2).
		return name.startsWith('utf-16') ? 'utf-8' : name;
	} catch {
		return undefined;
	}
}

export function decodeFile(bytes: Buffer): DecodedFile {
	const encoding = detectEncoding(bytes);
	return { text: decodeBytes(bytes, encoding), encoding };
}

/** What the bytes 80 to 9F stand for in windows-1252 (WHATWG Encoding Standard, index windows-1252). */
const WINDOWS_1252 =
	'\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f' +
	'\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';

/**
 * Bytes as text, by an encoding's name in the WHATWG Encoding Standard, without a byte order mark. The runtime reads
 * windows-1252 as if it were Latin-1 (seen in Node 20.20), by which quotation marks and dashes become controls: that one
 * is read here.
 */
export function decodeBytes(bytes: Buffer, encoding: string): string {
	if (encoding !== 'windows-1252') return new TextDecoder(encoding).decode(bytes);
	return bytes
		.toString('latin1')
		.replace(/[\u0080-\u009f]/g, (char) => WINDOWS_1252[char.charCodeAt(0) - 0x80] as string);
}

/**
 * Hands a file's content to `edit` as text in which each unit stands for one unit of the file, and gives the bytes
 * back with the edit in them; everything else is untouched. `edit` gets a function that writes any text in the file's
 * own encoding, characters it lacks as references, and one that reads what was found in the units. Undefined when the
 * encoding allows no such edit.
 */
export function editBytes(
	bytes: Buffer,
	edit: (source: string, write: (text: string) => string, read: (units: string) => string) => string,
	/** What is put in is written in this encoding: the edit states it. */
	stated?: string
): Buffer | undefined {
	const mark = lengthOfMark(bytes);
	const encoding = detectEncoding(bytes);
	// In a file of ASCII that names no encoding, the one it is read by is its server's to say: references hold in any.
	const written = stated ?? (isUnsaid(bytes) ? 'us-ascii' : encoding);
	// A parser would take the mark for text, by which the head is over.
	const edited = editUnmarked(mark > 0 ? bytes.subarray(mark) : bytes, encoding, written, edit);
	return edited && mark > 0 ? Buffer.concat([bytes.subarray(0, mark), edited]) : edited;
}

/** The byte order mark that bytes begin with, in bytes. */

const lengthOfMark = (bytes: Buffer) =>
	bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf
		? 3
		: (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff)
			? 2
			: 0;

function editUnmarked(
	bytes: Buffer,
	encoding: string,
	written: string,
	edit: Parameters<typeof editBytes>[1]
): Buffer | undefined {
	if (encoding === 'utf-16le' || encoding === 'utf-16be') {
		const source = iconv.decode(bytes, encoding, { stripBOM: false });
		const whole = iconv.encode(source, encoding, { addBOM: false });
		return whole.equals(bytes)
			? iconv.encode(
					edit(
						source,
						(text) => text,
						(units) => units
					),
					encoding,
					{ addBOM: false }
				)
			: undefined;
	}
	if (STATEFUL.has(encoding)) return undefined;
	const edited = edit(
		bytes.toString('latin1'),
		(text) => encodeText(text, written).toString('latin1'),
		(units) => readUnits(units, encoding)
	);
	return Buffer.from(edited, 'latin1');
}

/** A text whose units are bytes, where they are such; what came of a reference is a character already. */
const readUnits = (units: string, encoding: string) =>
	units.replace(/[\u0080-\u00ff]+/g, (run) => {
		const text = decodeBytes(Buffer.from(run, 'latin1'), encoding);
		return text.includes('\uFFFD') ? run : text;
	});

/** Whether a file holds ASCII alone and does not say its encoding. */
export const isUnsaid = (bytes: Buffer): boolean => isAscii(bytes) && declaredEncoding(bytes) === undefined;

const ASCII = /^[\u0000-\u007f]*$/;
/** Whether a text can be written in any encoding that begins with ASCII, as it is. */
export const isPlainAscii = (text: string): boolean => ASCII.test(text);

/** Markup in an encoding; what it cannot hold becomes a character reference. */
export function encodeText(text: string, encoding: string): Buffer {
	if (encoding === 'utf-8' || isPlainAscii(text)) return Buffer.from(text, 'utf8');
	if (encoding === 'us-ascii' || !iconv.encodingExists(encoding))
		return Buffer.from(
			toReferences(text, () => false),
			'latin1'
		);
	return iconv.encode(
		toReferences(text, (char) => iconv.decode(iconv.encode(char, encoding), encoding) === char),
		encoding
	);
}

const toReferences = (text: string, holds: (char: string) => boolean) =>
	[...text].map((char) => (isPlainAscii(char) || holds(char) ? char : `&#${char.codePointAt(0)};`)).join('');

/** So many bytes a text has in an encoding; as in UTF-8 where it is none that is known. */
export const bytesOf = (text: string, encoding: string): number =>
	/^utf-?8$/i.test(encoding) || !iconv.encodingExists(encoding)
		? Buffer.byteLength(text)
		: iconv.encode(text, encoding, { addBOM: false }).length;
