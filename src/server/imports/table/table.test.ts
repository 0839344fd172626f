import iconv from 'iconv-lite';
import { parse } from 'csv-parse/sync';
import { describe, expect, test } from 'vitest';
import { decodeTable, readRows, type Rows } from './rows';
import { guessMapping, pagesOfTable, sheetOf, type TableOddities, type TableSource } from './table';
import { guessReading, toCell, toDate, toLanguage, toNumber, toState } from './values';

/** All pages of a table, and what is odd about it. */
function allOf(table: Rows, source: TableSource, base: string) {
	const told: TableOddities = { skipped: [], oddCells: [] };
	return { pages: Array.from(pagesOfTable(table, source, base, told), ({ page }) => page), ...told };
}

describe('reading a table', () => {
	test.each([
		['comma', 'path,title\n/a,One\n/b,"Two, too"'],
		['semicolon', '\uFEFFpath;title\r\n/a;One\r\n/b;"Two, too"\r\n'],
		['tab', 'path\ttitle\n/a\tOne\n/b\tTwo, too'],
		['bar', 'path|title\n/a|One\n/b|Two, too'],
		['JSON', '[{"path":"/a","title":"One"},{"path":"/b","title":"Two, too"}]'],
		['JSON in an envelope', '{"items":[{"path":"/a","title":"One"},{"path":"/b","title":"Two, too"}]}'],
		['a record a line', '{"path":"/a","title":"One"}\n\n{"path":"/b","title":"Two, too"}\n']
	])('%s', (_, text) => {
		const { columns, rows, odd } = readRows(text);
		expect(columns).toEqual(['path', 'title']);
		expect(rows.map(({ cells }) => ({ ...cells }))).toEqual([
			{ path: '/a', title: 'One' },
			{ path: '/b', title: 'Two, too' }
		]);
		expect(odd).toEqual([]);
	});
	test.each([
		['', /no rows/],
		['path,title\n', /no rows/],
		['[1, 2]', /Entry 1 .* no record/],
		['{"a": 1}', /no list of records/],
		['[{"a": ]', /cannot be read as JSON/]
	])('%j is refused', (text, why) => {
		expect(() => readRows(text)).toThrow(why);
	});
	test('rows that are too short or too long, quotes and lines that are not: borne, and told with their line', () => {
		const { rows, odd } = readRows('path,title,x\n/a,"One\nline",1\n/b\n/c,Say "so" here,3,4,5\n');
		expect(rows.map(({ line, cells }) => [line, cells.path, cells.title])).toEqual([
			[2, '/a', 'One\nline'],
			[4, '/b', ''],
			[5, '/c', 'Say "so" here']
		]);
		expect(odd).toEqual([
			{ line: 4, what: 'has 1 cell where there are 3 headings; the others are empty' },
			{
				line: 5,
				what: 'has 5 cells where there are 3 headings; what is beyond them is left out: “4,5”'
			}
		]);
		expect(readRows('{"a":1}\n{"a":2}\n{"a":\n').odd).toEqual([
			{ line: 3, what: 'is no record and is left out: “{"a":”' }
		]);
	});
	test.each<[string, string, unknown[]]>([
		['white space round the delimiters', 'path , title\n /a , One \n', [{ path: '/a', title: 'One' }]],
		['white space in quotes stays with what needs them', 'path,title\n/a,"One, "\n', [{ path: '/a', title: 'One, ' }]],
		['a quotation mark behind spaces', 'path, title\n/a, "One, two"\n', [{ path: '/a', title: 'One, two' }]],
		['quotation marks in a quoted cell', 'path,title\n/a,"Say, ""so"" \"\n', [{ path: '/a', title: 'Say, "so" ' }]]
	])('%s', (_, text, wanted) => {
		expect(readRows(text).rows.map(({ cells }) => cells)).toEqual(wanted);
	});
	test.each(['path,title\n/a,"One\n/b,Two\n', 'path,title\n/a,"One" two\n/b,"Three"\n'])(
		'quotation marks that would swallow what follows are refused with their place: %j',
		(text) => expect(() => readRows(text)).toThrow(/cannot be read as CSV.*line/)
	);
	test('headings that are empty or stand twice have names of their own', () => {
		expect(readRows('a,,a\n1,2,3').columns).toEqual(['a', 'column 2', 'a 2']);
	});
	test.each([
		['UTF-8', 'utf8'],
		['windows-1252', 'windows-1252'],
		['Shift_JIS', 'shift_jis'],
		['UTF-16LE', 'utf-16le'],
		['UTF-16BE', 'utf-16be']
	])('the encoding is found: %s', (encoding, name) => {
		const text =
			`title;path\n${name === 'shift_jis' ? 'この湿地は一日に二度、潮に沈みます。鳥が多い' : 'Über die Vögel der Küste, wo Gänse schön überwintern'};/a\n`.repeat(
				3
			);
		expect(decodeTable(iconv.encode(text, name))).toEqual({ text, encoding });
		expect(decodeTable(iconv.encode(text, name, { addBOM: name.startsWith('utf') })).text).toBe(text);
	});
});

