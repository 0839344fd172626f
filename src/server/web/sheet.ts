import { headToJson, renderHead, type HeadJson, publicIn } from '$core';
import { refuse } from '../errors';
import { workingResolver } from '../heads/heads';
import type { Store, StoredSite } from '../store/store';
import { cursorOf, placeOf } from './cursor';

/** One page of what a release would send out: its tags before and after. */
interface SheetPage {
	readonly path: string;
	readonly kind: 'changed' | 'new' | 'gone';
	/** Lines of markup that go, and that come. */
	readonly gone: readonly string[];
	readonly come: readonly string[];
	readonly before: HeadJson | null;
	readonly after: HeadJson | null;
}

export interface Sheet {
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	readonly pages: readonly SheetPage[];
	/** What `after` is to be for those that follow; missing with the last. */
	readonly next?: string;
	/** Pages yet to be looked at since they were touched, of how many: until it is none, more may differ. */
	readonly unseen: number;
	readonly all: number;
	/** What stops the release, and what only warns. */
	readonly stops: readonly string[];
	readonly warns: readonly string[];
	/** Pages that say something of the day, and when (milliseconds) the first says something else; missing where none does. */
	readonly nextChange?: { readonly at: number; readonly pages: number };
}

const linesOf = (html: string) => html.split('\n').filter(Boolean);

/** What a release would send out now, from the kept state; only the pages that are shown are rendered. */
export function readSheet(
	store: Store,
	name: string,
	{
		after,
		limit,
		q = ''
	}: { readonly after?: string | undefined; readonly limit: number; readonly q?: string | undefined }
): Sheet {
	const stored = store.working.sites.named(name);
	const { id, types } = stored;
	const resolver = workingResolver(store, stored);
	const { changed, added, removed } = store.state.differing(id, 0);
	// One more tells whether others follow.
	const rows = store.state.differingRows(id, q, limit + 1, after === undefined ? undefined : rowAt(after));
	const last = rows.length > limit ? rows[limit - 1] : undefined;
	const pages = rows.slice(0, limit).map(({ path, differs }): SheetPage => {
		const released = store.releases.head(id, { path });
		const page = differs === 3 ? undefined : store.working.pages.at(id, path);
		const head = page && resolver.resolveHead(page);
		const [was, is] = [linesOf(released?.html ?? ''), head ? linesOf(renderHead(head)) : []];
		return {
			path,
			kind: differs === 2 ? 'new' : differs === 3 ? 'gone' : 'changed',
			gone: was.filter((line) => !is.includes(line)),
			come: is.filter((line) => !was.includes(line)),
			before: released ? (JSON.parse(released.json) as HeadJson) : null,
			after: head ? headToJson(head) : null
		};
	});
	const looked = { unseen: store.state.countStale(id), all: store.working.pages.count(id).all };
	const nextChange = store.state.nextChange(id);
	return {
		...{ changed, added, removed, pages, ...looked },
		...(last && { next: cursorOf([LIST, last.differs, last.id, last.path]) }),
		...{ stops: stopsOf(store, id, types), warns: warnsOf(store, id) },
		...(nextChange && { nextChange })
	};
}

const LIST = 'sheet';
function rowAt(cursor: string) {
	const [differs, id, path] = placeOf(cursor, LIST, 3);
	if (typeof differs !== 'number' || typeof id !== 'number' || typeof path !== 'string') throw refuse('cursor-broken');
	return { differs, id, path };
}

function stopsOf(store: Store, id: number, types: StoredSite['types']): string[] {
	const home = store.working.pages.at(id, '/');
	const isReleased = store.releases.head(id, { path: '/' }) !== undefined;
	const isPublic = home !== undefined && publicIn(types)(home);
	const isHalfMade = store.record.unfinished().some(({ site }) => site === id);
	return [
		...(isReleased && !isPublic
			? ['The home page would go: there would be nothing at the address people type first.']
			: []),
		...(isHalfMade ? ['Many pages are being put in at the moment: release when that is done.'] : [])
	];
}

function warnsOf(store: Store, id: number): string[] {
	const blank = store.state.keyPagesWith(id, ['no-picture', 'no-title', 'no-description']);
	const heavy = store.state.kinds(id).filter(({ weight, code }) => weight >= 6 && code !== 'no-picture');
	return [
		...blank.map((path) => `The key page ${path} would be shared without a picture, a title or a description.`),
		...heavy.map(
			({ code, pages }) =>
				`${pages} ${pages === 1 ? 'page has' : 'pages have'} a grave finding: ${code.replaceAll('-', ' ')}.`
		)
	];
}
