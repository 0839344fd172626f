import type { FindingGroup } from '$server/findings/whole';
import type { Aside } from '$server/store/store';
import { ask, at, sending } from '../api';

export type { FindingGroup, Aside };

export const read = (site: string) => ask<{ groups: FindingGroup[]; aside: Aside[] }>(at(site, 'findings'));
export const setAside = (site: string, one: { code: string; tag: string; path?: string; reason: string }) =>
	ask<object>(at(site, 'findings'), sending('POST', one));
export const takeUp = (site: string, { code, tag, path }: Pick<Aside, 'code' | 'tag' | 'path'>) =>
	ask<object>(at(site, 'findings'), sending('POST', { code, tag, path, takeUp: true }));
