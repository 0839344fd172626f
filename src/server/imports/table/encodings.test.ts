import iconv from 'iconv-lite';
import { expect, test } from 'vitest';
import { decodeTable, readRows } from './rows';

/** Tables in the encodings that people’s programs write. */

const TEXT = 'path;title\n' + '/a;Café “Grünau” – été à l’œuvre\n/b;Œuvre à Nîmes, près d’Arles\n'.repeat(6);
test.each([
	['UTF-8', 'utf8', ''],
	['UTF-8', 'utf8', '\uFEFF'],
	['UTF-16LE', 'utf16le', '\uFEFF'],
	['UTF-16BE', 'utf16be', '\uFEFF'],
	['UTF-16LE', 'utf16le', ''],
	['UTF-16BE', 'utf16be', ''],
	['windows-1252', 'win1252', '']
])('%s (%s, mark %j)', (name, encoding, mark) => {
	const bytes = encoding === 'utf8' ? Buffer.from(mark + TEXT) : iconv.encode(mark + TEXT, encoding, { addBOM: false });
	expect(decodeTable(bytes)).toEqual({ text: TEXT, encoding: name });
	const { rows } = readRows(bytes);
	expect(rows).toHaveLength(12);
});

test.each([
	['UTF-16LE', 'utf16le'],
	['UTF-16BE', 'utf16be']
])('%s is known by its mark alone where no byte is zero', (name, encoding) => {
	const text = '題名、湿地、潮位、干潟、海鳥'.repeat(3);
	expect(decodeTable(iconv.encode(text, encoding, { addBOM: true }))).toEqual({ text, encoding: name });
});
test('two bytes of a mark that are turned round are no mark', () => {
	for (const first of [0xff, 0xfe]) {
		const bytes = Buffer.concat([Buffer.from([first]), Buffer.from('path,title\n/a,Caf\xe9 de mer\n', 'latin1')]);
		expect(decodeTable(bytes).encoding).not.toMatch(/UTF-16/);
	}
});

test('what calls itself Latin-1 has the signs of the code page that holds it', () => {
	// 0x96 is a dash there, and a control in Latin-1 proper.
	const bytes = Buffer.concat([
		Buffer.from('path,title\n'),
		...Array(20).fill(Buffer.from('/a,T\xe9 \x96 de\n', 'latin1'))
	]);
	expect(decodeTable(bytes).text).toContain('Té – de');
});

test('Japanese by its bytes', () => {
	const text = 'パス,題名\n' + '/a,この湿地は一日に二度、潮に沈みます。\n'.repeat(8);
	for (const encoding of ['shift_jis', 'euc-jp']) expect(decodeTable(iconv.encode(text, encoding)).text).toBe(text);
});

test('a mark at the beginning alone is one; zeros are no UTF-8', () => {
	expect(readRows('\uFEFFpath,title\n/a,one \uFEFF two\n').rows[0]).toMatchObject({ line: 2 });
	expect(JSON.stringify(readRows('\uFEFFpath,title\n/a,one\uFEFFtwo\n').rows)).toContain('one\uFEFFtwo');
	expect(decodeTable(Buffer.from('a,b\n1,2\n')).encoding).toBe('UTF-8');
	expect(decodeTable(Buffer.from('a\0,\0b\0\n\0')).encoding).toBe('UTF-16LE');
});
