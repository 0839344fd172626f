import type { IncomingMessage } from 'node:http';
import { encodingSaid } from '../fetching/charset';
import { HeadStream } from './headStream';
import type { WrittenHead } from './writtenHead';

/** What of an answer tells whether a head goes into it, and what then no longer holds of it. */

/** What was reckoned from the bytes of a page: with another head it is another. */
export const OF_BYTES: ReadonlySet<string> = new Set([
	...['content-length', 'content-md5', 'digest', 'content-digest', 'repr-digest', 'accept-ranges']
]);

/** An answer, as far as it tells that. */
export interface AnswerSeen {
	readonly status: number;
	readonly type: string | undefined;
	readonly disposition: string | undefined;
}

/** Whether it is a page that is to be looked at: in HTML, whole, and in an encoding in which a head can be written. */
export const isPageAnswer = ({ status, type = '', disposition = '' }: AnswerSeen): boolean =>
	status === 200 &&
	/^\s*(?:text\/html|application\/xhtml\+xml)\s*(?:;|$)/i.test(type) &&
	!/^\s*attachment\b/i.test(disposition) &&
	!/^utf-16/.test(encodingSaid(type) ?? '');

/** Writes a head into a page of a type as it goes past. */
export function streamFor(head: WrittenHead, type: string | undefined, path: string): HeadStream {
	const isXhtml = /^\s*application\/xhtml/i.test(type ?? '');
	return new HeadStream(head, encodingSaid(type), isXhtml ? 'page.xhtml' : path);
}

/** The path that a request asks for, undecoded; undefined where it asks for none, or does more than read. */
export function pathAsked({ method, url = '' }: Pick<IncomingMessage, 'method' | 'url'>): string | undefined {
	if (method !== 'GET' && method !== 'HEAD') return undefined;
	return url.startsWith('/') ? url.split(/[?#]/, 1)[0] : undefined;
}
