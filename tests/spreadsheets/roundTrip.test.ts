import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import iconv from 'iconv-lite';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { compareCsv, writeCsv, writeTableWorkbook, type CsvTold } from '$server/exports/csv';
import { openTable } from '$server/imports/table/workbook';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';

/** The table of pages goes out, through a real spreadsheet program, and back: nothing is lost, and nothing changed that nobody changed. */
const top = mkdtempSync(join(tmpdir(), 'kephalon-sheets-'));
const db = join(top, 's.db');
let store: Store;

/** What pages say by themselves: plain words, and what spreadsheets like to make something else of. */
const TEXTS = [
	...[
		'A walk along the cliffs',
		'Café au lait – à la mer',
		'Two, with a comma; and more',
		'He said "go" and went',
		'{page.title} {separator} {site.name}'
	],
	...[
		'007',
		'3.10',
		'1/2',
		'3-4',
		'Mar 5',
		'MARCH1',
		'10-12',
		'true',
		'1e3',
		'12345678901234567890',
		'1,000',
		'50%',
		'£5',
		'2026-05-03',
		'12:30'
	],
	...['=SUM(A1)', '+1 more', '-5 degrees', '@home', "'quoted'", "'=quoted", '#hash', ' spaced  out ', 'tab\tin it'],
	...[
		'日本語のページ',
		'naïve',
		'Smart “quotes” and ‘these’…',
		'emoji 🦆',
		'Ünïcödé',
		'straight "quotes" -- and...',
		'a\u00A0b'
	],
	...[
		'_x0041_',
		'<b>&amp;</b>',
		'Line\nbreak',
		'ends in space ',
		'/a/path',
		'https://docs.example/x?a=1&b=2',
		'1 234,50',
		'٣٤',
		'½'
	]
];

beforeAll(() => {
	store = new Store(db);
	const pages = TEXTS.map((template, at) => ({
		...{ path: `/p${at}`, type: 'page', state: 'live', fields: { title: `Page ${at}` } },
		rules: [{ tag: 'title', kind: 'template', template }]
	}));
	saveSiteFile(store, {
		site: { name: 'S', base: 'https://docs.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [{ name: 'page', fields: [], rules: [] }],
		pages,
		pictures: []
	} as never);
	JOBS.refresh({ db, site: 'S' }, () => undefined);
});
afterAll(() => {
	store.close();
	rmSync(top, { recursive: true, force: true });
});

const OUT = { columns: ['title'], sort: 'path', down: false } as const;
let runs = 0;
/** A file as the spreadsheet program saves it again after reading it. */
function through(file: Buffer, from: string, to: string, reads = '', writes = ''): Buffer {
	const work = join(top, `w${runs++}`);
	mkdirSync(join(work, 'out'), { recursive: true });
	writeFileSync(join(work, `in.${from}`), file);
	const csv = 'Text - txt - csv (StarCalc)';
	const { error, status, stderr, stdout } = spawnSync(
		'soffice',
		[
			`-env:UserInstallation=file://${join(top, 'profile')}`,
			'--headless',
			...(reads ? [`--infilter=${csv}:${reads}`] : []),
			...['--convert-to', to === 'csv' ? `csv:${csv}:${writes}` : to, '--outdir', join(work, 'out')],
			join(work, `in.${from}`)
		],
		{ encoding: 'utf8', timeout: 300_000 }
	);
	expect(error).toBeUndefined();
	expect([status, stdout.includes('convert'), stderr.includes('Error')]).toEqual([0, true, false]);
	return readFileSync(join(work, 'out', `in.${to}`));
}
const told = async (file: Buffer, takes = {}) => compareCsv(store, 'S', await openTable(file), takes);
/** Each row is accounted for, nothing is changed, and what is not as it was looks rewritten. */
function unchanged({ rows, changes, left }: CsvTold) {
	expect(rows).toBe(TEXTS.length);
	expect(changes.first).toEqual([]);
	const { rewritten, ...others } = left;
	expect(Object.values(others).flatMap(({ first }) => first)).toEqual([]);
	return rewritten.count;
}
/** Comma, quotation mark, the encoding by its number, the first line. */
const options = (encoding: number) => `44,34,${encoding},1`;

test.each([
	['UTF-8', 'utf8', 76],
	['Windows-1252', 'windows-1252', 1],
	['UTF-16', 'utf16le', 65535]
])('as CSV in %s, and back', async (_name, encoding, number) => {
	const text = [...writeCsv(store, 'S', {}, { ...OUT, mark: false })].join('');
	const bytes = iconv.encode(text, encoding, { addBOM: encoding === 'utf16le' });
	expect(unchanged(await told(bytes))).toBe(encoding === 'windows-1252' ? (await told(bytes)).left.rewritten.count : 0);
	const back = through(bytes, 'csv', 'csv', options(number), options(number));
	const rewritten = unchanged(await told(back));
	expect(rewritten).toBeGreaterThan(3);
	// Whoever takes them, takes just those.
	const { changes, left } = await told(back, { rewritten: true });
	expect([changes.count, left.rewritten.count]).toEqual([rewritten, 0]);
	// What is written anew is read, whatever went with it.
	const anew = iconv.encode(text.replaceAll('A walk along the cliffs', 'A walk by the sea'), encoding, {
		addBOM: encoding === 'utf16le'
	});
	const edited = await told(through(anew, 'csv', 'csv', options(number), options(number)));
	expect(edited.changes.first.map(({ after }) => after)).toEqual(['A walk by the sea']);
});

test('as a workbook, and back: not one cell is rewritten', async () => {
	const bytes = Buffer.concat([...writeTableWorkbook(store, 'S', {}, OUT)]);
	expect(unchanged(await told(bytes))).toBe(0);
	const again = through(bytes, 'xlsx', 'xlsx');
	expect(unchanged(await told(again))).toBe(0);
	expect(unchanged(await told(through(again, 'xlsx', 'csv', '', options(76))))).toBe(0);
});

test('a column of the path that was called otherwise, with whole addresses', async () => {
	const text = [...writeCsv(store, 'S', {}, { ...OUT, mark: false })].join('');
	for (const name of ['Path', 'URL', 'Address']) {
		const renamed = text.replace('path,', `${name},`).replace(/^(\/p\d+),/gm, 'https://docs.example$1,');
		expect(unchanged(await told(Buffer.from(renamed)))).toBe(0);
	}
});
