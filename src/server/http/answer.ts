import { mayDo, type Actor } from '$core';
import { refuse } from '../errors';
import { actingAs, workingOn } from '../people/acting';
import type { Store, StoredSite } from '../store/store';
import { amongFew } from './busy';
import { readBytes, readRecord, readWithFile } from './body';
import type { RouteName } from './contract';
import { factsOf, holdAnswer, readPart, ROUTE_NAMES, type RouteFacts } from './forms';
import { fieldsIn, saidBeside, withFields } from './conventions';
import { answerOnItsWay, toldAs } from './events';
import { revisionIn } from './etags';
import { isDoneOnce, once } from './once';
import { refusalOf } from './problem';
import { refuseStrangers, RIGHT_OF } from './rights';
import type { Asked, Say } from './route';
import { EDITS } from './rows/edits';
import { PAGES } from './rows/pages';
import { PEOPLE } from './rows/people';
import { PROGRAMS } from './rows/programs';
import { RELEASES } from './rows/releases';
import { SITES } from './rows/sites';
import { spool, type Spooled } from './spool';
import { beginWork } from './works';
import { doorFor, type Visitor } from './visitor';

/** The work of every route. One that the contract has and nobody does is an error of types. */
const WORK: { readonly [K in RouteName]: (asked: Asked<K>) => unknown } = {
	...EDITS,
	...PAGES,
	...PEOPLE,
	...PROGRAMS,
	...RELEASES,
	...SITES
};

interface Route extends RouteFacts {
	readonly name: RouteName;
	readonly method: string;
	/** Of the path, below `/api`; `{site}` stands for a name. */
	readonly segments: readonly string[];
}
const ROUTES: readonly Route[] = ROUTE_NAMES.map((name) => {
	const [method, path] = name.split(' ') as [string, string];
	return { ...factsOf(name), name, method, segments: path.split('/') };
});

/** Where all routes stand. Without the number they are answered as before, and say where they have gone. */
const UNDER = /^\/api(?:\/v1)?(?=\/)/;

/** An answer with headers of its own is held as any other; one that says that nothing has changed says no more. */
async function holdGiven(name: RouteName, given: unknown) {
	if (!(given instanceof Response)) holdAnswer(name, given);
	else if (given.status === 200) holdAnswer(name, await given.clone().json());
}

/** The path of a page: all that stands behind. */
const PATH = '{path}';

/** In tests every answer is held to the contract. */
const isHeld = () => process.env.KEPHALON_HOLD_ANSWERS === '1';

interface Asking {
	readonly request: Request;
	readonly url: URL;
	readonly locals: Visitor;
}

/** Answers a request below `/api` by the contract; what the user can mend comes back as problem details. */
export async function answer(asking: Asking): Promise<Response> {
	const { url, locals } = asking;
	const response = await answerBy(asking).catch(refusalOf);
	try {
		for (const [name, value] of saidBeside(url, locals.who, () => locals.address)) response.headers.set(name, value);
	} catch {
		// A database that cannot be opened was told above.
	}
	return response;
}

async function answerBy({ request, url, locals }: Asking): Promise<Response> {
	const { route, site, path } = routeFor(request.method, url.pathname.replace(UNDER, ''));
	const { store, who } = locals;
	const stored = site === undefined ? undefined : siteFor(store, who, site);
	const asks = RIGHT_OF[route.name];
	refuseStrangers(store, who, asks, stored);
	const [door, cookies] = doorFor(request, locals);
	const said = new URLSearchParams(url.searchParams);
	const fields = route.method === 'GET' && !route.media ? fieldsIn(said) : undefined;
	const query = route.hasQuery ? readPart(route.name, 'query', Object.fromEntries(said)) : undefined;
	const { body, bytes, spooled } = await readSent(route, request);
	const seen = seenAt(route, request.headers, stored);
	const key = isDoneOnce(route.method, asks) ? request.headers.get('idempotency-key') : null;
	const run = async (signal: AbortSignal, say?: Say) => {
		const sent = { query, body, bytes, lines: spooled?.file, headers: request.headers };
		const asked = { store, site, stored, path, ...sent, signal, say, who, door };
		const work = () => actingAs(who, () => workingOn(seen, () => WORK[route.name](asked as never)));
		const made = () =>
			key === null ? work() : once(key, { ...sent, db: store.file, who, route: route.name, site, path }, work);
		const given = await amongFew(who, () => locals.address, made).finally(() => spooled?.end());
		if (isHeld() && !route.media) await holdGiven(route.name, given);
		return given;
	};
	if (route.hasLines && site !== undefined && goesOnAlone(request)) {
		const told = begun(() => beginWork({ who, site, route: route.name }, run), spooled);
		const location = `/api/v1/sites/${encodeURIComponent(site)}/works/one?id=${told.id}`;
		return Response.json(told, { status: 202, headers: { location, 'preference-applied': 'respond-async' } });
	}
	const as = route.hasLines ? toldAs(request.headers) : undefined;
	if (as) return answerOnItsWay(request, as, (say, signal) => run(signal, say));
	const given = await run(request.signal);
	if (!(given instanceof Response))
		return Response.json(fields ? withFields(given, fields) : given, { headers: cookies });
	for (const cookie of cookies.getSetCookie()) given.headers.append('set-cookie', cookie);
	if (!fields || given.status !== 200) return given;
	// What names the whole does not name a part of it.
	return Response.json(withFields(await given.json(), fields), { headers: { 'cache-control': 'no-store' } });
}

