import type { RuleBody } from '$core';
import { UserError } from '../errors';
import type { Store } from '../store/store';
import type { Made, Origin } from './edit';
import { makeLongEdit } from './longEdit';
import { refuseEdit } from './rules';

/** What a page is to say of a tag by itself; null for nothing. */
export interface RuleChange {
	readonly path: string;
	readonly tag: string;
	readonly body: RuleBody | null;
}

/** Sets many rules of pages as one edit. Throws a `UserError` that names the first that does not work; then nothing is kept. */
export function changeRules(store: Store, name: string, changes: readonly RuleChange[], origin: Origin): Made<number> {
	return makeLongEdit(
		store,
		name,
		{ origin, kind: 'batch', what: { action: { do: 'rule', tag: 'several' }, pages: changes.length } },
		function* (site) {
			for (const { path, tag, body } of changes) {
				yield;
				const place = { layer: 'page', path } as const;
				const [issue] = refuseEdit(store, site, { place, tag, body });
				if (issue) throw new UserError(`${path}, ${tag}: ${issue.message}`);
				store.setRule(site.id, place, tag, undefined, body);
			}
			return changes.length;
		}
	);
}
