import iconv from 'iconv-lite';
import { describe, expect, test } from 'vitest';
import { decodeBytes, decodeFile, detectEncoding, editBytes, encodeText } from './encoding';

const bytes = (text: string, encoding = 'utf-8', mark: readonly number[] = []) =>
	Buffer.concat([Buffer.from(mark), iconv.encode(text, encoding)]);

describe('the encoding of a file', () => {
	test.each([
		['UTF-8 by its mark', bytes('é', 'utf-8', [0xef, 0xbb, 0xbf]), 'utf-8', 'é'],
		['UTF-16LE by its mark', bytes('é<', 'utf-16le', [0xff, 0xfe]), 'utf-16le', 'é<'],
		['UTF-16BE by its mark', bytes('é<', 'utf-16be', [0xfe, 0xff]), 'utf-16be', 'é<'],
		[
			'by its mark before what it declares',
			bytes('<meta charset=latin1>é', 'utf-8', [0xef, 0xbb, 0xbf]),
			'utf-8',
			'<meta charset=latin1>é'
		],
		['by a meta element', bytes('<meta charset="koi8-r">Я', 'koi8-r'), 'koi8-r', '<meta charset="koi8-r">Я'],
		[
			'by a meta element of the old form',
			bytes('<meta http-equiv=x content="text/html; charset=Shift_JIS">海', 'shift_jis'),
			'shift_jis',
			'<meta http-equiv=x content="text/html; charset=Shift_JIS">海'
		],
		[
			'by an XML declaration',
			bytes('<?xml version="1.0" encoding="iso-8859-2"?>ł', 'iso-8859-2'),
			'iso-8859-2',
			'<?xml version="1.0" encoding="iso-8859-2"?>ł'
		],
		[
			'latin1 is what browsers take it for',
			bytes('<meta charset=iso-8859-1>\u201c', 'windows-1252'),
			'windows-1252',
			'<meta charset=iso-8859-1>\u201c'
		],
		['a label that cannot be read so says UTF-8', bytes('<meta charset=utf-16>é'), 'utf-8', '<meta charset=utf-16>é'],
		['a label nobody knows counts for nothing', bytes('<meta charset=klingon>é'), 'utf-8', '<meta charset=klingon>é'],
		['nothing declared, and UTF-8', bytes('é'), 'utf-8', 'é'],
		['nothing declared, and no UTF-8', bytes('é', 'windows-1252'), 'windows-1252', 'é'],
		['nothing', Buffer.alloc(0), 'utf-8', '']
	])('%s', (_name, file, encoding, text) => {
		expect(detectEncoding(file)).toBe(encoding);
		expect(decodeFile(file)).toEqual({ text, encoding });
	});
	test('what is declared behind the first 1024 bytes is not looked at', () => {
		const label = '<meta charset=koi8-r>';
		expect(detectEncoding(bytes(`${' '.repeat(1024 - label.length)}${label}`))).toBe('koi8-r');
		expect(detectEncoding(bytes(`${' '.repeat(1025)}${label}`))).toBe('utf-8');
	});
});

test('windows-1252 is read whole, as the standard’s index has it', () => {
	const all = Buffer.from(Array.from({ length: 256 }, (_, at) => at));
	const text = decodeBytes(all, 'windows-1252');
	expect(text).toHaveLength(256);
	expect([0x80, 0x81, 0x85, 0x91, 0x92, 0x93, 0x94, 0x96, 0x97, 0x99, 0x9f].map((at) => text[at]).join('')).toBe(
		'€\u0081…‘’“”–—™Ÿ'
	);
	// What iconv knows of it is the same; it leaves out the five that stand for controls.
	const known = [...iconv.decode(all, 'windows-1252')];
	expect(known.every((char, at) => char === text[at] || char === '\ufffd')).toBe(true);
	expect(known.filter((char) => char === '\ufffd')).toHaveLength(5);
});

describe('an edit of a file’s bytes', () => {
	const put = (file: Buffer, text = '海é') => editBytes(file, (source, write) => source.replace('@', write(text)));

	test.each([
		['UTF-8', bytes('é@\u0000'), bytes('é海é\u0000')],
		['UTF-8 with its mark', bytes('é@', 'utf-8', [0xef, 0xbb, 0xbf]), bytes('é海é', 'utf-8', [0xef, 0xbb, 0xbf])],
		['UTF-16LE with its mark', bytes('é@', 'utf-16le', [0xff, 0xfe]), bytes('é海é', 'utf-16le', [0xff, 0xfe])],
		['UTF-16BE with its mark', bytes('é@', 'utf-16be', [0xfe, 0xff]), bytes('é海é', 'utf-16be', [0xfe, 0xff])],
		['characters that it lacks become references', bytes('é@', 'windows-1252'), bytes('é&#28023;é', 'windows-1252')],
		[
			'Shift_JIS',
			bytes('<meta charset="shift_jis">海@', 'shift_jis'),
			bytes('<meta charset="shift_jis">海海&#233;', 'shift_jis')
		]
	])('%s', (_name, file, wanted) => {
		expect(put(file)).toEqual(wanted);
	});
	test('bytes that are no text of their encoding stay what they are', () => {
		const file = Buffer.from([0x3c, 0x6d, 0xff, 0xfe, 0x80, 0x40, 0xc3]);
		expect(put(file, 'x')).toEqual(Buffer.from([0x3c, 0x6d, 0xff, 0xfe, 0x80, 0x78, 0xc3]));
	});
	test('is refused where it could not be written back byte for byte', () => {
		// Half a unit at the end.
		expect(put(Buffer.from([0xfe, 0xff, 0x00, 0x40, 0x00]))).toBeUndefined();
		expect(put(bytes('<meta charset=iso-2022-jp>@'))).toBeUndefined();
	});
	test('an encoding that nobody can write takes references for all but ASCII', () => {
		expect(encodeText('aé', 'x-user-defined').toString()).toBe('a&#233;');
		expect(encodeText('a', 'x-user-defined').toString()).toBe('a');
	});
});

test.each([
	['UTF-8', Buffer.from([0xef, 0xbb, 0xbf]), 'utf8'],
	['UTF-16', Buffer.from([0xff, 0xfe]), 'utf16le']
] as const)('a byte order mark of %s stays before all, and is no text of the page', (_, mark, coding) => {
	const file = Buffer.concat([mark, Buffer.from('<!doctype html><html><head></head><body>é</body></html>', coding)]);
	const edited = editBytes(file, (source, write) => {
		expect(source.startsWith('<!doctype')).toBe(true);
		return source.replace('<head>', `<head>${write('<title>ü</title>')}`);
	})!;
	expect(edited.subarray(0, mark.length).equals(mark)).toBe(true);
	expect(edited.subarray(mark.length).toString(coding)).toBe(
		'<!doctype html><html><head><title>ü</title></head><body>é</body></html>'
	);
});