describe('cells by their kind', () => {
	test.each([
		['2026-05-03', true, '2026-05-03'],
		['2026/5/3 09:30', true, '2026-05-03T09:30'],
		['2026-05-03T09:30:00Z', true, '2026-05-03T09:30:00Z'],
		['3/5/2026', true, '2026-05-03'],
		['3/5/2026', false, '2026-03-05'],
		['3.5.26 9:05', true, '2026-05-03T09:05'],
		['3.5.71', true, '1971-05-03'],
		['31/4/2026', true, undefined],
		['13/13/2026', true, undefined],
		['3 May 2026', true, '2026-05-03'],
		['Sunday, May 3rd, 2026', true, '2026-05-03'],
		['3. März 2026', true, '2026-03-03'],
		['3 févr. 2026', true, '2026-02-03'],
		['3 de mayo de 2026', true, '2026-05-03'],
		['soon', true, undefined],
		['3 Xyz 2026', true, undefined]
	])('the date %s (day first: %s) is %s', (text, dayFirst, date) => {
		expect(toDate(text, dayFirst)).toBe(date);
	});
	test.each([
		['1,234.5', '.', 1234.5],
		['1.234,5', ',', 1234.5],
		['1 234,50 €', ',', 1234.5],
		['$12', '.', 12],
		['EUR 3,5', ',', 3.5],
		["1'000", '.', 1000],
		['−4', '.', -4],
		['twelve', '.', undefined],
		['', '.', undefined]
	] as const)('the number %s with %s is %s', (text, decimal, number) => {
		expect(toNumber(text, decimal)).toBe(number);
	});
	test.each([
		[['2026-01-02', '2026-02-03'], { kind: 'date' }],
		[['13/2/2026', '1/2/2026'], { kind: 'date', dayFirst: true }],
		[['2/13/2026', '1/2/2026'], { kind: 'date', dayFirst: false }],
		[['yes', 'no', 'yes'], { kind: 'flag' }],
		[['oui', 'non'], { kind: 'flag' }],
		[['1', '0', '1'], { kind: 'number', decimal: '.' }],
		[['12,50 €', '3,00 €'], { kind: 'number', decimal: ',' }],
		[['1.234.567', '3'], { kind: 'number', decimal: ',' }],
		[['1,234,567', '3'], { kind: 'number', decimal: '.' }],
		[['1.234,5', '3'], { kind: 'number', decimal: ',' }],
		[['7', '12'], { kind: 'number', decimal: '.' }],
		[['/a.jpg', '/b.png'], { kind: 'picture' }],
		[['<p>a</p>', '<p>b</p>'], { kind: 'rich' }],
		[['https://a.example', 'http://b.example/x'], { kind: 'link' }],
		[['a|b', 'c|d|e'], { kind: 'list', between: '|' }],
		[['words', 'more words, of course'], { kind: 'text' }],
		[[], { kind: 'text' }]
	])('a column of %j is %j', (cells, reading) => {
		expect(guessReading(cells)).toEqual(reading);
	});
	test('what can be read two ways is asked about', () => {
		expect(guessReading(['1/2/2026', '3/4/2026']).ambiguous).toContain('“1/2/2026” may be the day or the month first');
		expect(guessReading(['1,234', '5,678']).ambiguous).toContain('may hold decimals or thousands');
	});
	test('what is not of its kind stays, and is said', () => {
		expect(toCell('soon', { kind: 'date' })).toEqual({ value: 'soon', why: 'is no date' });
		expect(toCell('a boat', { kind: 'picture' })).toEqual({
			...{ value: { src: 'a boat' }, why: 'does not look like the address of a picture' }
		});
		expect(toCell('perhaps', { kind: 'flag' })).toEqual({ value: 'perhaps', why: 'is neither yes nor no' });
		expect(toCell('many', { kind: 'number' })).toEqual({ value: 'many', why: 'is no number' });
		expect(toCell('http://[', { kind: 'link' })).toEqual({ value: 'http://[', why: 'is no address' });
		expect(toCell(5, { kind: 'date' })).toEqual({ value: 5 });
	});
	test('states and languages by their words', () => {
		expect(['Published', 'Entwurf', 'privé', 'eh'].map(toState)).toEqual(['live', 'draft', 'private', undefined]);
		expect(['fr', 'pt_br', 'English', 'Français', 'Elvish'].map(toLanguage)).toEqual([
			...['fr', 'pt-BR', 'en', 'fr', undefined]
		]);
	});
});

