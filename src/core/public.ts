import type { ContentType, Page } from './model';

/** Says of pages whether they are public: live, and of a type that is not switched off. Only those are released. */
export function publicIn(types: readonly ContentType[]): (page: Pick<Page, 'state' | 'type'>) => boolean {
	const off = new Set(types.filter((type) => type.off).map(({ name }) => name));
	return ({ state, type }) => state === 'live' && !off.has(type);
}
