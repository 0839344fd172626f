import type { Handle, HandleServerError } from '@sveltejs/kit';
import { problem } from '$server/web/problem';
import { UserError } from '$server/errors';
import { parseUrl } from '$core';

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * Until there are accounts, only this machine is answered, under its own names: a page of the open web that gives
 * itself our address (DNS rebinding), or posts to it, is refused.
 */
export const handle: Handle = ({ event, resolve }) => {
	const { request } = event;
	const host = request.headers.get('host') ?? '';
	if (!LOCAL.test(host)) return problem(403, 'Forbidden', `Kephalon answers on this machine only, not as "${host}".`);
	const origin = request.headers.get('origin');
	if (request.method !== 'GET' && request.method !== 'HEAD') {
		if (origin !== null && parseUrl(origin)?.host !== host)
			return problem(403, 'Forbidden', 'Another site may not change anything here.');
		// None of these can be sent by another site's form without its browser asking first.
		if (
			!/^(application\/json|application\/octet-stream|image\/[\w.+-]+)\b/.test(
				request.headers.get('content-type') ?? ''
			)
		)
			return problem(415, 'Unsupported media type', 'Send JSON, or a picture.');
	}
	return resolve(event);
};

export const handleError: HandleServerError = ({ error, status, message }) => {
	if (error instanceof UserError) return { message: error.message };
	if (status !== 404) console.error(error);
	return { message: status === 404 ? 'There is nothing at this address.' : message };
};
