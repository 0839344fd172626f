import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import type { FoundTag, Page } from '$core';
import { Store } from '../store/store';
import { measureQuality } from './quality';

const folder = mkdtempSync(join(tmpdir(), 'kephalon-quality-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const LONG = 'A sentence that is long enough to say what the page is about, and no more than that.';

test('how good what came in is, and what becomes of what pages say themselves', () => {
	const store = new Store(join(folder, 'k.db'));
	const id = store.working.sites.save({
		...{ name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {} },
		rules: [{ tag: 'author', kind: 'template', template: 'The trust' }],
		frames: [{ tag: 'description', value: 'Welcome', language: 'en', pages: 40 }]
	});
	store.working.types.ensure(id, 'page');
	store.pictures.save(id, [{ src: '/p.jpg', width: 900, height: 600 }]);
	const page = (path: string, fields: Page['fields'], found: readonly FoundTag[] = [], more: Partial<Page> = {}) =>
		store.working.pages.save(id, {
			path,
			type: 'page',
			state: 'live',
			rules: [],
			fields,
			...(found.length && { found }),
			...more
		});
	const said = (name: string, value: string): FoundTag => ({ name, value });
	page('/own', { title: 'Own', summary: LONG }, [
		said('description', 'What its author wrote of it, in a sentence of some length.'),
		said('author', 'Ada')
	]);
	page('/frame', { title: 'Same', summary: `${LONG} Two.` }, [
		said('description', 'Welcome'),
		said('og:url', 'javascript:x')
	]);
	page('/again', { title: 'Same', summary: 'Figure 6.1' }, [said('description', 'Same')]);
	page('/ruled', { title: 'Ruled' }, [said('description', 'Found')], {
		rules: [{ tag: 'description', kind: 'template', template: 'A rule of the page' }]
	});
	page('/aside', { title: 'Suppression', picture: { src: '/p.jpg' } }, [said('description', 'Found')], {
		foundPolicy: { all: 'never' },
		language: 'und'
	});
	page('/draft', { title: 'Draft' }, [said('description', 'Found')], { state: 'draft' });
	const quality = measureQuality(store, 'S');
	expect(quality.pages).toBe(5);
	expect(quality.found).toEqual({
		description: { pages: 5, taken: 1, frame: 2, replaced: 1, aside: 1 },
		author: { pages: 1, taken: 1, frame: 0, replaced: 0, aside: 0 },
		'og:url': { pages: 1, taken: 0, frame: 0, replaced: 0, aside: 1 }
	});
	const shares = Object.fromEntries(
		Object.entries(quality).flatMap(([kind, share]) =>
			typeof share === 'object' && 'share' in share ? [[kind, share.pages]] : []
		)
	);
	expect(shares).toEqual({
		descriptionOwn: 1,
		descriptionFromProse: 2,
		descriptionByRule: 1,
		descriptionNone: 1,
		descriptionShort: 2,
		descriptionCaption: 1,
		descriptionShared: 0,
		titleDoubled: 2,
		// Nothing says it: they are taken for the site's.
		languageKnown: 0,
		languageAssumed: 4,
		languageUnknown: 1,
		pictureOwn: 1,
		pictureShared: 0,
		pictureNone: 4
	});
	expect(quality.titleDoubled.oddest.map(({ path }) => path).sort()).toEqual(['/again', '/frame']);
	// The shortest first: what is odd about a text shows there.
	for (const { oddest } of [quality.descriptionFromProse, quality.descriptionShort, quality.titleDoubled]) {
		const lengths = oddest.map(({ text }) => text.length);
		expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
		expect(lengths.length).toBe(2);
	}
	expect(quality.descriptionOwn.share).toBeCloseTo(0.2);
	store.close();
});
