import { findInRules, isError, type Finding, type Page } from '$core';
import type { Store, StoredSite } from '../store/store';

/**
 * The rules and templates of a site that do not work: each costs its own tag, and whoever runs over the site says so. Of
 * pages, those given; all that have rules of their own unless it is said.
 */
export function faultyRules(
	store: Store,
	{ id, site, types }: StoredSite,
	pages: Iterable<Page> = store.working.pages.overridden(id)
): Finding[] {
	return findInRules(site, types, pages).filter(isError);
}
