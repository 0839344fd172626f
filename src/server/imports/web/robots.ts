import parse from 'robots-parser';
import type { RobotsFailed } from '$core';
import type { TracingFetcher } from '../../fetching/trace';

/** How Kephalon calls itself to the sites it reads, and in their robots.txt. */
const AGENT = 'kephalon';
export const AGENT_HEADER = `${AGENT} (reads a site for the people who look after it)`;

/** What a site's robots.txt says (RFC 9309). */
export interface Robots {
	/** Whether an agent may read an address. */
	allows(address: string, agent?: string): boolean;
	/**
	 * Why an agent that obeys does not read an address; undefined where it does. Where there was no answer at all, nothing is
	 * known to forbid it: the address itself will not answer either.
	 */
	shuts(address: string, agent: string): 'forbidden' | 'failing' | undefined;
	/** How its server failed; undefined where it did not. */
	readonly failed: RobotsFailed | undefined;
	/** The line that forbids it, from 1. */
	lineOf(address: string, agent?: string): number | undefined;
	/** Seconds between two requests that it asks for. */
	readonly delay: number | undefined;
	readonly sitemaps: readonly string[];
	/** The file was not to be had because its server failed: nothing may be read then (RFC 9309, 2.3.1.4). */
	readonly isUnreachable: boolean;
}

/** At least so much of the file is read (RFC 9309, 2.5), in bytes. */
const READ = 512_000;

/** Reads the robots.txt of an origin. One that is not there allows everything; one whose server fails, nothing. */
export async function readRobots(fetcher: TracingFetcher, origin: string): Promise<Robots> {
	const address = `${origin}/robots.txt`;
	const { hops, body, end } = await fetcher.fetch(address, {
		...{ maxBytes: READ, timeout: 15_000, redirects: 5 },
		headers: { 'user-agent': AGENT_HEADER, accept: 'text/plain,*/*' }
	});
	const status = hops.at(-1)?.status ?? 0;
	const isUnreachable = status === 0 || status >= 500 || (status < 300 && end !== 'whole' && end !== 'cut');
	return robotsOf(
		address,
		status >= 200 && status < 300 ? body.toString('utf8') : '',
		isUnreachable ? howFailed(status, end) : undefined
	);
}

function howFailed(status: number, end: string): RobotsFailed {
	if (status >= 500) return { is: 'answers', status };
	return { is: end === 'timeout' ? 'late' : status > 0 ? 'broken-off' : 'no-answer' };
}

export function robotsOf(address: string, text: string, failed?: RobotsFailed): Robots {
	const robots = parse(address, text.replace(/^\uFEFF/, ''));
	const isAllowed = (page: string, agent: string) => robots.isAllowed(page, agent) !== false;
	return {
		failed,
		shuts: (page, agent) =>
			failed ? (failed.is === 'no-answer' ? undefined : 'failing') : isAllowed(page, agent) ? undefined : 'forbidden',
		allows: (page, agent = AGENT) => !failed && isAllowed(page, agent),
		lineOf: (page, agent = AGENT) => {
			const line = robots.getMatchingLineNumber(page, agent);
			return line > 0 ? line : undefined;
		},
		delay: robots.getCrawlDelay(AGENT),
		sitemaps: robots.getSitemaps(),
		isUnreachable: failed !== undefined
	};
}
