import type { ServerResponse } from 'node:http';
import { refuse, type RefusalCode, type RefusalData } from '../errors';
import { TITLES } from '../refusals/refusal';

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

/** Answers with a refusal as problem details (RFC 9457). */
export function deny<C extends RefusalCode>(response: ServerResponse, refusedAs: C, ...data: RefusalData<C>) {
	const { status, code, message: detail } = refuse(refusedAs, ...data);
	const body = Buffer.from(JSON.stringify({ type: 'about:blank', title: TITLES[status], status, code, detail }));
	response
		.writeHead(status, {
			...SAFE,
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			'content-length': body.length
		})
		.end(body);
}
