import fc from 'fast-check';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { keepSettings, readSettingsEdit } from '../edits/settings';
import { takeBack } from '../edits/takeBack';
import { Store } from '../store/store';
import type { PushTold } from '../progress';
import { linesOfFile, pushPages } from './push';

/** Pages that programs send: each line by itself, what people wrote stays, and sent again nothing changes. */
let folder = '';
let store: Store;
let id = 0;
beforeEach(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-push-'));
	store = new Store(join(folder, 'p.db'));
	id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	});
	store.working.types.save(id, { name: 'page', fields: [], rules: [] });
	store.working.types.save(id, {
		...{ name: 'boat', fields: [{ name: 'harbour', kind: 'text' }], rules: [] },
		mapping: { title: '/offer/name', harbour: '$.lies.at', species: '$.seen[*].bird' }
	});
});
afterEach(() => {
	store.close();
	rmSync(folder, { recursive: true, force: true });
});

const at = (path: string) => store.working.pages.at(id, path);
function push(lines: readonly unknown[], source = 'boats') {
	const told: PushTold[] = [];
	const done = pushPages(store, 'S', source, lines, (one) => told.push(one));
	return { done, told };
}
const boat = (fields: object, more: object = {}) => ({ path: '/boats/7', type: 'boat', fields, ...more });

describe('a page', () => {
	test('is made, left as it is when sent again, changed, and taken away', () => {
		expect(push([boat({ title: 'Tern', harbour: 'Long Strand' })]).told).toEqual([
			{ line: 1, path: '/boats/7', is: 'made' }
		]);
		expect(at('/boats/7')).toMatchObject({
			type: 'boat',
			state: 'live',
			fields: { title: 'Tern', harbour: 'Long Strand' }
		});
		const { revision } = store.working.sites.named('S');
		const again = push([boat({ title: 'Tern', harbour: 'Long Strand' })]);
		expect(again.told).toEqual([{ line: 1, path: '/boats/7', is: 'same' }]);
		expect(again.done).toMatchObject({ same: 1, revision });
		expect(again.done.edit).toBeUndefined();
		expect(push([boat({ title: 'Tern II', harbour: 'Long Strand' })]).told[0]).toMatchObject({ is: 'changed' });
		expect(push([{ path: '/boats/7', gone: true }]).told[0]).toMatchObject({ is: 'gone' });
		expect(at('/boats/7')).toBeUndefined();
	});

	test('what is no longer sent is told apart from what is sent empty', () => {
		push([boat({ title: 'Tern', harbour: 'Long Strand', summary: 'A boat.' })]);
		expect(push([boat({ title: 'Tern', summary: '' })]).told).toEqual([
			{ line: 1, path: '/boats/7', is: 'changed', left: ['harbour'], emptied: ['summary'] }
		]);
		expect(at('/boats/7')?.fields).toEqual({ title: 'Tern', summary: '' });
		expect(push([boat({ title: 'Tern', summary: null })]).told[0]).toMatchObject({ emptied: ['summary'] });
		expect(at('/boats/7')?.fields).toEqual({ title: 'Tern' });
	});

	test('what somebody wrote here stays, with rules and state; it is told', () => {
		push([boat({ title: 'Tern', summary: 'As sent.' })]);
		keepSettings(
			store,
			'S',
			readSettingsEdit({
				place: { layer: 'page', path: '/boats/7' },
				changes: { fields: { title: 'Tern', summary: 'As written.' }, held: ['summary'], state: 'draft' }
			}),
			'bench'
		);
		expect(push([boat({ title: 'Tern', summary: 'As sent anew.' }, { state: 'live' })]).told).toEqual([
			{ line: 1, path: '/boats/7', is: 'same', held: ['state', 'summary'] }
		]);
		expect(at('/boats/7')).toMatchObject({ state: 'draft', fields: { summary: 'As written.' } });
	});

	test('fields of another source stay, and each source is told of the other', () => {
		push([boat({ title: 'Tern' })]);
		expect(push([{ path: '/boats/7', fields: { price: 7 } }], 'shop').told[0]).toMatchObject({
			...{ is: 'changed', otherSource: 'boats' }
		});
		expect(at('/boats/7')?.fields).toEqual({ title: 'Tern', price: 7 });
	});

	test('a record is read by the mapping of its type; what it does not have is no field', () => {
		const record = { offer: { name: 'Tern' }, seen: [{ bird: 'Avocet' }, { bird: 'Redshank' }], lies: null };
		push([{ path: '/boats/8', type: 'boat', record }]);
		expect(at('/boats/8')?.fields).toEqual({ title: 'Tern', species: ['Avocet', 'Redshank'] });
		expect(push([{ path: '/x', record }]).told[0]).toMatchObject({ is: 'refused', code: 'mapping-missing' });
	});

	test('the body is kept, left, and goes as any field', () => {
		push([boat({ title: 'Tern', body: '<p>Long</p>' })]);
		expect(push([boat({ title: 'Tern', body: '<p>Long</p>' })]).told[0]).toMatchObject({ is: 'same' });
		expect(push([boat({ title: 'Tern' })]).told[0]).toMatchObject({ is: 'changed', left: ['body'] });
		expect(at('/boats/7')?.fields.body).toBeUndefined();
	});
});

