import { mayDo, parseUrl, type Actor } from '$core';
import { cookieIn, cookieName, credentialsIn, renewed, whoIs } from '../people/who';
import type { Store } from '../store/store';
import type { Door } from './route';

/** Whoever sent a request, with what they came in by. */
export interface Visitor {
	/** The database, opened when it is first asked for. */
	readonly store: Store;
	readonly who: Actor;
	/** The secret of their session. */
	readonly session: string | undefined;
	/** Where they are. */
	readonly address: string;
}

/** Who sent a request; asked when it is first needed, once. */
export function visitorOf(request: Request, store: () => Store, address: () => string): Visitor {
	const credentials = credentialsIn(request.headers.get('cookie'), request.headers.get('authorization'));
	let who: Actor | undefined;
	return {
		get store() {
			return store();
		},
		get who() {
			return (who ??= whoIs(store(), credentials));
		},
		get address() {
			return address();
		},
		session: credentials.session
	};
}

/** The origin that a browser names; what names none (no browser is that) is reached as its host says. */
function originOf({ headers }: Request): string {
	const named = headers.get('origin');
	// It was held against the host before: see the hooks.
	if (named !== null && parseUrl(named)) return named;
	return `${process.env.KEPHALON_SECURE ? 'https' : 'http'}://${headers.get('host') ?? 'localhost'}`;
}

const cookieOf = (name: string, value: string, more = '') =>
	`${name}=${value}; Path=/; HttpOnly; SameSite=Lax${process.env.KEPHALON_SECURE ? '; Secure' : ''}${more}`;

/** The cookie of a session whose secret is renewed, as its person's rights have changed; undefined where it stays. */
export function renewedCookie(visitor: Visitor): string | undefined {
	const { session } = visitor;
	if (session === undefined || visitor.who.kind !== 'person') return undefined;
	const secret = renewed(visitor.store, session);
	return secret === undefined ? undefined : cookieOf(cookieName(), secret);
}

/** What a browser brings back from the issuer of a sign-on. */
const heldName = () => `${cookieName()}-sign-on`;

/** Where sessions come and go, and the headers that say so to the browser. */
export function doorFor(request: Request, { session, address }: Pick<Visitor, 'session' | 'address'>): [Door, Headers] {
	const headers = new Headers();
	const set = (value: string, more: string, name = cookieName()) =>
		headers.append('set-cookie', cookieOf(name, value, more));
	return [
		{
			session,
			from: { address, agent: request.headers.get('user-agent') ?? '' },
			origin: originOf(request),
			held: cookieIn(request.headers.get('cookie') ?? '', heldName()),
			hold: (word) => set(word, '; Max-Age=600', heldName()),
			open: (secret) => set(secret, ''),
			close: () => set('', '; Max-Age=0')
		},
		headers
	];
}

/** The sites that someone may look at. */
export const sitesFor = ({ store, who }: Visitor) =>
	store.working.sites.names().filter(({ name }) => mayDo(who, 'read', name));
