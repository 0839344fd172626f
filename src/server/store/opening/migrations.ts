import { ownOf } from '$core';

const FILES: Readonly<Record<string, string>> = import.meta.glob('./migrations/*.sql', {
	query: '?raw',
	import: 'default',
	eager: true
});

/** By number from 1, applied in order at start, all in one transaction. Never edit one that was released: add another. */
export const MIGRATIONS: readonly string[] = Object.keys(FILES)
	.sort()
	.map((name) => ownOf(FILES, name) as string);
