import type { Suppressed } from '../store/state/suppressions';
import { folderForm, finding, keyOfKind, normaliseBase, type NoPlace } from '$core';
import type { FoundGroup } from './groups';
import { mendTogether, type Mend } from './mends';
import { sharedValues } from '../store/table/counts';
import type { Store, StoredSite } from '../store/store';
import { offTypes } from '../store/working/pages';
import type { WholeFinding } from './wholeFinding';
import { findWordsElsewhere } from './wordsElsewhere';

/** Of each kind so many are told. */
const MOST = 100;

/** All of them, as the kept state tells; nothing is rendered. */
export function findInWhole(store: Store, stored: StoredSite): WholeFinding[] {
	return [
		...shared(store, stored),
		...versions(store, stored),
		...canonicals(store, stored),
		...redirects(store, stored),
		...keys(store, stored),
		...targets(store, stored),
		...findWordsElsewhere(store, stored)
	];
}

const SITE = { of: 'site' } as const;

function shared(store: Store, { id }: StoredSite): WholeFinding[] {
	const of = (
		column: 'title' | 'description' | 'picture',
		code: 'shared-title' | 'shared-description' | 'shared-picture',
		tag: string
	) =>
		sharedValues(store.db, id, column, MOST).map(({ value, pages }) => ({
			finding: finding(code, SITE, tag, { value, pages }),
			pages,
			filter: { [column]: value }
		}));
	return [
		...of('title', 'shared-title', 'title'),
		...of('description', 'shared-description', 'description'),
		...of('picture', 'shared-picture', 'og:image').filter(({ pages }) => pages >= LEAST_SAME_PICTURE)
	];
}

/** A few pages may well show the same picture. */
const LEAST_SAME_PICTURE = 5;

function versions(store: Store, { id }: StoredSite): WholeFinding[] {
	const rows = store.db
		.prepare<
			unknown[],
			{
				path: string;
				language: string;
				target: string;
				isThere: 0 | 1;
				state: string | null;
				isOff: 0 | 1 | null;
				isNamed: 0 | 1;
			}
		>(
			`SELECT p.path, j.key AS language, j.value AS target, t.path IS NOT NULL AS isThere, t.state AS state, t.type IN ${offTypes('t')} AS isOff,
				EXISTS (SELECT 1 FROM json_each(t.settings, '$.alternates') b WHERE b.value = p.path) AS isNamed
			FROM page p JOIN json_each(p.settings, '$.alternates') j LEFT JOIN page t ON t.site_id = p.site_id AND t.path = j.value
			WHERE p.site_id = ? AND p.state = 'live' AND j.value LIKE '/%' AND (t.path IS NULL OR t.state <> 'live' OR isOff OR t.path = p.path OR NOT isNamed) LIMIT ?`
		)
		.all(id, MOST);
	return rows.map(({ path, language, target: to, isThere, state, isOff, isNamed }) => {
		const why: NoPlace | undefined = !isThere
			? { is: 'no-page' }
			: state !== 'live'
				? { is: 'state', state: state ?? '' }
				: isOff
					? { is: 'type-off' }
					: to === path
						? { is: 'itself' }
						: undefined;
		const target = { of: 'page', path } as const;
		const found =
			why === undefined && !isNamed
				? finding('version-one-way', target, 'hreflang', { path, language, to })
				: finding('version-nowhere', target, 'hreflang', { path, language, to, why: why ?? { is: 'no-page' } });
		return { finding: found, pages: 1, paths: [path] };
	});
}

