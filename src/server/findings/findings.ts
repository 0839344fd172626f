import { findOnPage, keyOfKind, type Page } from '$core';
import { workingResolver } from '../heads/heads';
import type { Store } from '../store/store';
import { pathsOfFilter } from '../store/table/grid';
import { mendsOf } from './mends';
import { groupInWords, type FindingGroup, type FoundGroup } from './groups';
import { findInWhole, groupsOfWhole } from './whole';
import type { WholeFinding } from './wholeFinding';

/** What many pages share can be mended by one template or one way to draw. */
const MENDED_TOGETHER: ReadonlySet<string> = new Set(['shared-title', 'shared-description', 'shared-picture']);

/** Pages that a way to mend is tried on. */
const TRIED_ON = 20;

/** Findings of pages that share something, of each kind, for which ways to mend are sought. */
const MOST_LOOKED = 3;

/** The same in words. */
export const readFindings = (store: Store, name: string): FindingGroup[] => findGroups(store, name).map(groupInWords);

/** Everything that is wrong or weak on a site, the heaviest first, from the kept state. */
export function findGroups(store: Store, name: string): FoundGroup[] {
	const stored = store.working.sites.named(name);
	const { id } = stored;
	const resolver = workingResolver(store, stored);
	const look = (page: Page) => {
		const evaluation = resolver.evaluate(page);
		return findOnPage(page, resolver.headOf(evaluation), evaluation);
	};
	const since = store.releases.findingsSince(id);
	const ofPages = store.state.kinds(id).flatMap(({ code, tag, pages, example, weight }): FoundGroup[] => {
		const page = store.working.pages.byId(example);
		const found = page && look(page).find((one) => one.code === code && (one.tag ?? '') === tag);
		if (!found) return [];
		const filter = { finding: code, ...(tag !== '' && { of: tag }) };
		const others = pathsOfFilter(store.db, id, filter, TRIED_ON).flatMap((path) =>
			path === page.path ? [] : (store.working.pages.at(id, path) ?? [])
		);
		const mends = mendsOf(found, { store, stored, resolver, page, others: others.slice(0, TRIED_ON - 1) });
		return [
			{
				...{ code, tag, weight, pages, filter, mends },
				...(since && sinceOf(since.get(keyOfKind({ code, tag })))),
				...(pages > 1 && { example: page.path }),
				found
			}
		];
	});
	// Pages that share something are looked for one by one, which takes its time: for the first of each kind.
	const looked = new Map<string, number>();
	const mendsOfWhole = ({ finding, paths, filter }: WholeFinding) => {
		const before = looked.get(finding.code) ?? 0;
		if (!MENDED_TOGETHER.has(finding.code) && filter) return [];
		if (filter && before >= MOST_LOOKED) return [];
		looked.set(finding.code, before + 1);
		const some = paths?.slice(0, 3) ?? (filter ? pathsOfFilter(store.db, id, filter, 3) : []);
		const [page, ...others] = some.flatMap((path) => store.working.pages.at(id, path) ?? []);
		return mendsOf(finding, { store, stored, resolver, page, others });
	};
	return [...ofPages, ...groupsOfWhole(findInWhole(store, stored), store.state.suppressions.of(id), mendsOfWhole)].sort(
		(a, b) => b.weight - a.weight || b.pages - a.pages
	);
}

const sinceOf = (release: number | undefined) => (release === undefined ? { isNew: true } : { since: release });
