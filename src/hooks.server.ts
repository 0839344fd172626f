import { redirect, type Handle, type HandleServerError, type RequestEvent, type ServerInit } from '@sveltejs/kit';
import { refusalOfOrigin } from '$server/http/origin';
import { panelHostOf } from '$server/web/panelHost';
import { turnedAway } from '$server/http/pageRights';
import { withoutStyleAttributes, withStyleNonce } from '$server/http/pageStyles';
import { problem, sentenceOf } from '$server/http/problem';
import { renewedCookie, visitorOf } from '$server/http/visitor';
import { openStore } from '$server/web/working';
import { refuse, UserError } from '$server/errors';
import { log } from '$server/log';
import { LOOK_COOKIE, lookAttributes, readLook } from '$ui/look/look';
import { fr } from '$ui/languages/french';
import { languageFor } from '$server/http/language';
import { answeredIn } from '$server/speaking';
import { LANGUAGE_COOKIE } from '$ui/look/language';
import { learn } from '$ui/words/speaking';

learn('fr', fr);

/** A language that only tests speak, learned when they ask for it. */
async function pseudoFor(chosen = ''): Promise<string | undefined> {
	if (!process.env.KEPHALON_PARTS) return undefined;
	const [{ ENGLISH }, { inPseudo, isPseudo }] = await Promise.all([
		import('$ui/languages/english'),
		import('$ui/words/pseudo')
	]);
	if (!isPseudo(chosen)) return undefined;
	learn(chosen, inPseudo(ENGLISH, chosen));
	return chosen;
}

/** What goes on by itself begins with the server, before anybody opens a room. A database that cannot be opened is told then. */
export const init: ServerInit = () => {
	if (!process.env.KEPHALON_DB) return;
	try {
		openStore();
	} catch (error) {
		log.error(error);
	}
};

/** A page of the open web that posts to us is refused; the server before this has refused names that are not ours. */
export const handle: Handle = async ({ event, resolve }) => {
	const { request } = event;
	const refusal = refusalOfOrigin(request.method, (name) => request.headers.get(name));
	if (refusal) return problem(refusal);
	// Opened when a route asks for it: one that cannot be opened is told as the route tells what it refuses.
	const visitor = visitorOf(request, openStore, () => event.getClientAddress());
	Object.defineProperties(event.locals, Object.getOwnPropertyDescriptors(visitor));
	const elsewhere = whereTo(event);
	if (elsewhere !== undefined) redirect(303, elsewhere);
	const chosen = event.cookies.get(LANGUAGE_COOKIE);
	const language = languageFor(chosen, request.headers.get('accept-language'));
	event.locals.language = (await pseudoFor(chosen)) ?? language;
	const look = lookAttributes(readLook(event.cookies.get(LOOK_COOKIE)));
	const response = await answeredIn(language, () =>
		resolve(event, {
			transformPageChunk: ({ html }) =>
				withoutStyleAttributes(html).replace(
					'<html lang="%language%"',
					`<html ${look} lang="${event.locals.language}" dir="${event.locals.language === 'ar-XB' ? 'rtl' : 'ltr'}"`
				)
		})
	);
	const policy = response.headers.get('content-security-policy');
	if (policy !== null)
		response.headers.set(
			'content-security-policy',
			framedBy(
				withStyleNonce(policy),
				withoutFailing(() => panelHostOf(event))
			)
		);
	// What is at the desk is nobody else's to keep, unless a route says so.
	if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
	// One that signs in or out sets its own.
	const cookie = response.headers.has('set-cookie') ? undefined : withoutFailing(() => renewedCookie(visitor));
	if (cookie !== undefined) response.headers.append('set-cookie', cookie);
	return response;
};

/** A page's policy, for one that may be shown in a frame of another origin. */
const framedBy = (policy: string, origin: string | undefined) =>
	origin === undefined ? policy : policy.replace(/frame-ancestors 'none'/, `frame-ancestors ${origin}`);

/** Where a database cannot be opened, the page that is asked for tells it. */
const whereTo = (event: RequestEvent) => withoutFailing(() => turnedAway(event));

function withoutFailing(work: () => string | undefined): string | undefined {
	try {
		return work();
	} catch (error) {
		if (error instanceof UserError) return undefined;
		throw error;
	}
}

export const handleError: HandleServerError = ({ error, status, message }) => {
	if (error instanceof UserError) return { message: sentenceOf(error) };
	if (status !== 404) log.error(error);
	return { message: status === 404 ? sentenceOf(refuse('address-missing')) : message };
};
