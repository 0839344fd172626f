import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, test } from 'vitest';
import type { FieldValue } from '$core';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { changeMany, readBatch, sampleOfBatch, type BatchAction } from './batch';
import { takeBack } from './takeBack';

/** Fields of many pages, written and mended as one edit. */
const folder = mkdtempSync(join(tmpdir(), 'kephalon-batch-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let [store, made, id] = [undefined as unknown as Store, 0, 0];
beforeEach(() => {
	store = new Store(join(folder, `${++made}.db`));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
		rules: [{ tag: 'description', kind: 'template', template: '{page.summary}, {page.price}' }]
	});
	store.working.types.save(id, { name: 'note', fields: [{ name: 'price', kind: 'number' }], rules: [] });
	for (const [path, fields] of [
		['/', { title: 'Home', summary: 'Art for a party' }],
		['/a', { title: 'A', summary: 'The art of art', price: 3 }],
		['/b', { title: 'B' }]
	] as const)
		store.working.pages.save(id, { path, type: 'note', state: 'live', fields, rules: [] });
});
const pages = { paths: ['/', '/a', '/b'] };
const read = (action: object) => readBatch({ pages, action }).action;
const run = (action: object) => changeMany(store, 'S', pages, read(action), 'pages');
const field = (name: string) => pages.paths.map((path) => store.working.pages.at(id, path)!.fields[name]);
const held = () => pages.paths.map((path) => store.working.pages.at(id, path)!.held);

describe('a field', () => {
	test('is written on all, held from then on, and taken back as one', () => {
		const { result, edit } = run({ do: 'field', name: 'price', value: 3 });
		expect([result, field('price'), held()]).toEqual([2, [3, 3, 3], [['price'], undefined, ['price']]]);
		takeBack(store, 'S', edit!, 'pages');
		expect([field('price'), held()]).toEqual([
			[undefined, 3, undefined],
			[undefined, undefined, undefined]
		]);
	});
	test.each<[FieldValue]>([[null], ['']])('is emptied by %j', (value) => {
		expect(run({ do: 'field', name: 'summary', value }).result).toBe(2);
		expect([field('summary'), held()]).toEqual([
			[undefined, undefined, undefined],
			[['summary'], ['summary'], undefined]
		]);
	});
	test('all that a filter means, without some', () => {
		const some = { filter: {}, without: ['/a'] };
		const action = read({ do: 'field', name: 'price', value: 9 });
		JOBS.refresh({ db: store.file, site: 'S' }, () => undefined);
		expect(sampleOfBatch(store, 'S', some, action)).toMatchObject({ pages: 2, changed: 2 });
		expect(changeMany(store, 'S', some, action, 'pages').result).toBe(2);
		expect(field('price')).toEqual([9, 3, 9]);
		expect(() => readBatch({ pages: { filter: {}, without: [1] }, action })).toThrow();
	});
	test('that no page can have is refused', () => {
		expect(() => read({ do: 'field', name: 'price', value: { odd: 1 } })).toThrow(/fields/);
		expect(() => read({ do: 'field', value: 1 })).toThrow(/name/);
		expect(() => read({ do: 'replaceInField', name: 'summary', find: '', by: 'x' })).toThrow(/words/);
	});
	test('its words are replaced, whole ones alone where that is said; what is no text stays', () => {
		expect(run({ do: 'replaceInField', name: 'summary', find: 'art', by: 'craft', whole: true }).result).toBe(1);
		expect(field('summary')).toEqual(['Art for a party', 'The craft of craft', undefined]);
		expect(run({ do: 'replaceInField', name: 'summary', find: 'art', by: 'x' }).result).toBe(1);
		expect(field('summary')[0]).toBe('Art for a pxy');
		expect(run({ do: 'replaceInField', name: 'price', find: '3', by: '4' }).result).toBe(0);
	});
	test('is tried first: what it says before and after, and what that makes better or worse', () => {
		const tried = (action: BatchAction) => sampleOfBatch(store, 'S', pages, action);
		const { changed, sample } = tried(read({ do: 'field', name: 'price', value: 3 }));
		expect([changed, sample.map(({ path, tag, before, after }) => [path, tag, before, after])]).toEqual([
			2,
			[
				['/', 'price', '', '3'],
				['/b', 'price', '', '3']
			]
		]);
		expect(tried(read({ do: 'replaceInField', name: 'summary', find: 'The', by: 'Some' })).sample).toMatchObject([
			{ path: '/a', before: 'The art of art', after: 'Some art of art' }
		]);
		expect(held()).toEqual([undefined, undefined, undefined]);
	});
});
