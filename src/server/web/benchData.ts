import { headToJson, Resolver, type HeadJson, type PictureMention } from '$core';
import type { Store } from '../store/store';

/** All the bench needs to work a page out by itself: the layers, the page, the pictures they name, and the way to others. */
export function readBenchData(store: Store, name: string, wanted: string | null) {
	const { id, site, types, revision } = store.site(name);
	const path = wanted ?? store.firstPath(id);
	const page = path === undefined ? undefined : store.page(id, path);
	if (!page) return { path, page };
	const release = store.releases.latest(id);
	const released = release && store.releases.head(id, { path: page.path });
	const named = new Set(
		picturesNamed([
			site.fields,
			site.translations,
			types.map((type) => [type.picture, type.pictureBy]),
			page.fields,
			site.rules,
			types.map((type) => type.rules),
			page.rules
		])
	);
	const pictures = store.picturesOf(id, [...named]);
	const now = new Date().toISOString();
	return {
		...{ path, site, types, page, pictures, revision },
		beside: store.pathsBeside(id, page.path),
		count: store.countPages(id),
		server: { now, head: headToJson(new Resolver({ site, types, pictures }, now).resolveHead(page)) },
		released: released ? (JSON.parse(released.json) as HeadJson) : null
	};
}

/** Every text below a value that could be the source of a picture. */
function picturesNamed(value: unknown): string[] {
	if (typeof value === 'string') return [value];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value as Record<string, unknown | PictureMention>).flatMap(picturesNamed);
}
