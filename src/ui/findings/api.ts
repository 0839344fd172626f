import type { FindingGroup } from '$server/findings/whole';
import type { Suppression } from '$server/store/state/suppressions';
import type { Spread } from '$server/findings/counted';
import type { FindingsTold } from '$server/web/findings';
import type { FindingsOfRelease } from '$server/store/releases/releases';
import type { Mend, Tried } from '$server/findings/mends';
import { ask, at, sending, type Answer } from '../api';

export type { FindingGroup, FindingsOfRelease, FindingsTold, Suppression, Mend, Tried, Spread };

/** What was counted last; `wait` waits a moment for the count that goes on. */
export const read = (site: string, wait: boolean) => ask<FindingsTold>(at(site, `findings${wait ? '?wait=1' : ''}`));
export const setAside = (site: string, one: { code: string; tag: string; path?: string; reason: string }) =>
	ask<object>(at(site, 'findings'), sending('POST', one));
export const takeUp = (site: string, { code, tag, path }: Pick<Suppression, 'code' | 'tag' | 'path'>) =>
	ask<object>(at(site, 'findings'), sending('POST', { code, tag, path, takeUp: true }));

/** Does a mend; gives the number of its edit, by which it is taken back. */
export const doMend = (site: string, mend: Mend): Promise<Answer<{ edit?: number }>> =>
	'actions' in mend
		? ask(at(site, 'pages'), sending('POST', { actions: mend.actions }))
		: 'changes' in mend.edit
			? ask(at(site, 'settings'), sending('PATCH', mend.edit))
			: ask(at(site, 'rules'), sending('PUT', mend.edit));
