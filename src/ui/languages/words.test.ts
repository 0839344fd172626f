import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, expect, test } from 'vitest';
import { ENGLISH } from './english';
import { fr } from './french';
import { inPseudo, lengthened, mirrored } from '$ui/words/pseudo';
import { counted, firstOf, learn, momentInWords, section, speak, spoken, type Messages } from '$ui/words/speaking';

afterEach(() => speak('en-GB'));

const src = join(import.meta.dirname, '../..');
const sources = readdirSync(src, { recursive: true, encoding: 'utf8' })
	.filter((file) => /\.(svelte|ts)$/.test(file) && !/\.test\.ts$/.test(file) && !/ui\/(words|languages)\//.test(file))
	.map((file) => readFileSync(join(src, file), 'utf8'));
const sections = Object.entries(ENGLISH) as [keyof typeof ENGLISH, Messages][];
/** A message with a mark for each thing that it names. */
const marks = ['‹a›', '‹b›', '‹c›', '‹d›', '‹e›', '‹f›'];
const saidOf = (message: Messages[string]) =>
	typeof message === 'string' ? message : (message as (...said: string[]) => string)(...marks);
const namesOf = (message: Messages[string]) => marks.filter((mark) => saidOf(message).includes(mark));

test('every message is said somewhere, and nobody asks for one that is none', () => {
	for (const [name, messages] of sections) {
		const own = sources.filter((text) => text.includes(`'$ui/words/en/${name}'`)).join('\n');
		const asked = new Set([...own.matchAll(/\bwording\.(\w+)/g)].map(([, key]) => key));
		// Names of settings are looked up by their keys.
		if (['settings', 'help'].includes(name)) for (const [, key] of own.matchAll(/'(\w+)'/g)) asked.add(key);
		expect({ name, unsaid: Object.keys(firstOf(messages)).filter((key) => !asked.has(key)) }).toEqual({
			name,
			unsaid: []
		});
	}
});

test('each language has the same messages, and names the same in each', () => {
	expect(Object.keys(fr).sort()).toEqual(Object.keys(ENGLISH).sort());
	for (const [name, messages] of sections)
		for (const [key, message] of Object.entries(firstOf(messages))) {
			const other = (fr[name] as Messages)[key]!;
			expect({ name, key, names: namesOf(other) }).toEqual({ name, key, names: namesOf(message) });
			expect({ name, key, said: saidOf(other).trim() === '' }).toEqual({
				name,
				key,
				said: saidOf(message).trim() === ''
			});
		}
});

test('French is set as French is: its own quotation marks and apostrophes, and spaces that do not break', () => {
	for (const [name, messages] of Object.entries(fr))
		for (const [key, message] of Object.entries(messages as Messages)) {
			const said = saidOf(message);
			expect({ name, key, said, wrong: /\w'\w|“|”| [;!?:»]|« /.exec(said)?.[0] }).toMatchObject({
				...{ name, key },
				// What begins a value in markup keeps its marks as they are.
				wrong: name === 'setup' && key === 'withOne' ? '“' : undefined
			});
		}
});

test('a message is said in the language that is spoken when it is asked for', () => {
	const wording = section('parts', firstOf(ENGLISH.parts));
	const before = wording.close;
	expect([before, spoken(), counted(12345)]).toEqual(['Close', 'en-GB', '12,345']);
	learn('fr', fr);
	speak('fr');
	expect([wording.close, wording.pages(0, '0'), spoken()]).toEqual(['Fermer', '0 page', 'fr']);
	expect(counted(12345)).toBe('12\u202f345');
	expect(momentInWords('2026-12-01T10:00:00Z')).toMatch(/déc\. 2026/);
	expect(firstOf(wording).close).toBe('Close');
	// One that was never learned, and parts that a language lacks, are said in the first.
	speak('de');
	expect(wording.close).toBe('Close');
	learn('it', { parts: { close: 'Chiudi' } });
	speak('it');
	expect([wording.close, wording.more, ENGLISH.rooms.look]).toEqual(['Chiudi', 'More', 'Look']);
});

test('as many pages, in each language by its own rule', () => {
	const en = [0, 1, 2].map((count) => ENGLISH.parts.pages(count, count));
	expect(en).toEqual(['0 pages', '1 page', '2 pages']);
	expect([0, 1, 2].map((count) => fr.parts.pages(count, count))).toEqual(['0 page', '1 page', '2 pages']);
});

test('words for tests are half as long again, or run from right to left, and are known by their brackets', () => {
	expect(lengthened(' Keep all ')).toMatch(/^ ⟦Keep all.{3,}⟧ $/);
	expect(lengthened('×')).toBe('×');
	expect(lengthened('a'.repeat(100)).length).toBeGreaterThan(145);
	expect(mirrored('Keep')).toBe('⟦\u202eKeep\u202c⟧');
	expect(mirrored('→')).toBe('→');
	const pseudo = inPseudo(ENGLISH, 'en-XA').works as unknown as typeof ENGLISH.works;
	expect(pseudo.of(3, 7)).toMatch(/^⟦3 of 7/);
	expect(inPseudo(ENGLISH, 'ar-XB').parts!.close).toContain('\u202eClose');
});
