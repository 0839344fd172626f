import type { ServerResponse } from 'node:http';
import { refuse, type RefusalCode, type RefusalData, type UserError } from '../errors';
import { namedIn } from '../http/problem';
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
export const deny = <C extends RefusalCode>(response: ServerResponse, refusedAs: C, ...data: RefusalData<C>) =>
	denyAs(response, refuse(refusedAs, ...data));

/** The same for a refusal that was thrown. */
export function denyAs(response: ServerResponse, error: UserError) {
	const { status, code, message: detail } = error;
	const body = Buffer.from(
		JSON.stringify({ ...namedIn(error), type: 'about:blank', title: TITLES[status], status, code, detail })
	);
	response
		.writeHead(status, {
			...SAFE,
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			'content-length': body.length
		})
		.end(body);
}

/** Nothing, for who puts what comes into a page: the reason is told beside it. */
export function empty(response: ServerResponse, why: RefusalCode) {
	response
		.writeHead(200, {
			...SAFE,
			...{ 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' },
			...{ 'kephalon-empty': why, 'content-length': 0 }
		})
		.end();
}
