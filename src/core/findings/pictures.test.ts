import { describe, expect, test } from 'vitest';
import {
	describeFinding,
	findInLayout,
	findInPicture,
	findInRules,
	STARTING_LAYOUTS,
	type JudgedPicture
} from '../index';

const weaknessesOf = (...given: Parameters<typeof findInPicture>) => findInPicture(...given).map(describeFinding);

const good: JudgedPicture = { width: 1200, height: 630, bytes: 180_000, type: 'image/jpeg', alt: 'A pier' };

describe('what is weak in a picture', () => {
	test.each<[string, Partial<JudgedPicture>, RegExp[]]>([
		['nothing', {}, []],
		['too small for some', { width: 450, height: 236 }, [/^Too small for Gangway: 450 pixels wide, 600 would do/]],
		['too small for all', { width: 90, height: 60 }, [/^Too small for Gangway, .* and Wrack/]],
		['too heavy for the messenger', { bytes: 700_000 }, [/^Too heavy for Bottle: 700 kB, at most 600 kB/]],
		['too heavy for several', { bytes: 6_000_000 }, [/Headland, Ropewalk, Galley, and Bottle: 6,000 kB/]],
		['tall', { width: 800, height: 1200 }, [/800 × 1200: wide cards cut much of its top/]],
		['a strip', { width: 1800, height: 300 }, [/1800 × 300: cards cut much of its sides/]],
		['no alt text', { alt: '' }, [/no alt text/]],
		['transparent', { alpha: true }, [/transparent/]],
		['animated', { animated: true }, [/first frame/]],
		['on many pages', { repeated: 40 }, [/on 40 pages/]],
		['a logo', { mark: true }, [/logo/]]
	])('%s', (_, more, expected) => {
		const found = weaknessesOf({ ...good, ...more });
		expect(found).toHaveLength(expected.length);
		expected.forEach((sentence, at) => expect(found[at]).toMatch(sentence));
	});
	test('a fifth of it may be text', () => {
		const codes = (width: number) =>
			findInPicture({ ...good, text: [[0.1, 0.25, width, 0.5]] as never }).map(({ code }) => code);
		expect([codes(0.4).includes('picture-much-text'), codes(0.41).includes('picture-much-text')]).toEqual([
			false,
			true
		]);
	});
	test('what is not known is not held against it', () => {
		expect(weaknessesOf({ alt: 'A pier' })).toEqual([]);
	});
});

describe('what is estimated, and where it is used', () => {
	const fine = { width: 1600, height: 900, alt: 'A pier' };
	test.each<[string, JudgedPicture, string[]]>([
		['little text, in view of every cut', { ...fine, text: [[0.45, 0.45, 0.1, 0.1]] }, []],
		[
			'much text',
			{
				...fine,
				text: [
					[0.4, 0.1, 0.2, 0.8],
					[0.4, 0.3, 0.2, 0.6],
					[0.41, 0.2, 0.18, 0.5],
					[0.35, 0.1, 0.3, 0.7]
				]
			},
			['Text seems to cover 23 % of it, more than a fifth: on small cards no one can read it.']
		],
		[
			'a face at the side',
			{ ...fine, faces: [[0.15, 0.2, 0.1, 0.4]] },
			['Cut to 1 : 1, it loses part of what may be a face.']
		],
		['the same, with the point on it', { ...fine, faces: [[0.15, 0.2, 0.1, 0.4]], focus: [0.2, 0.4] }, []],
		[
			'text over the whole width',
			{ ...fine, text: [[0, 0.85, 1, 0.05]] },
			['Cut to 1 : 1 and 2 : 3, it loses part of what seems to be text.']
		],
		['a logo by its looks', { ...fine, plain: true }, ['It looks like a logo: of few colours, and small or cut out.']]
	])('%s', (_, picture, wanted) => expect(weaknessesOf(picture)).toEqual(wanted));

	test.each([
		[2, []],
		[3, ['It is on the cards of 3 pages: /a, /b, /c.']],
		[40, ['It is on the cards of 40 pages: /a, /b, /c and 37 more.']]
	])('on %i cards', (shown, wanted) => {
		expect(weaknessesOf(fine, { shown, shownOn: ['/a', '/b', '/c', '/d'] })).toEqual(wanted);
	});
});

describe('the texts of a layout', () => {
	const layout = STARTING_LAYOUTS[0]!.layout;
	const context = {
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		fields: [{ name: 'region', kind: 'text' as const }]
	};
	const target = { of: 'type', name: 'isle' } as const;
	test('are checked as templates are', () => {
		expect(findInLayout(layout, target, context)).toEqual([]);
		const wrong = { ...layout, title: { ...layout.title, template: '{page.regoin}' } };
		const [found, ...more] = findInLayout(wrong, target, context);
		expect(describeFinding(found!)).toContain('page.region');
		expect(more).toEqual([]);
		const types = [{ name: 'isle', fields: [...context.fields], rules: [], layout: wrong }];
		expect(findInRules(context.site, types, [])).toMatchObject([
			{ target, weight: 8, data: { part: 'title of the share picture', issue: { severity: 'error' } } }
		]);
	});
});
