import { error } from '@sveltejs/kit';
import type { HeadJson, Picture, PictureMention } from '$core';
import { UserError } from '$server/errors';
import { openStore, standIn } from '$server/web/working';
import type { PageServerLoad } from './$types';

/** How many pages the mover lists at the most. */
const LISTED = 5000;

/** All the bench needs to work a page out by itself: the layers, the page, and the pictures they name. */
export const load: PageServerLoad = ({ params, url }) => {
	try {
		const store = openStore();
		const { id, site, types, revision } = store.site(params.site);
		const pages = store.pageIndex(id, LISTED);
		const path = url.searchParams.get('page') ?? pages[0]?.path;
		if (path === undefined)
			error(404, `The site "${params.site}" has no pages yet. Read some in with kephalon import.`);
		const page = store.page(id, path);
		if (!page) error(404, `The site "${params.site}" has no page ${path}.`);
		const release = store.releases.latest(id);
		const released = release && store.releases.head(release.id, { path });
		const named = new Set(
			picturesNamed([
				site.fields,
				site.translations,
				types.map((type) => type.picture),
				page.fields,
				site.rules,
				types.map((type) => type.rules),
				page.rules
			])
		);
		const pictures: Picture[] = store.pictures(id).filter((picture) => named.has(picture.src));
		return {
			...{ site, types, page, pages, pictures, revision },
			count: store.countPages(id),
			released: released ? (JSON.parse(released.json) as HeadJson) : null,
			standIn: standIn() ?? null
		};
	} catch (problem) {
		if (problem instanceof UserError) error(404, problem.message);
		throw problem;
	}
};

/** Every text below a value that could be the source of a picture. */
function picturesNamed(value: unknown): string[] {
	if (typeof value === 'string') return [value];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value as Record<string, unknown | PictureMention>).flatMap(picturesNamed);
}
