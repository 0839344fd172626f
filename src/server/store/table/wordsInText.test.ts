import Database from 'better-sqlite3';
import { expect, test } from 'vitest';
import { wordsInText, wordsOf } from './wordsInText';

const db = new Database(':memory:');
db.exec(
	`CREATE VIRTUAL TABLE page_search USING fts5 (path, title, description, content = '', contentless_delete = 1, detail = column)`
);
const keep = db.prepare('INSERT OR REPLACE INTO page_search (rowid, path, title, description) VALUES (1, ?, ?, ?)');
const search = db.prepare('SELECT 1 FROM page_search WHERE page_search MATCH ?');
/** Whether the index finds a page of these texts. */
function isFound(words: readonly string[], texts: readonly [string, string, string]): boolean {
	keep.run(...texts);
	return search.get(words.map((word) => `"${word}"*`).join(' ')) !== undefined;
}

test('each letter whose folding is known is folded as the index does, inside and outside of words', () => {
	let known = 0;
	for (let code = 1; code < 0x2100; code++) {
		const letter = String.fromCodePoint(code);
		const texts = ['/', `x${letter}y ${letter}z`, ''] as const;
		for (const words of [
			['y'],
			['z'],
			['xy'],
			...wordsOf(letter).map((one) => [one]),
			...'aeinos'.split('').map((one) => [one])
		]) {
			const told = wordsInText(words)?.(texts);
			if (told === undefined) continue;
			known++;
			expect({ code, words, found: told }).toEqual({ code, words, found: isFound(words, texts) });
		}
	}
	expect(known).toBeGreaterThan(4000);
});

test.each([
	[['heath'], true],
	[['Hea', 'WALK'], true],
	[['eath'], false],
	[['ete'], true],
	[['été'], true],
	[['to', 'o'], true],
	[['heath', 'moor'], false],
	[['2026'], true]
])('%j by text and by index', (words, expected) => {
	const texts = ['/walks/heath-2026', 'L’Été à Töre', 'Walks, “over all”'] as const;
	expect(isFound(words, texts)).toBe(expected);
	expect(wordsInText(words)?.(texts)).toBe(expected);
});

test('letters that only the index knows are left to it', () => {
	expect(wordsInText(['йод'])).toBeUndefined();
	expect(wordsInText(['a'])?.(['/', 'йод', 'a'])).toBeUndefined();
});
