import type { EditableLayer } from './bench.svelte';
export type { Families } from '$core';

/** Which layer decides when this one says nothing. */
export const describeBase = (layer: EditableLayer) =>
	layer === 'page' ? 'Else its type decides, then the site.' : layer === 'type' ? 'Else the site decides.' : '';

/** A count of pages in words. */
export const pagesInWords = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;

/** The server that stands in for a site that is not on the net. */
export type StandIn = { readonly base: string; readonly origin: string } | null;

/**
 * Where a picture of the site can be fetched from now: those of the library from Kephalon itself, others from the
 * stand-in's server, if there is one.
 */
export function fetchable(address: string, base: string, standIn: StandIn): string {
	if (address.startsWith(`${base}media/`)) return `/${address.slice(base.length)}`;
	return standIn && address.startsWith(standIn.base)
		? `${standIn.origin}/${address.slice(standIn.base.length)}`
		: address;
}
