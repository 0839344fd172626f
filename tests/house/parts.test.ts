import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';

/** What has a part of ours is not made by hand beside it: selects, disclosures, tips. */
const FORBIDDEN: readonly (readonly [what: string, found: RegExp, instead: string])[] = [
	['a native select', /<(select|option)\b/, 'parts/select/Select.svelte'],
	['a native disclosure', /<(details|summary)\b/, 'parts/shown/Disclosure.svelte'],
	['a title of an element', /<[a-z][\w-]*(?:\s+[^<>]*?)?\stitle=/, 'data-tip'],
	[
		'an element that is a tab or a menu by its role alone',
		/role="(tab|tablist|menu|menuitem|radiogroup|listbox|switch)"/,
		'Bits UI'
	]
];
const wrongIn = (text: string) => FORBIDDEN.filter(([, found]) => found.test(text)).map(([what]) => what);

describe('the interface', () => {
	const src = fileURLToPath(new URL('../../src', import.meta.url));
	const files = readdirSync(src, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.svelte'));
	test('has one set of parts, and nothing made by hand beside them', () => {
		expect(files.length).toBeGreaterThan(100);
		const wrong = files.flatMap((file) => {
			// What a field offers while one types is the field's own.
			const text = readFileSync(join(src, file), 'utf8').replaceAll(/<datalist[\s\S]*?<\/datalist/g, '');
			return wrongIn(text).map((what) => `${file}: ${what}`);
		});
		expect(wrong).toEqual([]);
	});
	test.each([
		['<select value={a}>', 'a native select'],
		['<details open>', 'a native disclosure'],
		['<span\n\tclass="x"\n\ttitle="Words">', 'a title of an element'],
		['<div role="tablist">', 'an element that is a tab or a menu by its role alone']
	])('%j would be told', (text, what) => {
		expect(wrongIn(text)).toEqual([what]);
	});
	test('what a part is called by is no title of an element', () => {
		expect(wrongIn('<Sheet bind:open title="A sheet"> <Select choices={a} />')).toEqual([]);
	});
});
