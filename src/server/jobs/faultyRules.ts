import { findInRules, isError, type Finding } from '$core';
import type { Store, StoredSite } from '../store/store';

/** The rules and templates of a site that do not work: each costs its own tag, and whoever runs over the site says so. */
export function faultyRules(store: Store, { id, site, types }: StoredSite): Finding[] {
	return findInRules(site, types, store.overriddenPages(id)).filter(isError);
}
