import { expect, test } from 'vitest';
import { ALL_READERS, habitsInWords, READERS, readsHeadAlone } from '../index';
import type { Habits, PictureHabits } from './habits';
import { OTHER_HABITS } from './habits.sample';

const readerOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)!;

test('the habits of every reader, each as a sentence', () => {
	expect(Object.fromEntries(ALL_READERS.map((reader) => [reader.id, habitsInWords(reader)]))).toMatchInlineSnapshot(`
		{
		  "almanac": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 3,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "A picture that moves is shown moving.",
		    "It keeps a card for 1 day, under what canonical says; that there was none, for 2 hours.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "bottle": [
		    "It does not ask robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects (none of 308).",
		    "It keeps no cookies.",
		    "It reads the first 200 kB, and waits 5 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It takes a relative address for none.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "Of a picture that moves it shows the first frame.",
		    "It keeps a card for 365 days, under the address that was pasted; that there was none, for 1 hour.",
		    "Only another address makes it fetch again.",
		    "It runs no scripts.",
		  ],
		  "fathom": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects, also those by a refresh in the page.",
		    "It keeps no cookies.",
		    "It reads the first 2,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It shows no picture.",
		    "It keeps a card for 7 days, under what canonical says; that there was none, for 1 day.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "fathom-narrow": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects, also those by a refresh in the page.",
		    "It keeps no cookies.",
		    "It reads the first 2,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It shows no picture.",
		    "It keeps a card for 7 days, under what canonical says; that there was none, for 1 day.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "flotsam": [
		    "It does not ask robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 1,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes tags that stand below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture it takes the first of the page.",
		    "A picture that moves is shown moving.",
		    "It keeps a card for 2 days, under the address that was pasted; that there was none, for 6 hours.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "galley": [
		    "It does not ask robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 1,000 kB, and waits 5 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "A picture that moves is shown moving.",
		    "It keeps a card for 0.5 hours, under the address that was pasted; that there was none, for 0.5 hours.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "gangway": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 512 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "Of a picture that moves it shows the first frame.",
		    "It keeps a card for 30 days, under what og:url says; that there was none, for 1 hour.",
		    "It fetches again when it is asked twice.",
		    "It runs no scripts.",
		  ],
		  "headland": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 300 kB, and waits 10 seconds.",
		    "Of a page that breaks off it makes no card.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the last.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "Of a picture that moves it shows the first frame.",
		    "It keeps a card for 7 days, under the address that was pasted; that there was none, for 1 day.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "logbook": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 1,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It believes what tags say of the picture.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "A picture that moves is shown moving.",
		    "It keeps a card for 3 days, under what canonical says; that there was none, for 1 hour.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "porthole": [
		    "It does not ask robots.txt.",
		    "It asks for text/html,application/xhtml+xml, in en-GB,en;q=0.8.",
		    "It follows 20 redirects, also those by a refresh in the page.",
		    "It keeps cookies on its way.",
		    "It reads the first 5,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It shows no picture.",
		    "It keeps no card.",
		    "It runs no scripts.",
		  ],
		  "ropewalk": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml, in en.",
		    "It follows 5 redirects, but not to another host.",
		    "It keeps no cookies.",
		    "It reads the first 1,000 kB as they come, packed, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, its card stays blank.",
		    "Without a picture its card stays blank.",
		    "It shows no picture that moves.",
		    "It keeps a card for 7 days, under what og:url says; that there was none, for 1 hour.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "semaphore": [
		    "It does not ask robots.txt.",
		    "It asks for text/html,application/xhtml+xml, in en-GB,en;q=0.8.",
		    "It follows 5 redirects.",
		    "It keeps cookies on its way.",
		    "It reads the first 600 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture its card stays blank.",
		    "It shows no picture that moves.",
		    "It keeps a card for ever, under the address that was pasted.",
		    "The card goes with the message: what was sent stays as it was.",
		    "It runs no scripts.",
		  ],
		  "wrack": [
		    "It obeys robots.txt.",
		    "It asks for text/html,application/xhtml+xml.",
		    "It follows 5 redirects.",
		    "It keeps no cookies.",
		    "It reads the first 1,000 kB, and waits 10 seconds.",
		    "Of a page that breaks off it takes what came.",
		    "It takes tags that stand below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the last.",
		    "It fetches the picture and judges what it gets.",
		    "Where its first picture cannot be shown, it takes the next.",
		    "Without a picture it takes any of the page, by chance.",
		    "A picture that moves is shown moving.",
		    "It keeps a card for 14 days, under what og:url says; that there was none, for 12 hours.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		}
	`);
});

test('each reader goes by its own name, and those that make cards of the head alone are known', () => {
	expect(new Set(ALL_READERS.map(({ id }) => id)).size).toBe(ALL_READERS.length);
	expect(new Set(ALL_READERS.map(({ habits }) => habits.agent)).size).toBeGreaterThan(10);
	for (const { id, habits } of ALL_READERS) {
		expect(habits.agent.toLowerCase()).toContain(habits.name);
		expect(id.startsWith(habits.name)).toBe(true);
	}
	for (const reader of READERS) expect([reader.id, readsHeadAlone(reader)]).toEqual([reader.id, true]);
	expect(ALL_READERS.filter((reader) => !readsHeadAlone(reader)).map(({ id }) => id)).toEqual([
		'logbook',
		'almanac',
		'flotsam'
	]);
});

test('each habit is told: another value makes another sentence', () => {
	for (const reader of ALL_READERS) {
		const before = habitsInWords(reader).join(' ');
		for (const habit of Object.keys(OTHER_HABITS) as (keyof Habits)[]) {
			// What it calls itself stands beside them.
			if (habit === 'agent' || habit === 'name') continue;
			const other = { ...reader.habits, [habit]: OTHER_HABITS[habit](reader.habits[habit] as never) };
			expect([reader.id, habit, habitsInWords({ ...reader, habits: other as Habits }).join(' ') !== before]).toEqual([
				...[reader.id, habit, true]
			]);
		}
	}
	const { frame, ...gangway } = readerOf('gangway');
	const pictured: PictureHabits[] = [
		{ ...frame!, judges: 'tags' },
		{ ...frame!, failing: 'blank' },
		{ ...frame!, otherwise: 'first' },
		{ ...frame!, otherwise: 'chance' },
		{ ...frame!, animated: 'moves' },
		{ ...frame!, animated: 'none' }
	];
	const before = habitsInWords({ ...gangway, frame: frame! });
	expect(
		pictured.map((other) => habitsInWords({ ...gangway, frame: other }).filter((one) => !before.includes(one)))
	).toEqual([
		['It believes what tags say of the picture.'],
		['Where its first picture cannot be shown, its card stays blank.'],
		['Without a picture it takes the first of the page.'],
		['Without a picture it takes any of the page, by chance.'],
		['A picture that moves is shown moving.'],
		['It shows no picture that moves.']
	]);
});

test('how long a card is kept is told in hours and days, or for ever', () => {
	const kept = (hours: number, failed: number, under: 'address' | 'canonical' = 'address') =>
		habitsInWords({
			habits: { ...readerOf('gangway').habits, keeps: { under, hours, failed, again: 'ask' } }
		}).find((one) => one.startsWith('It keeps a card') || one.startsWith('It keeps no card'));
	expect([kept(1, 0), kept(24, 2), kept(87_600, 0, 'canonical')]).toEqual([
		'It keeps a card for 1 hour, under the address that was pasted.',
		'It keeps a card for 1 day, under the address that was pasted; that there was none, for 2 hours.',
		'It keeps a card for ever, under what canonical says.'
	]);
});
