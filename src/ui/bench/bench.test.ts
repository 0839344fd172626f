import { beforeEach, describe, expect, test, vi, type Mock } from 'vitest';
import { headToJson, Resolver, STARTING_LAYOUTS, type Page, type Site } from '$core';
import type { Pending } from '$server/web/pending';
import * as client from '$ui/client';
import { Bench } from '$ui/workspace/bench.svelte';
import type { BenchData } from '$ui/workspace/data';
import { keyOfSettings } from '$ui/workspace/edits';

vi.mock('$ui/client', async (original) => ({
	...(await original<typeof client>()),
	keep: vi.fn(),
	reach: vi.fn(),
	call: vi.fn(),
	release: vi.fn(),
	takeBack: vi.fn()
}));
const keep = vi.mocked(client.keep);
/** The bench asks a route by itself for what waits for a release alone. */
const pending = vi.mocked(client.call) as unknown as Mock<() => Promise<Pending>>;
const takeBack = vi.mocked(client.takeBack);

const site: Site = {
	name: 'Marl',
	base: 'https://marl.example/',
	languages: ['en'],
	separator: '·',
	fields: {},
	rules: [{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' }]
};
const page: Page = { path: '/pier', type: 'isle', state: 'live', fields: { title: 'The pier' }, rules: [] };
const data: BenchData = {
	site,
	types: [{ name: 'isle', fields: [{ name: 'tide', kind: 'text' }], rules: [] }],
	page,
	pictures: [],
	released: null,
	versions: [],
	count: { all: 3, live: 3, byType: { isle: 3 } }
};

let bench: Bench;
beforeEach(() => {
	vi.useFakeTimers();
	keep.mockReset().mockResolvedValue({ kind: 'kept' });
	vi.mocked(client.reach).mockReset().mockResolvedValue({
		under: 3,
		changed: 2,
		better: 0,
		worse: 1,
		leaving: 0,
		entering: 0,
		sayThemselves: 0,
		worst: []
	});
	const none = { release: null, changed: 0, added: 0, removed: 0, paths: [], unseen: 0, all: 3 };
	pending.mockReset().mockResolvedValue(none);
	takeBack.mockReset().mockResolvedValue({ revision: 2, taken: 1, of: { kind: 'rule', what: {} } });
	bench = new Bench('Marl', data);
});
const title = () => bench.line?.value;
const write = (text: string, layer: 'page' | 'type' | 'site' = 'type') => bench.write(layer, text);

describe('a draft', () => {
	test('shows in the head and the cards at once, and is gone when it is as it was kept', () => {
		write('{page.title} again');
		expect(title()).toBe('The pier again');
		expect(bench.working.cards[0]!.title.shown).toBe('The pier again');
		expect(bench.drafts.waiting).toBe(1);
		write('');
		expect(bench.drafts.waiting).toBe(0);
		expect(title()).toBe('The pier · Marl');
	});
	test('tells its reach after a pause, anew for each keystroke', async () => {
		write('a');
		write('ab');
		await vi.advanceTimersByTimeAsync(500);
		expect(client.reach).toHaveBeenCalledTimes(1);
		expect(bench.draftAt('type')?.reach).toMatchObject({ changed: 2, worse: 1 });
	});
	test('counting can be stopped; the draft stays', async () => {
		vi.mocked(client.reach).mockImplementation(async (_site, _edit, _signal, progress) => {
			progress?.(500, 10_000);
			return new Promise(() => undefined);
		});
		write('a');
		await vi.advanceTimersByTimeAsync(500);
		expect(bench.draftAt('type')?.reach).toEqual({ seen: 500, all: 10_000 });
		bench.drafts.stopCounting(bench.keyAt('type'));
		expect(bench.draftAt('type')?.reach).toBe('stopped');
		expect(title()).toBe('a');
	});
	test('with an error is not kept', async () => {
		write('{page.nothing}');
		expect(bench.issuesOf('type', bench.bodyAt('type'))[0]?.message).toContain('Unknown variable');
		await bench.keepAt('type');
		expect(keep).not.toHaveBeenCalled();
	});
	test('of one page tells its reach by itself and is kept by itself after a rest', async () => {
		write('Mine', 'page');
		expect(bench.draftAt('page')?.reach).toMatchObject({ changed: 1 });
		await vi.advanceTimersByTimeAsync(1000);
		expect(keep).not.toHaveBeenCalled();
		await vi.advanceTimersByTimeAsync(1000);
		expect(keep).toHaveBeenCalledTimes(1);
		expect(bench.drafts.waiting).toBe(0);
		expect(title()).toBe('Mine');
	});
});

describe('keeping', () => {
	test('sends what stood there before, so that a change elsewhere is seen', async () => {
		write('a', 'site');
		await bench.keepAt('site');
		const [, edit, expected] = keep.mock.calls[0]!;
		expect(edit).toMatchObject({ place: { layer: 'site' }, tag: 'title', body: { kind: 'template', template: 'a' } });
		expect(expected).toEqual({ kind: 'template', template: '{page.title} {separator} {site.name}' });
	});
	test('what is refused stays a draft with the reason', async () => {
		keep.mockResolvedValue({ kind: 'refused', why: 'Kephalon does not answer.' });
		write('a');
		await bench.keepAt('type');
		expect(bench.draftAt('type')).toMatchObject({ text: 'a', refused: 'Kephalon does not answer.' });
		expect(bench.drafts.saving).toBe('failed');
		bench.discardAt('type');
		expect(bench.drafts.saving).toBe('idle');
	});
	test('what was typed on the way stays a draft on top of what was kept', async () => {
		keep.mockImplementation(async () => {
			write('ab');
			return { kind: 'kept' };
		});
		write('a');
		await bench.keepAt('type');
		expect(bench.draftAt('type')?.text).toBe('ab');
		expect(bench.draftAt('type')?.base).toEqual({ kind: 'template', template: 'a' });
	});
	test('a conflict keeps both; one’s own goes over the other only when asked', async () => {
		const theirs = { kind: 'template', template: 'theirs' };
		keep.mockResolvedValueOnce({ kind: 'conflict', current: theirs });
		write('mine');
		await bench.keepAt('type');
		expect(bench.draftAt('type')?.conflict).toEqual({ current: theirs });
		await bench.keepAt('type');
		expect(keep).toHaveBeenCalledTimes(1);
		await bench.drafts.overrule(bench.keyAt('type'));
		expect(keep.mock.calls[1]![2]).toEqual(theirs);
		expect(bench.drafts.waiting).toBe(0);
	});
	test('a change elsewhere is found when newer data comes, and only where it touches a draft', () => {
		write('mine');
		bench.change('site', { separator: '|' });
		bench.data = { ...data, types: [{ ...data.types[0]!, rules: [{ tag: 'title', kind: 'leaveOut' }] }] };
		bench.drafts.findConflicts();
		expect(bench.draftAt('type')?.conflict).toEqual({ current: { kind: 'leaveOut' } });
		expect(bench.drafts.all[keyOfSettings({ layer: 'site' })]?.conflict).toBeUndefined();
	});
});

describe('taking back', () => {
	test('the last edit is taken back where it is kept, and the bench reads what stands there then', async () => {
		const reload = vi.fn(() => Promise.resolve());
		const told = vi.fn();
		bench = new Bench('Marl', data, told, reload);
		await bench.history.undo();
		expect(takeBack).toHaveBeenLastCalledWith('Marl', 'last', expect.objectContaining({ removes: undefined }));
		await bench.history.redo();
		expect(takeBack).toHaveBeenLastCalledWith('Marl', 'again', expect.objectContaining({ removes: undefined }));
		expect(reload).toHaveBeenCalledTimes(2);
		expect(told).toHaveBeenCalledTimes(2);
	});
	test('what cannot be taken back is told', async () => {
		takeBack.mockResolvedValueOnce({ refused: 'It stays: what it changed was changed again.' });
		await bench.history.undo();
		expect(bench.message).toContain('changed again');
	});
	test('the comparison is asked for again while pages are yet to be looked at', async () => {
		const answer = { release: null, changed: 0, added: 0, removed: 0, paths: [], all: 9 };
		pending.mockResolvedValueOnce({ ...answer, unseen: 4 }).mockResolvedValueOnce({ ...answer, unseen: 0 });
		await bench.release.refresh();
		expect(bench.release.pending?.unseen).toBe(0);
		expect(pending).toHaveBeenCalledTimes(2);
	});
});

describe('what the bench offers', () => {
	test('variables with the value each has here, the type’s own among them', () => {
		const offered = bench.variablesFor('type');
		expect(offered.find(({ name }) => name === 'page.title')?.value).toBe('The pier');
		expect(offered.find(({ name }) => name === 'page.tide')?.value).toBe('');
		expect(offered.find(({ name }) => name === 'site.name')?.value).toBe('Marl');
	});
	test('a release is told with its number, and what is released stands beside what is not', async () => {
		const counts = { pages: 1, changed: 1, added: 0, removed: 0 };
		const said = { id: 4, created: '2026-05-01T10:00:00.000Z', revision: 9, note: '', author: 'ada' };
		vi.mocked(client.release).mockResolvedValue({ ...counts, ...said, number: 4, faulty: [] });
		// What went out is read back, not rendered again here.
		const released = { tags: [{ tag: 'title', value: 'The pier · Marl' }] } as unknown as BenchData['released'];
		bench = new Bench('Marl', data, undefined, () => Promise.resolve(void (bench.data = { ...bench.data, released })));
		await bench.makeRelease();
		expect(bench.message).toBe('Release 4 is out: 1 page.');
		write('New');
		expect(bench.line).toMatchObject({ value: 'New', released: 'The pier · Marl', isChanged: true });
	});
	test('drafts put down earlier are taken up, as conflicts where the ground has changed', () => {
		write('mine');
		const drafts = JSON.parse(JSON.stringify(bench.drafts.all)) as typeof bench.drafts.all;
		const again = new Bench('Marl', data);
		again.drafts.takeUp(drafts);
		expect(again.draftAt('type')).toMatchObject({ text: 'mine', conflict: undefined });
		const later = new Bench('Marl', {
			...data,
			types: [{ ...data.types[0]!, rules: [{ tag: 'title', kind: 'leaveOut' }] }]
		});
		later.drafts.takeUp(drafts);
		expect(later.draftAt('type')?.conflict).toEqual({ current: { kind: 'leaveOut' } });
	});
});

describe('pictures', () => {
	const HASH = 'a'.repeat(24);
	const withBoat: BenchData = {
		...data,
		page: { ...page, fields: { title: 'The pier', picture: '/boat.jpg' } },
		pictures: [
			{ src: '/boat.jpg', width: 1600, height: 900, kept: { file: `${HASH}.jpg`, width: 1600, height: 900 } },
			{ src: '/other.jpg', width: 1600, height: 900 }
		]
	};
	const image = () => bench.working.head.tags.find(({ tag }) => tag.name === 'og:image')?.value;
	beforeEach(() => {
		bench.data = withBoat;
		bench.tag = 'og:image';
	});

	test('a point that is moved is seen at once, and its reach is counted', async () => {
		bench.propose('site', { kind: 'pictures', sources: [{ from: 'lead' }], shapes: ['wide'] });
		await bench.keepAt('site');
		expect(image()).toContain('-wide-500-500.jpg');
		bench.changePicture('/boat.jpg', { focus: [0.2, 0.4] });
		expect(image()).toContain('-wide-200-400.jpg');
		await vi.advanceTimersByTimeAsync(500);
		const key = keyOfSettings({ layer: 'picture', src: '/boat.jpg' });
		expect(bench.drafts.all[key]?.reach).toMatchObject({ changed: 2 });
		await bench.drafts.keep(key);
		expect(keep.mock.lastCall?.[2]).toEqual({ focus: null });
		expect(bench.drafts.waiting).toBe(0);
	});
	test('moved back to where it was is no draft', () => {
		bench.changePicture('/boat.jpg', { alt: 'A boat' });
		expect(bench.drafts.waiting).toBe(1);
		bench.changePicture('/boat.jpg', { alt: null });
		expect(bench.drafts.waiting).toBe(0);
	});
	test('the share picture is put first and once, and waits to be kept', () => {
		const layout = STARTING_LAYOUTS[2]!.layout;
		bench.change('type', { layout });
		expect(bench.working.asksForShare).toBe(false);
		bench.useShare();
		bench.useShare();
		expect(bench.working.asksForShare).toBe(true);
		expect(bench.bodyAt('type')).toMatchObject({
			sources: [{ from: 'composed' }, { from: 'lead' }, { from: 'body' }, { from: 'type' }, { from: 'site' }]
		});
		expect(image()).toMatch(/\/media\/share-[0-9a-f]{24}\.jpg$/);
		expect(keep).not.toHaveBeenCalled();
	});
	test('what can be studied is the picture itself, also when a share picture is drawn with it', () => {
		expect(bench.pictureSource).toBe('/boat.jpg');
		bench.change('type', { layout: STARTING_LAYOUTS[0]!.layout });
		bench.useShare();
		expect(bench.picture?.recipe).toBeDefined();
		expect(bench.pictureSource).toBe('/boat.jpg');
	});
});

describe('where the server writes otherwise than this browser', () => {
	const kept = headToJson(new Resolver({ site, types: data.types, pictures: [] }, 'now').resolveHead(page));
	test('the tag says so; alike, and after an edit was kept, nothing does', async () => {
		const server = { now: 'now', head: kept };
		expect(new Bench('Marl', { ...data, server }).working.serverWrites.size).toBe(0);
		const tags = kept.tags.map((tag) => (tag.tag === 'title' ? { ...tag, value: '¤ 5' } : tag));
		bench = new Bench('Marl', { ...data, server: { ...server, head: { ...kept, tags } } });
		expect([...bench.working.serverWrites]).toEqual([['title', '¤ 5']]);
		bench.write('page', 'Mine');
		await bench.keepAt('page');
		expect(bench.working.serverWrites.size).toBe(0);
	});
});

describe('found values', () => {
	test('one is taken over as it stands, also where it looks like a template', () => {
		bench.tag = 'description';
		bench.takeFound('a {b} [[c]] \\d');
		expect(bench.bodyAt('page')).toEqual({ kind: 'template', template: 'a \\{b\\} \\[[c\\]] \\\\d' });
		expect(bench.lines.find(({ tag }) => tag === 'description')?.value).toBe('a {b} [[c]] \\d');
	});
	test('a policy for one tag leaves the others, and goes when it is taken back', () => {
		bench.data = { ...data, page: { ...page, foundPolicy: { all: 'last', tags: { author: 'never' } } } };
		bench.tag = 'description';
		bench.setFoundPolicy('page', 'never');
		expect(bench.working.page.foundPolicy).toEqual({ all: 'last', tags: { author: 'never', description: 'never' } });
		bench.setFoundPolicy('page', null);
		expect(bench.working.page.foundPolicy).toEqual({ all: 'last', tags: { author: 'never' } });
	});
	test('the rule of a layer is let win there, never at a page', () => {
		bench.tag = 'description';
		bench.letWin({ layer: 'page', path: page.path });
		expect(bench.drafts.waiting).toBe(0);
		bench.letWin({ layer: 'type', name: 'isle' });
		expect(bench.working.type?.foundPolicy).toEqual({ tags: { description: 'last' } });
	});
});
