import type { ContentType, Page } from './model';

/** Why nobody sees a page: its state, or that its type is switched off. */
export type Hidden = Exclude<Page['state'], 'live'> | 'off';

/** Says of pages why they are not public: undefined for those that are, live and of a type that is not switched off. */
export function hiddenIn(types: readonly ContentType[]): (page: Pick<Page, 'state' | 'type'>) => Hidden | undefined {
	const off = new Set(types.filter((type) => type.off).map(({ name }) => name));
	return ({ state, type }) => (state !== 'live' ? state : off.has(type) ? 'off' : undefined);
}

/** Says of pages whether they are public. Only those are released. */
export function publicIn(types: readonly ContentType[]): (page: Pick<Page, 'state' | 'type'>) => boolean {
	const hidden = hiddenIn(types);
	return (page) => hidden(page) === undefined;
}