/** What came with a work that is not begun goes at once. */
function begun<T>(begin: () => T, spooled: Spooled | undefined): T {
	try {
		return begin();
	} catch (error) {
		void spooled?.end();
		throw error;
	}
}

/**
 * The revision that a site was seen at by whoever changes it (`If-Match`); pages have names of their own. Throws a `UserError` where it
 * has gone on since: an edit looks again in its transaction, work in threads is as it was begun.
 */
function seenAt(route: Route, headers: Headers, stored: StoredSite | undefined): number | undefined {
	const match = headers.get('if-match');
	if (match === null || match.trim() === '*' || route.method === 'GET' || !stored || route.segments.at(-1) === PATH)
		return undefined;
	const revision = revisionIn(match);
	if (revision === undefined) throw refuse('match-unknown');
	if (revision !== stored.revision) throw refuse('site-changed', { revision: stored.revision });
	return revision;
}

/** Whether a long work is to go on by itself (RFC 7240). */
const goesOnAlone = ({ headers }: Request) => /(?:^|[\s,])respond-async(?:$|[\s,;])/i.test(headers.get('prefer') ?? '');

/** A site by its name. Who may not even look at it is told no more than of one that is not there. */
function siteFor(store: Store, who: Actor, name: string) {
	if (who.kind === 'nobody') throw refuse('not-signed-in');
	if (mayDo(who, 'read', name) || (who.kind === 'key' && who.site === name)) return store.working.sites.named(name);
	const known = store.working.sites.names().map((one) => one.name);
	throw refuse('site-missing', { site: name, sites: known.filter((one) => mayDo(who, 'read', one)) });
}

/** The route for a request, and the site that its path names. What is asked with HEAD is answered as with GET. */
function routeFor(
	method: string,
	path: string
): { readonly route: Route; readonly site?: string; readonly path?: string } {
	const segments = path.split('/');
	const fits = ({ segments: all }: Route) =>
		(all.length === segments.length || (all.at(-1) === PATH && segments.length > all.length)) &&
		all.every(
			(segment, at) => segment === segments[at] || segment === PATH || (segment === '{site}' && segments[at] !== '')
		);
	const fitting = ROUTES.filter(fits);
	// A path may be spelled as another route.
	const plain = fitting.filter((route) => route.segments.at(-1) !== PATH);
	const there = plain.some((one) => one.method === (method === 'HEAD' ? 'GET' : method)) ? plain : fitting;
	const route = there.find((one) => one.method === (method === 'HEAD' ? 'GET' : method));
	if (!route && there.length > 0) throw refuse('method-other', { method, methods: methodsOf(there) });
	if (!route) throw refuse('address-missing');
	const at = route.segments.indexOf('{site}');
	const rest = route.segments.indexOf(PATH);
	return {
		route,
		...(at >= 0 && { site: decoded(segments[at]!) }),
		// As the address of the page has it: paths are kept in percent-encoding.
		...(rest >= 0 && { path: `/${segments.slice(rest).join('/')}` })
	};
}

const methodsOf = (routes: readonly Route[]) =>
	routes.flatMap((one) => (one.method === 'GET' ? ['GET', 'HEAD'] : [one.method]));

function decoded(segment: string): string {
	try {
		return decodeURIComponent(segment);
	} catch {
		throw refuse('address-broken');
	}
}

/** What a request holds, as its route takes it: a record, bytes, or a record and the bytes that come after its line. */
async function readSent(
	route: Route,
	request: Request
): Promise<{ body?: unknown; bytes?: Uint8Array<ArrayBuffer> | undefined; spooled?: Spooled }> {
	if (route.takes === 'bytes') return { bytes: await readBytes(request) };
	if (route.takes === 'lines') return { spooled: await spool(request) };
	if (!route.hasBody) return {};
	const { record, file } = route.takes
		? await readWithFile(request)
		: { record: await readRecord(request), file: undefined };
	return { body: readPart(route.name, 'body', record), bytes: file };
}