test('a line that cannot be taken is refused by itself, with why; the others go in', () => {
	const file = join(folder, 'lines');
	store.db.prepare(`DELETE FROM content_type WHERE name = 'page'`).run();
	writeFileSync(
		file,
		[
			'{"path":"/a","type":"boat","fields":{"title":"A"}}',
			'',
			'{"path":"/b"',
			'{"path":"no slash"}',
			'{"path":"/c","colour":"red"}',
			'{"path":"/d","type":"none"}',
			'{"path":"/e","language":"no language"}',
			'{"path":"/f","modified":"yesterday"}',
			'{"path":"/nobody","gone":true}',
			'[1]',
			'{"path":"/typeless"}',
			'{"path":"/g","type":"boat","fields":{"title":"G"}}'
		].join('\n')
	);
	const told: PushTold[] = [];
	const done = pushPages(store, 'S', 'boats', linesOfFile(file), (one) => told.push(one));
	expect(told.map(({ line, is, code = '' }) => `${line} ${is} ${code}`.trim())).toEqual([
		...[
			'1 made',
			'3 refused pushed-broken',
			'4 refused path-broken',
			'5 refused pushed-broken',
			'6 refused type-missing'
		],
		...[
			'7 refused language-broken',
			'8 refused pushed-broken',
			'9 refused page-missing',
			'10 refused pushed-broken',
			'11 refused type-missing',
			'12 made'
		]
	]);
	expect(done).toMatchObject({ made: 2, notTaken: 9 });
	expect(done.faults).toHaveLength(9);
});

test('lines are counted as the file has them, with a byte order mark and Windows’ line ends', () => {
	const file = join(folder, 'lines');
	writeFileSync(file, '\ufeff{"path":"/a"}\r\n\r\n\r\n{"path":"b"}\r\n{"path":"/é"}');
	const told: PushTold[] = [];
	pushPages(store, 'S', 'boats', linesOfFile(file), (one) => told.push(one));
	expect(told.map(({ line, path, is }) => [line, path, is])).toEqual([
		[1, '/a', 'made'],
		[4, undefined, 'refused'],
		[5, '/é', 'made']
	]);
});

test('what is not UTF-8 is refused whole: no letter is lost unseen', () => {
	const file = join(folder, 'lines');
	writeFileSync(
		file,
		Buffer.concat([
			Buffer.from('{"path":"/a"}\n{"path":"/b","fields":{"title":"'),
			Buffer.from([0xe9]),
			Buffer.from('"}}\n')
		])
	);
	expect(() => pushPages(store, 'S', 'boats', linesOfFile(file))).toThrow(/not UTF-8/);
	expect(at('/a')).toBeUndefined();
});

test('what stays though something else is sent is named: state and versions, and sent again it is the same', () => {
	push([boat({ title: 'Tern' }, { alternates: { fr: '/fr/7' } })]);
	const { state, alternates } = at('/boats/7')!;
	expect([state, alternates]).toEqual(['live', { fr: '/fr/7' }]);
	expect(push([boat({ title: 'Tern' }, { alternates: { fr: '/fr/7' } })]).told[0]).toMatchObject({ is: 'same' });
	const other = { state: 'draft', alternates: { fr: '/fr/other' } };
	expect(push([boat({ title: 'Tern' }, other)]).told).toEqual([
		{ line: 1, path: '/boats/7', is: 'same', held: ['state', 'alternates'] }
	]);
	expect(at('/boats/7')).toMatchObject({ state, alternates });
	expect(push([boat({ title: 'Tern' }, { alternates: { de: '/de/7' } })]).told[0]).toMatchObject({ is: 'changed' });
	expect(at('/boats/7')?.alternates).toEqual({ fr: '/fr/7', de: '/de/7' });
});

test('all of it is one edit, taken back as one; what was pushed then can be sent again', () => {
	push([boat({ title: 'Tern' }), { path: '/a', fields: { title: 'A' } }]);
	takeBack(store, 'S', 'last', 'bench');
	expect([at('/boats/7'), at('/a')]).toEqual([undefined, undefined]);
	expect(push([boat({ title: 'Tern' })]).told[0]).toMatchObject({ is: 'made' });
});

test('any fields sent twice change nothing the second time, and stand as they were sent', () => {
	const value = fc.oneof(
		fc.string({ maxLength: 20 }),
		fc.integer(),
		fc.boolean(),
		fc.constant(null),
		fc.array(fc.string({ maxLength: 8 }), { maxLength: 3 })
	);
	const name = fc.stringMatching(/^[a-z]{1,8}$/);
	fc.assert(
		fc.property(
			fc.dictionary(name, value, { maxKeys: 5 }),
			fc.dictionary(name, value, { maxKeys: 5 }),
			(first, then) => {
				push([boat(first)]);
				push([boat(then)]);
				const sent = Object.fromEntries(Object.entries(then).filter(([, one]) => one !== null));
				expect(at('/boats/7')?.fields).toEqual(sent);
				expect(push([boat(then)]).told[0]).toMatchObject({ is: 'same' });
			}
		),
		{ numRuns: 60 }
	);
});
