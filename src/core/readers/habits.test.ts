import { expect, test } from 'vitest';
import { HABITS, habitsInWords, READERS } from '../index';

test('every reader has habits, and each is a sentence', () => {
	expect(Object.keys(HABITS).sort()).toEqual(READERS.map(({ id }) => id).sort());
	expect(Object.fromEntries(READERS.map(({ id }) => [id, habitsInWords(HABITS[id]!)]))).toMatchInlineSnapshot(`
		{
		  "bottle": [
		    "It does not ask robots.txt.",
		    "It follows 5 redirects.",
		    "It reads the first 200 kB, and waits 5 seconds.",
		    "It takes no tag below the head.",
		    "It takes a relative address for none.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 365 days, under the address that was pasted.",
		    "Only another address makes it fetch again.",
		    "It runs no scripts.",
		  ],
		  "fathom": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects, also those by a refresh in the page.",
		    "It reads the first 2,000 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 7 days, under what canonical says.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "fathom-narrow": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects, also those by a refresh in the page.",
		    "It reads the first 2,000 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 7 days, under what canonical says.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "galley": [
		    "It does not ask robots.txt.",
		    "It follows 5 redirects.",
		    "It reads the first 1,000 kB, and waits 5 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 0.5 hours, under the address that was pasted.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "gangway": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects.",
		    "It reads the first 512 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 30 days, under what og:url says.",
		    "It fetches again when it is asked twice.",
		    "It runs no scripts.",
		  ],
		  "headland": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects.",
		    "It reads the first 300 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the last.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 7 days, under the address that was pasted.",
		    "Nothing makes it fetch again before its time.",
		    "It runs no scripts.",
		  ],
		  "porthole": [
		    "It does not ask robots.txt.",
		    "It follows 20 redirects, also those by a refresh in the page.",
		    "It reads the first 5,000 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps no card.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "ropewalk": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects, but not to another host.",
		    "It reads the first 1,000 kB, and waits 10 seconds.",
		    "It takes no tag below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the first.",
		    "Without a picture its card stays blank.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 7 days, under what og:url says.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		  "wrack": [
		    "It obeys robots.txt.",
		    "It follows 5 redirects.",
		    "It reads the first 1,000 kB, and waits 10 seconds.",
		    "It takes tags that stand below the head.",
		    "It works out relative addresses.",
		    "Of a tag that stands twice it takes the last.",
		    "Without a picture it takes any of the page, by chance.",
		    "It fetches the picture and judges what it gets.",
		    "It keeps a card for 14 days, under what og:url says.",
		    "Asked once, it fetches again.",
		    "It runs no scripts.",
		  ],
		}
	`);
});

test('what two readers can share, as one fetch, is what they send', () => {
	expect(new Set(Object.values(HABITS).map(({ agent }) => agent)).size).toBeGreaterThan(6);
	for (const [id, { name, agent }] of Object.entries(HABITS)) {
		expect(agent.toLowerCase()).toContain(name);
		expect(id.startsWith(name)).toBe(true);
	}
});

test('each choice has words of its own', () => {
	const usual = HABITS.gangway!;
	const changes = [
		{ obeysRobots: !usual.obeysRobots },
		{ redirects: 1 },
		{ otherHosts: !usual.otherHosts },
		{ refreshes: !usual.refreshes },
		{ bytes: 123_456 },
		{ patience: 1500 },
		{ readsBody: !usual.readsBody },
		{ relative: usual.relative === 'drops' ? 'resolves' : 'drops' },
		{ doubled: usual.doubled === 'first' ? 'last' : 'first' },
		{ key: usual.key === 'canonical' ? 'address' : 'canonical' },
		{ withoutPicture: 'chance' },
		{ withoutPicture: 'none' },
		{ withoutPicture: 'first' },
		{ judges: usual.judges === 'fetch' ? 'tags' : 'fetch' },
		{ keeps: 0 },
		{ keeps: 5 },
		{ keeps: 24 },
		{ keeps: 48 },
		{ again: 'ask' },
		{ again: 'ask-twice' },
		{ again: 'new-address' },
		{ again: 'wait' }
	] as const;
	const before = habitsInWords(usual);
	expect(
		changes.map((change) =>
			habitsInWords({ ...usual, ...change } as typeof usual).filter((one) => !before.includes(one))
		)
	).toMatchInlineSnapshot(`
		[
		  [
		    "It does not ask robots.txt.",
		  ],
		  [
		    "It follows 1 redirect.",
		  ],
		  [
		    "It follows 5 redirects, but not to another host.",
		  ],
		  [
		    "It follows 5 redirects, also those by a refresh in the page.",
		  ],
		  [
		    "It reads the first 123 kB, and waits 10 seconds.",
		  ],
		  [
		    "It reads the first 512 kB, and waits 1.5 seconds.",
		  ],
		  [
		    "It takes tags that stand below the head.",
		  ],
		  [
		    "It takes a relative address for none.",
		  ],
		  [
		    "Of a tag that stands twice it takes the last.",
		  ],
		  [
		    "It keeps a card for 30 days, under what canonical says.",
		  ],
		  [
		    "Without a picture it takes any of the page, by chance.",
		  ],
		  [],
		  [
		    "Without a picture it takes the first of the page.",
		  ],
		  [
		    "It believes what tags say of the picture.",
		  ],
		  [
		    "It keeps no card.",
		  ],
		  [
		    "It keeps a card for 5 hours, under what og:url says.",
		  ],
		  [
		    "It keeps a card for 1 day, under what og:url says.",
		  ],
		  [
		    "It keeps a card for 2 days, under what og:url says.",
		  ],
		  [
		    "Asked once, it fetches again.",
		  ],
		  [],
		  [
		    "Only another address makes it fetch again.",
		  ],
		  [
		    "Nothing makes it fetch again before its time.",
		  ],
		]
	`);
});
