import { expect, test } from 'vitest';
import { finding } from '$core';
import { answeredIn } from '../speaking';
import { groupInWords, type FoundGroup } from './groups';

const gap = finding('gap', { of: 'page', path: '/a' }, 'title', { tag: 'title', variables: ['page.region'] });
const twice = (value: string) => finding('shared-title', { of: 'site' }, 'title', { value, pages: 2 });
const group = (more: Partial<FoundGroup>): FoundGroup => ({
	...{ code: 'gap', tag: 'title', weight: 5, pages: 1, found: gap },
	...more
});

test('one page, several that have the same, and what only the whole shows', () => {
	expect(groupInWords(group({}))).toEqual({
		...{ code: 'gap', tag: 'title', weight: 5, pages: 1 },
		says: 'page.region left a gap in the title',
		mend: 'Put what belongs to a variable into [[ … ]], so that it goes when the variable is empty.'
	});
	expect(groupInWords(group({ pages: 9, example: '/a' }))).toMatchObject({
		says: 'A variable left a gap in the title',
		example: { path: '/a', says: 'page.region left a gap in the title' }
	});
	const whole = group({
		found: twice('News'),
		each: ['News', 'Walks'].map((one) => ({ found: twice(one), pages: 2 }))
	});
	expect(groupInWords(whole)).toMatchObject({
		says: '2 pages have the title “News”, and 1 more like it',
		each: [
			{ pages: 2, says: '2 pages have the title “News”' },
			{ pages: 2, says: '2 pages have the title “Walks”' }
		]
	});
	expect(groupInWords(whole).each?.[0]).not.toHaveProperty('found');
});

test('what was counted once is said in the language of each who asks', () => {
	const kept = JSON.parse(JSON.stringify(group({ pages: 9, example: '/a' }))) as FoundGroup;
	expect(answeredIn('fr', () => groupInWords(kept))).toMatchObject({
		says: 'Une variable a laissé un trou dans le titre',
		example: { says: 'page.region a laissé un trou dans le titre' }
	});
	const whole = group({
		found: twice('News'),
		each: ['News', 'Walks'].map((one) => ({ found: twice(one), pages: 2 }))
	});
	expect(answeredIn('fr', () => groupInWords(whole)).says).toBe(
		'2 pages ont le titre « News », et 1 de plus comme cela'
	);
	expect(groupInWords(kept).says).toBe('A variable left a gap in the title');
});

test('ways to mend are kept as data, told in words, and known to programs by what they do', () => {
	const actions = [{ do: 'forget', path: '/a' } as const];
	const leaves = gap;
	const mends = [{ way: actions[0]!, actions, tried: { on: 3, mended: 2, leaves } }];
	const kept = group({ mends, each: [{ found: gap, pages: 1, mends }] });
	const told = [
		{
			...{ says: 'Let /a lead nowhere', does: 'forget', actions },
			tried: { on: 3, mended: 2, leaves: 'page.region left a gap in the title' }
		}
	];
	expect(groupInWords(kept)).toMatchObject({ mends: told, each: [{ mends: told }] });
	expect(answeredIn('fr', () => groupInWords(kept)).mends?.[0]).toMatchObject({
		...{ says: 'Faire que /a ne mène plus nulle part', does: 'forget' },
		tried: { leaves: 'page.region a laissé un trou dans le titre' }
	});
	expect(groupInWords(group({}))).not.toHaveProperty('mends');
});
