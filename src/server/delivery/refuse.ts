import type { ServerResponse } from 'node:http';
import { codeOf } from '../errors';

/**
 * What comes from here is content of others, extra markup of pages among it: as a page of ours it must do nothing, and
 * tell nobody where it was.
 */
export const SAFE = {
	'content-security-policy': "sandbox; default-src 'none'",
	'x-content-type-options': 'nosniff',
	'referrer-policy': 'no-referrer',
	'cross-origin-resource-policy': 'cross-origin'
} as const;

const TITLES: Readonly<Record<number, string>> = {
	400: 'Bad request',
	403: 'Forbidden',
	404: 'Not found',
	503: 'Not now'
};

/** Answers with problem details (RFC 9457). `detail` says what was wrong and what to do. */
export function refuse(response: ServerResponse, status: number, detail: string) {
	const title = TITLES[status] ?? 'Failed';
	const body = Buffer.from(JSON.stringify({ type: 'about:blank', title, status, code: codeOf(status, title), detail }));
	response
		.writeHead(status, {
			...SAFE,
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			'content-length': body.length
		})
		.end(body);
}
