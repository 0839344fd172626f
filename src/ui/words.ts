import type { EditableLayer } from './bench.svelte';
export type { Families } from '$core';

/** Which layer decides when this one says nothing. */
export const describeBase = (layer: EditableLayer) =>
	layer === 'page' ? 'Else its type decides, then the site.' : layer === 'type' ? 'Else the site decides.' : '';

/** A count of pages in words. */
export const pagesInWords = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;
