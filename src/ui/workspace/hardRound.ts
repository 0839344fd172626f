import { wording } from '$ui/words/en/workspace';
import { HARD_KINDS, type HardPage } from '$core';
import { call, isRefused } from '$ui/client';

/** The round of the pages of a type that are hard on its templates: each comes once, then they are looked for anew. */
export class HardRound {
	private type = '';
	private pages: readonly (readonly HardPage[])[] = [];
	private at = -1;

	constructor(private readonly siteName: string) {}

	/** The paths of all of them; a sentence where it is refused. */
	async all(type: string): Promise<readonly string[] | string> {
		const found = await call('GET /sites/{site}/hard', { site: this.siteName, query: { type } });
		return isRefused(found) ? found.refused : byPath(found).map(([first]) => first!.path);
	}

	/** The next one with what makes it hard in a sentence; undefined for none; a sentence alone when it is refused. */
	async next(type: string): Promise<{ readonly path?: string; readonly says: string } | undefined> {
		if (this.type !== type || this.at + 1 >= this.pages.length) {
			const found = await call('GET /sites/{site}/hard', { site: this.siteName, query: { type } });
			if (isRefused(found)) return { says: found.refused };
			[this.type, this.pages, this.at] = [type, byPath(found), -1];
		}
		const next = this.pages[++this.at];
		if (!next?.[0]) return undefined;
		const why = next.map(({ kind, measure }) => `${HARD_KINDS[kind]} (${measure})`).join(', ');
		return { path: next[0].path, says: wording.ofHardPagesTheOneWith(this.at + 1, this.pages.length, why) };
	}
}

/** A page that is hard in two ways comes once. */
function byPath(found: readonly HardPage[]): HardPage[][] {
	const pages = new Map<string, HardPage[]>();
	for (const one of found) pages.set(one.path, [...(pages.get(one.path) ?? []), one]);
	return [...pages.values()];
}