describe('columns and pages', () => {
	const columnsOf = (...columns: string[]) => ({ columns, rows: [] });
	test('what columns probably mean; a field is guessed once', () => {
		expect(guessMapping(columnsOf('URL', 'Headline', 'Name', 'Teaser', 'Opening hours', 'photo'))).toEqual({
			...{ URL: 'path', Headline: 'title', Name: 'name', Teaser: 'summary', photo: 'picture' },
			'Opening hours': 'opening_hours'
		});
		expect(guessMapping(columnsOf('Überschrift', 'Lien', 'Résumé', 'Título', 'Veröffentlicht'))).toEqual({
			...{ Überschrift: 'title', Lien: 'path', Résumé: 'summary', Título: 'título', Veröffentlicht: 'published' }
		});
	});
	test('a column without a usual name is told by what it holds', () => {
		const { columns, rows } = readRows('where,shot,what\n/a,/p.jpg,One\n/b,/q.png,Two\n');
		expect(guessMapping({ columns, rows })).toEqual({ where: 'path', shot: 'picture', what: 'what' });
	});
	const source = (mapping: Record<string, string>) => ({ mapping, type: 'note' });
	test('rows become pages; those without a place, elsewhere, or twice are left out with their line', () => {
		const table = readRows(
			'url,title,photo,by,tags,skip\n/a,One,/p.jpg,Isla,"x, y",1\nhttps://site.example/b?x=1,Two,,,,\nhttps://other.example/c,Three,,,,\n,Four,,,,\n/a,Five,,,,\nd e,Six,,,,'
		);
		const mapping = { url: 'path', title: 'title', photo: 'picture', by: 'author', tags: 'tags', skip: '' };
		const { pages, skipped } = allOf(table, source(mapping), 'https://site.example/');
		expect(pages).toEqual([
			{
				...{ path: '/a', type: 'note', state: 'live', rules: [] },
				fields: { title: 'One', picture: { src: '/p.jpg' }, author: { name: 'Isla' }, tags: ['x', 'y'] }
			},
			{ path: '/b?x=1', type: 'note', state: 'live', fields: { title: 'Two' }, rules: [] }
		]);
		expect(skipped.map(({ row }) => row)).toEqual([4, 5, 6, 7]);
		expect(skipped[2]!.why).toBe('/a stands in row 2 already');
	});
	test.each(['utf8', 'utf16le', 'windows-1252'])(
		'a file of many pieces, in %s, is read as its text is, wherever a piece ends',
		(encoding) => {
			const word = encoding === 'windows-1252' ? 'Moor – é ' : 'Moor – é 干潟 😀 ';
			const cells = ['plain', `"a, ""b""\r\n${word}x"`, '', ` ${word}`, `"${word.repeat(9000)}x"`, '"\n\n"', '"""x"""'];
			const rows = Array.from({ length: 600 }, (_, at) =>
				[`/p${at}`, cells[(at * 5) % 7], cells[at % 7], `${at}${word.repeat(at % 11)}`].join(',')
			);
			const text = `path,title,summary,more\r\n${rows.join('\r\n')}\r\n`;
			const bytes = iconv.encode(text, encoding, { addBOM: encoding === 'utf16le' });
			expect(bytes.length).toBeGreaterThan(3 << 20);
			const [fromBytes, fromText] = [readRows(bytes), readRows(text)];
			expect(fromBytes.odd).toEqual([]);
			expect(fromBytes.columns).toEqual(fromText.columns);
			expect(fromBytes.rows.length).toBe(600);
			for (const [at, row] of fromBytes.rows.entries()) expect(row, `row ${at}`).toEqual(fromText.rows[at]);
			const patient = parse(text, { columns: true, trim: true });
			expect(fromText.rows.map(({ cells }) => cells)).toEqual(patient);
		}
	);
	test('a quotation mark out of place, pieces behind the beginning, is borne all the same', () => {
		const good = Array.from({ length: 30_000 }, (_, at) => `/p${at},Title of page ${at} of a table,"Quoted, ${at}"`);
		for (const odd of ['/odd,Say "so" here,x', '/odd,  "late",x']) {
			const { rows } = readRows(Buffer.from(`path,title,summary\n${good.join('\n')}\n${odd}\n/end,End,y\n`));
			expect(rows.length).toBe(30_002);
			expect(rows.at(-2)?.cells.path).toBe('/odd');
			expect(rows.at(-1)).toEqual({ line: 30_003, cells: { path: '/end', title: 'End', summary: 'y' } });
		}
	});
	test('states, languages and odd cells', () => {
		const table = readRows(
			'path,title,date,status,lang\n/a,One,1/2/2026,draft,fr\n/b,Two,13/2/2026,gone,Klingon\n/c,Three,soon,live,\n'
		);
		const { pages, oddCells } = allOf(table, source(guessMapping(table)), 'https://s.example/');
		expect(pages.map(({ state, language, fields }) => [state, language, fields.published])).toEqual([
			['draft', 'fr', '2026-02-01'],
			['draft', undefined, '2026-02-13'],
			['live', undefined, 'soon']
		]);
		expect(oddCells.map(({ line, column }) => [line, column])).toEqual([
			[3, 'status'],
			[3, 'lang'],
			[4, 'date']
		]);
	});
	test('without a column for the path nothing is read, unless paths are made of the titles', () => {
		const table = readRows('title\n"Golden Eye, the duck"\nGolden eye: the Duck\n\n!\n');
		expect(() => allOf(table, source({ title: 'title' }), 'https://s.example/')).toThrow(/No column gives the path/);
		const { pages, skipped } = allOf(
			table,
			{ ...source({ title: 'title' }), pathFromTitle: true },
			'https://s.example/'
		);
		expect(pages.map(({ path }) => path)).toEqual(['/golden-eye-the-duck', '/golden-eye-the-duck-2']);
		expect(skipped).toEqual([{ row: 5, why: 'it has no title to make a path of' }]);
		const words = Array.from({ length: 15 }, (_, at) => `w${at}`);
		const long = allOf(
			readRows(`title,x\n${words.join(' ')},1\n`),
			{ ...source({ title: 'title' }), pathFromTitle: true },
			'https://s.example/'
		);
		expect(long.pages[0]?.path).toBe(`/${words.slice(0, 12).join('-')}`);
	});
	test('a sheet shows what the first and the oddest rows would become', () => {
		const rows = Array.from({ length: 40 }, (_, at) => `/p${at},Page ${at},${at === 30 ? 'soon' : '2026-01-02'}`);
		const sheet = sheetOf(`path,title,date\n${rows.join('\n')}\n`, {}, 'https://s.example/');
		expect(sheet).toMatchObject({ rows: 40, pages: 40, encoding: 'UTF-8', delimiter: ',' });
		expect(sheet.sheet.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6, 7, 8, 9, 32]);
		expect(sheet.sheet.at(-1)?.page?.fields).toEqual({ title: 'Page 30', published: 'soon' });
		expect(sheet.oddCells).toEqual([{ line: 32, column: 'date', text: 'soon', why: 'is no date' }]);
	});
});
