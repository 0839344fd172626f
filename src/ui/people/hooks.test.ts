import { expect, test } from 'vitest';
import type { MessageTold } from '$server/http/contract/people';
import { HOOK_EVENTS } from '$server/store/hooks/hooks';
import { EVENT_WORDS, EVENTS, messageInWords } from './hooks';

test('each event can be asked for and has words, but for the try, which is by hand', () => {
	expect(EVENTS).toEqual(HOOK_EVENTS);
	expect(Object.keys(EVENT_WORDS)).toEqual([...HOOK_EVENTS, 'webhook.tried']);
});

test('a message says what became of it, and when it is tried next', () => {
	const message: MessageTold = { id: 'm', event: 'release.made', made: '2026-05-03T12:00:00.000Z', tries: [] };
	const at = '2026-05-03T12:00:01Z';
	expect(messageInWords(message)).toMatch(/^releases, 3 May 2026, .*: not sent yet$/);
	expect(messageInWords({ ...message, tries: [{ at, status: 204 }] })).toMatch(/: answered 204$/);
	const failed = {
		...message,
		tries: [
			{ at, status: 500 },
			{ at, why: 'Nobody listens there.' }
		],
		due: '2026-05-04T00:00:00.000Z'
	};
	expect(messageInWords(failed)).toMatch(/: Nobody listens there\. after 2 tries; again \d/);
	expect(messageInWords({ ...message, tries: [{ at }] })).toMatch(/: not sent$/);
});
