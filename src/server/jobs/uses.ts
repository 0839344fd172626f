import { keptCopyOf, type Page, type Picture, type Resolver } from '$core';

/** Where one picture is used. Paths are the first of them, by path. */
export interface PictureUse {
	/** Pages whose card shows it. */
	readonly shown: number;
	readonly shownOn: readonly string[];
	/** Pages whose fields or rules name it. */
	readonly named: number;
	readonly namedOn: readonly string[];
}
/** By the source of the picture. */
export type PictureUses = Readonly<Record<string, PictureUse>>;

const LISTED = 6;

/** Goes through all pages of a site and notes which pictures they name, and which their cards come to. */
export function countUses(resolver: Resolver, pages: Iterable<Page>, pictures: readonly Picture[]): PictureUses {
	const sourceOf = new Map(pictures.map((picture) => [keptCopyOf(picture)?.file, picture.src]));
	const uses = new Map<string, { shown: number; shownOn: string[]; named: number; namedOn: string[] }>();
	const note = (src: string, what: 'shown' | 'named', path: string) => {
		let use = uses.get(src);
		if (!use) uses.set(src, (use = { shown: 0, shownOn: [], named: 0, namedOn: [] }));
		if (++use[what] <= LISTED) use[`${what}On`].push(path);
	};
	for (const page of pages) {
		for (const src of new Set([...sourcesIn(page.fields), ...sourcesIn(page.rules)])) note(src, 'named', page.path);
		const evaluation = resolver.evaluate(page);
		const picture = evaluation.pictureOf('og:image');
		const lead = picture?.recipe?.picture?.file;
		const src = picture?.recipe ? lead && sourceOf.get(lead) : picture?.src;
		if (src) note(src, 'shown', page.path);
	}
	return Object.fromEntries(uses);
}

/** Every text below a value that could be the source of a picture; long texts are bodies. */
function sourcesIn(value: unknown): string[] {
	if (typeof value === 'string') return value.length < 500 && /[./]/.test(value) ? [value] : [];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value).flatMap(sourcesIn);
}
