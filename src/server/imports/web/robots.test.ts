import { expect, test } from 'vitest';
import type { TracedFetch, TracingFetcher } from '../../fetching/trace';
import { readRobots } from './robots';

/** A fetch of robots.txt that came out as is said. */
const from = (said: { status?: number; end?: TracedFetch['end']; body?: string }) => {
	const { status = 0, end = 'whole', body = '' } = said;
	const fetch = (address: string) =>
		Promise.resolve({ hops: [{ address, status, headers: {} }], end, body: Buffer.from(body) });
	return readRobots({ fetch } as unknown as TracingFetcher, 'https://s.example');
};
const PAGE = 'https://s.example/a';

test.each([
	['none', { status: 404 }, undefined, undefined, true],
	['forbidden to be read', { status: 401 }, undefined, undefined, true],
	['that shuts', { status: 200, body: 'User-agent: *\nDisallow: /a' }, 'forbidden', undefined, false],
	['that allows', { status: 200, body: 'User-agent: *\nDisallow: /b' }, undefined, undefined, true],
	[
		'longer than is read',
		{ status: 200, end: 'cut', body: 'User-agent: *\nDisallow: /a' },
		'forbidden',
		undefined,
		false
	],
	['with 500', { status: 500 }, 'failing', { is: 'answers', status: 500 }, false],
	['that breaks off', { status: 200, end: 'short' }, 'failing', { is: 'broken-off' }, false],
	['that does not come', { end: 'timeout' }, 'failing', { is: 'late' }, false],
	['half of which comes', { status: 200, end: 'timeout' }, 'failing', { is: 'late' }, false],
	// Where nothing answers at all, nothing is known to forbid anything; the page will not answer either.
	['of a host that is not there', { end: 'unknown-name' }, undefined, { is: 'no-answer' }, false],
	['of a host that is closed', { end: 'no-connection' }, undefined, { is: 'no-answer' }, false]
] as const)('robots.txt, %s', async (_, said, shuts, failed, allows) => {
	const robots = await from(said);
	expect([robots.shuts(PAGE, 'galley'), robots.failed, robots.allows(PAGE)]).toEqual([shuts, failed, allows]);
});
