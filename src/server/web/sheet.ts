import { headToJson, renderHead, type HeadJson, publicIn } from '$core';
import { workingResolver } from '../heads/heads';
import type { Store, StoredSite } from '../store/store';

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
	{ offset, limit, q }: { readonly offset: number; readonly limit: number; readonly q: string }
): Sheet {
	const stored = store.working.sites.named(name);
	const { id, types } = stored;
	const resolver = workingResolver(store, stored);
	const { changed, added, removed } = store.state.differing(id, 0);
	const rows = store.state.differingRows(id, q, limit, offset);
	const pages = rows.map(({ path, differs }): SheetPage => {
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
		...{ stops: stopsOf(store, id, types), warns: warnsOf(store, id) },
		...(nextChange && { nextChange })
	};
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