function canonicals(store: Store, { id, site }: StoredSite): WholeFinding[] {
	const base = normaliseBase(site.base) ?? site.base;
	const rows = store.db
		.prepare<unknown[], { path: string; canonical: string }>(
			`SELECT path, canonical FROM page_state WHERE site_id = ? AND head IS NOT NULL AND canonical LIKE ? || '%' ORDER BY page_id LIMIT 20000`
		)
		.all(id, base);
	const target = store.db.prepare(`SELECT state, canonical, head FROM page_state WHERE site_id = ? AND path = ?`);
	const found: WholeFinding[] = [];
	for (const { path, canonical: to } of rows) {
		const place = `/${to.slice(base.length)}`;
		const at = (target.get(id, place) ?? target.get(id, folderForm(place))) as
			{ state: string; canonical: string; head: string | null } | undefined;
		const why: NoPlace | undefined = !at
			? { is: 'no-page', of: 'site' }
			: at.head === null
				? { is: 'not-public' }
				: at.canonical !== ''
					? { is: 'elsewhere', at: at.canonical }
					: undefined;
		if (why)
			found.push({
				finding: finding('canonical-nowhere', { of: 'page', path }, 'canonical', { path, to, why }),
				pages: 1,
				paths: [path]
			});
		if (found.length === MOST) break;
	}
	return found;
}

function redirects(store: Store, { id }: StoredSite): WholeFinding[] {
	const all = store.working.redirects.all(id);
	return Object.entries(all)
		.filter(([, to]) => to.startsWith('/') && !store.working.pages.has(id, to) && !Object.hasOwn(all, to))
		.slice(0, MOST)
		.map(([path, to]) => ({ finding: finding('redirect-nowhere', SITE, undefined, { path, to }), pages: 0 }));
}

function keys(store: Store, { id }: StoredSite): WholeFinding[] {
	const rows = store.db
		.prepare<unknown[], { path: string }>(
			`SELECT path FROM page_state s WHERE site_id = ? AND is_key = 1 AND head IS NOT NULL
				AND (NOT instr((SELECT tags FROM tag_set WHERE id = s.tag_set), ' og:image ') OR picture <> '' AND (SELECT count(*) FROM page_state o WHERE o.site_id = s.site_id AND o.picture = s.picture) > 1) LIMIT ?`
		)
		.all(id, MOST);
	return rows.map(({ path }) => ({
		finding: finding('key-no-picture', { of: 'page', path }, 'og:image', { path }),
		pages: 1,
		paths: [path]
	}));
}

function targets(store: Store, { id }: StoredSite): WholeFinding[] {
	const rows = store.db
		.prepare<unknown[], { value: string; pages: number; paths: string }>(
			`SELECT lower(target) AS value, count(*) AS pages, group_concat(path, char(10)) AS paths FROM page_state
			WHERE site_id = ? AND target <> '' AND head IS NOT NULL GROUP BY lower(target) HAVING pages > 1 ORDER BY pages DESC LIMIT ?`
		)
		.all(id, MOST);
	return rows.map(({ value, pages, paths }) => ({
		finding: finding('target-twice', SITE, 'title', { value, pages }),
		pages,
		paths: paths.split('\n').slice(0, MOST)
	}));
}

/** Those of the whole, gathered by kind. */
export function groupsOfWhole(
	found: readonly WholeFinding[],
	suppressed: Suppressed,
	mends: (found: WholeFinding) => readonly Mend[]
): FoundGroup[] {
	const groups = new Map<string, WholeFinding[]>();
	for (const one of found) {
		if (suppressed.has(one.finding)) continue;
		const key = keyOfKind(one.finding);
		groups.set(key, [...(groups.get(key) ?? []), one]);
	}
	return [...groups.values()].map((all) => {
		const [first] = all as [WholeFinding, ...WholeFinding[]];
		const each = all.map((one) => mends(one));
		return {
			code: first.finding.code,
			tag: first.finding.tag ?? '',
			weight: first.finding.weight,
			pages: all.reduce((sum, { pages }) => sum + Math.max(1, pages), 0),
			found: first.finding,
			mends: mendTogether(each.flat(), all.length, first.finding),
			each: all.map(({ finding: found, pages, filter, paths }, at) => ({
				...{ found, pages, mends: each[at] as readonly Mend[] },
				...(filter && { filter }),
				...(paths && { paths })
			}))
		};
	});
}
