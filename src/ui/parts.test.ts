import { describe, expect, test } from 'vitest';
import { Resolver, headToJson, type Page } from '$core';
import { keyOf } from './keys';
import { groupOf, linesOf } from './lines';
import { snippetOf, SNIPPETS } from './snippets';

const resolver = new Resolver(
	{
		site: { name: 'Marl', base: 'https://marl.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		types: [],
		pictures: [{ src: '/a.jpg', width: 1200, height: 630, type: 'image/jpeg', alt: 'A pier' }]
	},
	''
);
const page: Page = { path: '/a', type: '', state: 'live', fields: { title: 'A & B', picture: '/a.jpg' }, rules: [] };

describe('the lines of a head', () => {
	const { head, traces } = resolver.resolveWithTrace(page);
	test('what differs from the release is marked, what only repeats is told so', () => {
		const before = headToJson(resolver.resolveHead({ ...page, fields: { title: 'Old' } }));
		const lines = new Map(linesOf(head, traces, before, ['description']).map((line) => [line.tag, line]));
		expect(lines.get('title')).toMatchObject({ value: 'A & B', released: 'Old', isChanged: true, layer: 'built-in' });
		expect(lines.get('canonical')).toMatchObject({ isChanged: false });
		expect(lines.get('og:image')).toMatchObject({ released: undefined, facts: '1200 × 630, jpeg, A pier' });
		expect(lines.get('twitter:title')).toMatchObject({ echoes: 'og:title' });
		expect(lines.get('description')).toMatchObject({ value: '' });
		expect(lines.has('author')).toBe(false);
	});
	test('without a release nothing differs', () => {
		expect(linesOf(head, traces, null, []).some((line) => line.isChanged)).toBe(false);
	});
	test.each([
		['title', 'search'],
		['robots', 'search'],
		['icon', 'more'],
		['og:title', 'og'],
		['twitter:card', 'twitter'],
		['meta:proof', 'more']
	])('%s belongs to %s', (tag, group) => {
		expect(groupOf(tag)).toBe(group);
	});
});

describe('snippets', () => {
	test.each(SNIPPETS)('$name: a place for each value, none of the values', ({ kind }) => {
		const snippet = snippetOf(kind, resolver.resolveHead(page));
		expect(snippet).toContain(`head['og:title']`);
		expect(snippet).not.toContain('A &');
		expect(snippet.match(/og:image"/g)).toHaveLength(1);
	});
	test('a repeated tag stands once', () => {
		const rules = [
			{ tag: 'og:image', kind: 'pictures', count: 2, sources: [{ from: 'lead' }, { from: 'file', src: '/b.jpg' }] }
		] as const;
		const snippet = snippetOf('curly', resolver.resolveHead({ ...page, rules: rules as never }));
		expect(snippet.split('\n').filter((line) => line.includes('"og:image"'))).toHaveLength(1);
	});
});

describe('keys', () => {
	const press = (code: string, more: Partial<KeyboardEvent> = {}) =>
		keyOf({
			code,
			key: code,
			altKey: false,
			ctrlKey: false,
			metaKey: false,
			shiftKey: false,
			target: null,
			...more
		} as KeyboardEvent);
	test.each([
		['ArrowRight', { altKey: true }, 'next'],
		['Digit2', { altKey: true, key: '²' }, 'type'],
		['KeyH', { altKey: true, key: '˙' }, 'hard'],
		['KeyK', { ctrlKey: true, key: 'k' }, 'palette'],
		['KeyK', { metaKey: true, key: 'k' }, 'palette'],
		['KeyZ', { ctrlKey: true, key: 'z' }, 'undo'],
		['KeyZ', { ctrlKey: true, shiftKey: true, key: 'Z' }, 'redo'],
		['KeyY', { ctrlKey: true, key: 'y' }, 'redo'],
		['Slash', { shiftKey: true, key: '?' }, 'keys'],
		['ArrowRight', {}, undefined],
		['KeyZ', { ctrlKey: true, altKey: true, key: 'z' }, undefined],
		['KeyX', { ctrlKey: true, key: 'x' }, undefined]
	])('%s with %j is %s', (code, more, id) => {
		expect(press(code, more)).toBe(id);
	});
});
