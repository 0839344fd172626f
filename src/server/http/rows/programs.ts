import { hash as digest } from 'node:crypto';
import { headToJson, mayDo, type Page } from '$core';
import { refuse } from '../../errors';
import { spellingsOf } from '../../files/pagePaths';
import { actOnPage } from '../../edits/pages';
import { resolverOf } from '../../heads/heads';
import { LiveHeadMaker } from '../../heads/liveHeads';
import { pushPages, type PushedPage } from '../../imports/push';
import { freshenSoon } from '../../jobs/freshen';
import { runJob } from '../../jobs/run';
import type { PushTold } from '../../progress';
import { patiently } from '../../store/opening/patiently';
import type { Store } from '../../store/store';
import { refuseWithout } from '../../people/beyond';
import { tryRecord } from '../../web/records';
import { namesTag, tagOfRevision } from '../etags';
import { openApi } from '../openApi';
import type { Asked, Rows } from '../route';
import { lookAtWork, stopWork, worksOf } from '../works';

/** What a page comes from where its sender gives no name. */
const SOURCE = 'api';

/** What programs ask for. */
export const PROGRAMS = {
	'GET /openapi.json': () => Response.json(openApi(), { headers: { 'cache-control': 'no-cache' } }),

	'GET /sites': ({ store, who }) =>
		store.working.sites.names().flatMap(({ name, base }) => (mayDo(who, 'read', name) ? [{ name, base }] : [])),

	'GET /sites/{site}': ({ stored: { site, types, revision }, headers }) => {
		const etag = tagOfRevision(revision);
		const known = headers.get('if-none-match');
		if (known !== null && namesTag(known, etag)) return new Response(null, { status: 304, headers: { etag } });
		return Response.json({ site, types, revision }, { headers: { etag, 'cache-control': 'no-cache' } });
	},

	'GET /sites/{site}/trace': ({ store, stored, query: { path } }) => {
		const page = pageAt(store, stored.id, path);
		const resolver = resolverOf(store, stored, new Date().toISOString());
		const { head, traces } = resolver.resolveWithTrace(page);
		return { head: headToJson(head), traces };
	},

	// Mostly answered before it comes here: see `delivery/liveLane.ts`.
	'POST /sites/{site}/heads': ({ store, site, body: { pages, ...form } }) =>
		new LiveHeadMaker(store).make(site, pages, form),

	'GET /sites/{site}/works': ({ who, site }) => worksOf(who, site),

	'GET /sites/{site}/works/one': ({ who, site, query: { id }, say, signal }) =>
		lookAtWork(who, site, id, { say, signal }),

	'DELETE /sites/{site}/works/one': ({ who, site, query: { id } }) => stopWork(who, site, id),

	'GET /sites/{site}/sources': ({ store, stored }) =>
		store.state.sources
			.away(stored.id)
			// One whose source was taken out since is none that is away.
			.filter(({ type }) => stored.types.some(({ name, source }) => name === type && source))
			.map(({ since, ...away }) => ({ ...away, since: new Date(since).toISOString() })),

	'POST /sites/{site}/records': ({ store, stored, who, body }) => {
		if (body.source || body.mapping) refuseWithout(store, who, 'build', stored);
		return tryRecord(stored, body);
	},

	'GET /sites/{site}/pages/{path}': ({ store, stored, path, headers }) => {
		const page = pageAt(store, stored.id, keptPath(store, stored.id, path));
		const etag = etagOf(page);
		const known = headers.get('if-none-match');
		if (known !== null && namesTag(known, etag)) return new Response(null, { status: 304, headers: { etag } });
		return Response.json(page, { headers: { etag, 'cache-control': 'no-cache' } });
	},

	'PUT /sites/{site}/pages/{path}': (asked) =>
		put({ ...asked, path: keptPath(asked.store, asked.stored.id, asked.path) }, asked.body, false),

	'PATCH /sites/{site}/pages/{path}': (asked) => {
		const { store, stored } = asked;
		const path = keptPath(store, stored.id, asked.path);
		pageAt(store, stored.id, path);
		return put({ ...asked, path }, asked.body, true);
	},

	'DELETE /sites/{site}/pages/{path}': async ({ store, site, stored, path: said, headers, query: { to } }) => {
		const path = keptPath(store, stored.id, said);
		const { edit, revision } = await patiently(() => {
			refuseOther(pageAt(store, stored.id, path), path, headers);
			return actOnPage(store, site, { do: 'remove', path, ...(to !== undefined && { to }) }, 'program');
		});
		freshenSoon(store, site);
		return { edit, revision };
	},

	'POST /sites/{site}/pushes': async ({ store, site, query: { source = SOURCE }, lines, say, signal }) => {
		const input = { db: store.file, site, source: source.trim(), file: lines!, tells: say !== undefined };
		const done = await patiently(() =>
			runJob('push', input, {
				signal,
				...(say && {
					progress: (_done, _all, told) => {
						for (const one of told ?? []) say({ done: one.line, ...one });
					}
				})
			})
		);
		freshenSoon(store, site);
		return done;
	}
} satisfies Rows;

/** A path as the site has it: with its characters encoded or not, whichever way whoever asks wrote them; else as it comes. */
const keptPath = (store: Store, site: number, path: string): string =>
	[...spellingsOf(path)].find((one) => store.working.pages.has(site, one)) ?? path;

function pageAt(store: Store, site: number, path: string): Page {
	const page = store.working.pages.at(site, path);
	if (page) return page;
	throw refuse('page-missing', { path });
}

/** A page as it stands, in a word: strong, as its JSON is the same byte for byte. */
const etagOf = (page: Page) => `"${digest('sha256', JSON.stringify(page), 'base64url').slice(0, 27)}"`;
/** Refuses what is to be done to a page as it was, where it is another now. Throws a `UserError`. */
function refuseOther(page: Page | undefined, path: string, headers: Headers) {
	const [match, none] = [headers.get('if-match'), headers.get('if-none-match')];
	if (match !== null && (!page || match.includes('W/') || !namesTag(match, etagOf(page))))
		throw refuse('page-changed', { path });
	if (none !== null && page && namesTag(none, etagOf(page))) throw refuse('page-changed', { path });
}

type PutRoute = 'PUT /sites/{site}/pages/{path}' | 'PATCH /sites/{site}/pages/{path}';

/** One page, by the same way as many; where it is refused, so is the request. */
async function put(
	{ store, site, stored, path, headers, query: { source = SOURCE } }: Asked<PutRoute>,
	body: Omit<PushedPage, 'path' | 'gone'>,
	isPart: boolean
) {
	const done = await patiently(() => {
		const told: PushTold[] = [];
		const one = function* () {
			// In the transaction that writes it: nobody else comes between.
			refuseOther(store.working.pages.at(stored.id, path), path, headers);
			yield { ...body, path };
		};
		const { edit, revision } = pushPages(store, site, source.trim(), one(), (line) => told.push(line), {
			isPart,
			throws: true
		});
		const { line: _line, ...rest } = told[0]!;
		return { ...rest, path, revision, ...(edit !== undefined && { edit }) };
	});
	freshenSoon(store, site);
	return done;
}
