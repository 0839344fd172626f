import { afterEach, expect, test, vi } from 'vitest';
import { USUAL_COLUMNS } from './columns';
import { ColumnLayout, NARROWEST, WIDEST } from './layout.svelte';

/** Columns as somebody has set them. */
function memory(kept?: string) {
	const all = new Map(kept === undefined ? [] : [['k', kept]]);
	vi.stubGlobal('localStorage', {
		getItem: (key: string) => all.get(key) ?? null,
		setItem: (key: string, value: string) => void all.set(key, value)
	});
	return all;
}
afterEach(() => void vi.unstubAllGlobals());

test('come in the order of the address, the path first, those that are none and doubles left out', () => {
	expect(new ColumnLayout(['title', 'none', 'path', 'title', 'state']).shown).toEqual(['path', 'title', 'state']);
	expect(new ColumnLayout([]).shown).toEqual(['path']);
	expect(new ColumnLayout(USUAL_COLUMNS).shown).toEqual(USUAL_COLUMNS);
});
test('come, go and move; the path does neither', () => {
	const layout = new ColumnLayout(['path', 'title', 'state']);
	layout.toggle('path');
	layout.toggle('type');
	layout.toggle('title');
	layout.move('path', 1);
	layout.move('state', -1);
	layout.move('type', 1);
	layout.move('nothing', 1);
	expect(layout.shown).toEqual(['path', 'state', 'type']);
	layout.move('type', -1);
	expect(layout.columns.map(({ id }) => id)).toEqual(['path', 'type', 'state']);
});
test('are as wide as they were set, within reason, and remembered once that is done', () => {
	const all = memory();
	const layout = new ColumnLayout(['title', 'state'], 'k');
	layout.resize('title', 5000);
	layout.resize('state', -4);
	expect(all.size).toBe(0);
	layout.keep();
	const again = new ColumnLayout(['title', 'state'], 'k');
	again.recall();
	expect(again.columns.slice(1).map(({ width }) => width)).toEqual([WIDEST, NARROWEST]);
});
test.each(['', 'null', '[1]', '{', '{"title":"wide"}', '{"__proto__":7}'])('%j in the memory is nothing', (text) => {
	memory(text);
	const layout = new ColumnLayout(['title'], 'k');
	layout.recall();
	expect(layout.columns.map(({ id, width }) => [id, width])).toEqual([
		['path', 230],
		['title', 290]
	]);
});
test.each([
	['refuses', { getItem: () => refuse(), setItem: () => refuse() }],
	['is shut', undefined]
])('a memory that %s is none', (_, store) => {
	vi.stubGlobal('localStorage', store);
	const layout = new ColumnLayout(['title'], 'k');
	layout.recall();
	layout.resize('title', 100);
	expect(() => layout.keep()).not.toThrow();
	expect(layout.columns[1]!.width).toBe(100);
});
const refuse = () => {
	throw new Error('shut');
};
