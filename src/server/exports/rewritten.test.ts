import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { rewritingOf } from './rewritten';

/** What spreadsheets make of texts by themselves: what stood in the cell, what comes back, and how. */
describe('what a spreadsheet did', () => {
	test.each([
		['007', '7', 'number'],
		['3.10', '3.1', 'number'],
		['3.10', '3,1', 'number'],
		['1,000', '1000', 'number'],
		['1.000,50', '1000.5', 'number'],
		['9783161484100123', '9.78316E+15', 'number'],
		['12345678901234567890', '12345678901234600000', 'number'],
		['1e3', '1000', 'number'],
		['£5', '£5.00', 'number'],
		['5 €', '5,00 €', 'number'],
		['$1,000', '1000', 'number'],
		['50%', '50.00%', 'number'],
		['50%', '50,00 %', 'number'],
		['1/2', '2026-01-02', 'date'],
		['1/2', '02.01.2026', 'date'],
		['1/2', '2-Jan', 'date'],
		['1/2', '01/02/26', 'date'],
		['3-4', '04.03.26', 'date'],
		['Mar 5', '5-Mar', 'date'],
		['MARCH1', '1-Mar', 'date'],
		['10-12', '10月12日', 'date'],
		['1/2', '2026年1月2日', 'date'],
		['1/2', '2026. 1. 2', 'date'],
		['٣٤', '34', 'number'],
		['SEPT2', '2-Sep', 'date'],
		['2026-05-03', '03/05/2026', 'date'],
		['3. Mai', '03.05.26', 'date'],
		['10-12', '2026-10-12T00:00:00', 'date'],
		['12:30', '12:30:00 PM', 'time'],
		['12:30', '12:30:00', 'time'],
		['0:15', '12:15:00 AM', 'time'],
		['18:00', '0.75', 'time'],
		['9:05', '1899-12-30T09:05:00', 'time'],
		['true', 'TRUE', 'truth'],
		['日本語', '???', 'letters'],
		['Café 日本', 'Café ??', 'letters'],
		['Café', 'CafÃ©', 'letters'],
		['“Sea”', 'â€œSeaâ€\u009d', 'letters'],
		['naïve', 'na?ve', 'letters'],
		['"Sea" -- it\'s...', '“Sea” – it’s…', 'marks'],
		['Sea (c) 2026', 'Sea © 2026', 'marks'],
		['L’île', "L'île", 'marks'],
		['a\u00A0b', 'a b', 'spaces'],
		['Two\nlines', 'Two  lines', 'spaces'],
		['=SUM(A1)', '#NAME?', 'formula'],
		['@home', 'Err:508', 'formula'],
		[`${'x'.repeat(33_000)}`, 'x'.repeat(32_767), 'cut']
	])('%j comes back as %j: %s', (before, after, how) => {
		expect(rewritingOf(before, after)).toBe(how);
		expect(rewritingOf(before, before)).toBeUndefined();
	});
	test.each([
		['', '7'],
		['7', ''],
		['007', '8'],
		['3.10', '3.2'],
		['3.1', '31'],
		['1/2', '2026-01-03'],
		['1/2', 'Half'],
		['1/2', '12'],
		['2026', '2027'],
		['£5', '£6.00'],
		['12:30', '12:31'],
		['12:30', '00:30:00 AM'],
		['May', 'June'],
		['Mar 5', 'Mar 6'],
		['True colours', 'TRUE COLOURS'],
		['日本語', '???!'],
		['Café', 'Cafe'],
		['Sea', 'Sea!'],
		['Sea?', 'Sea'],
		['“Sea”', '“See”'],
		['one two', 'onetwo'],
		['A – B', 'A · B'],
		['{page.title}', '{page.title} – {site.name}'],
		['Title of 10 pages', 'Title of 11 pages']
	])('%j is written anew as %j', (before, after) => expect(rewritingOf(before, after)).toBeUndefined());
	test('any two texts are told in time in proportion to them, and no text is what it is', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary' }), fc.string({ unit: 'binary' }), (before, after) => {
				expect(rewritingOf(before, before)).toBeUndefined();
				rewritingOf(before, after);
			})
		);
		for (const piece of ['1,', '1 ', '- ', '"', '(c', '?', 'é', '1/'])
			expect(rewritingOf(piece.repeat(20_000), `${piece.repeat(19_999)}x`)).toBeUndefined();
	});
});
