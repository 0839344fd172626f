import { whyNoSource, type DataSource } from '$core';

/** What is typed as a source, as it is kept: null where all of it was taken out; undefined while it is none. */
export function sourceOf(
	{ path, address }: Pick<DataSource, 'path' | 'address'>,
	samples: readonly string[] | undefined
): DataSource | null | undefined {
	if (path === '' && address === '') return null;
	if (whyNoSource({ path, address }) !== undefined) return undefined;
	return { path, address, ...(samples && samples.length > 0 && { samples }) };
}

/** Samples as they are typed, a line each; no more than a source has. */
export const linesIn = (text: string): string[] =>
	[...new Set(text.split('\n').map((line) => line.trim()))].filter((line) => line.startsWith('/')).slice(0, 10);

/** A mapping with one field's place, or without it; null for none. */
export function withMapped(
	mapping: Readonly<Record<string, string>>,
	name: string,
	where: string
): Readonly<Record<string, string>> | null {
	const rest = Object.entries(mapping).filter(([one]) => one !== name);
	const all = where === '' ? rest : [...rest, [name, where] as const];
	return all.length > 0 ? Object.fromEntries(all) : null;
}
