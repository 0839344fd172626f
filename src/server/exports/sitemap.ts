import { normaliseBase } from '$core';
import type { Store } from '../store/store';

/** One sitemap lists at most so many addresses, and is at most so large (sitemaps 0.9), in bytes. */
const MOST_LISTED = 50_000;
const MOST_BYTES = 52_428_800;
/** No address is longer than this. */
const LONGEST = 2048;

/** Stands in each: one without it is somebody else’s. */
export const SITEMAP_MARK = '<!-- Written by Kephalon from what is released. -->';

const OPEN = `<?xml version="1.0" encoding="UTF-8"?>\n${SITEMAP_MARK}\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" xmlns:xhtml="http://www.w3.org/1999/xhtml" xmlns:image="http://www.google.com/schemas/sitemap-image/1.1">\n`;
const CLOSE = '</urlset>\n';

interface Row {
	readonly address: string;
	readonly modified: string | null;
	readonly language: string | null;
	readonly alternates: string | null;
	/** The hash of its released head. */
	readonly head: string;
}

/**
 * The sitemaps of what is released (sitemaps 0.9, with language versions), none of a private site: pages that are live, shown to search, and stand
 * where they say they stand. Each as its name and its text; with more than one, `sitemap.xml` is the index of the others.
 */
export function* sitemapsOf(
	store: Store,
	name: string,
	most = MOST_LISTED
): Generator<{ readonly name: string; readonly text: string }> {
	const { id, site } = store.working.sites.named(name);
	if (site.private) return;
	const base = normaliseBase(site.base) ?? site.base;
	const parts: { name: string; text: string }[] = [];
	let [entries, bytes, count] = [[] as string[], 0, 0];
	const flush = () => {
		parts.push({ name: `sitemap-${parts.length + 1}.xml`, text: OPEN + entries.join('') + CLOSE });
		[entries, bytes, count] = [[], 0, 0];
	};
	for (const row of rowsOf(store, id)) {
		if (row.address.length > LONGEST) continue;
		const entry = entryOf(row, base, site.languages[0], picturesIn(store.releases.byHash(row.head)?.html ?? ''));
		const size = Buffer.byteLength(entry);
		if (count === most || bytes + size + OPEN.length + CLOSE.length > MOST_BYTES) flush();
		entries.push(entry);
		bytes += size;
		count++;
	}
	// A sitemap lists something, or there is none.
	if (parts.length === 0 && count === 0) return;
	if (parts.length === 0) {
		yield { name: 'sitemap.xml', text: OPEN + entries.join('') + CLOSE };
		return;
	}
	flush();
	const index = parts.map((part) => `<sitemap><loc>${escape(base + part.name)}</loc></sitemap>\n`).join('');
	yield {
		name: 'sitemap.xml',
		text: `<?xml version="1.0" encoding="UTF-8"?>\n${SITEMAP_MARK}\n<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${index}</sitemapindex>\n`
	};
	yield* parts;
}

/** Never hidden pages, the not-found page, or one that says it stands elsewhere. */
function rowsOf(store: Store, site: number): IterableIterator<Row> {
	return store.db
		.prepare<unknown[], Row>(
			`SELECT r.address, r.head, p.modified, p.language, json_extract(p.settings, '$.alternates') AS alternates
			FROM released r JOIN page p ON p.site_id = r.site_id AND p.path = r.path JOIN page_state s ON s.page_id = p.id
			WHERE r.site_id = ? AND r.until IS NULL AND p.hidden = 0 AND p.state = 'live' AND s.canonical = ''
				AND p.type NOT IN (SELECT name FROM content_type c WHERE c.site_id = p.site_id
					AND (json_extract(c.settings, '$.special') = 'not-found' OR json_extract(c.settings, '$.off')))
			ORDER BY r.path`
		)
		.iterate(site);
}

/** A date, with the time behind it where it is whole, with seconds and offset (sitemaps 0.9: W3C Datetime). */
const DATE = /^(\d{4}-\d\d-\d\d)(T\d\d:\d\d:\d\d(?:\.\d+)?(?:Z|[+-]\d\d:\d\d)$)?/;

/** The share pictures of a released head, as their markup says them; escaped already. */
const picturesIn = (html: string): string[] =>
	[...html.matchAll(/<meta property="og:image" content="([^"]+)"/g)].map(([, address]) => address as string);

function entryOf(
	{ address, modified, language, alternates }: Row,
	base: string,
	usual: string | undefined,
	pictures: readonly string[]
): string {
	const moment = DATE.exec(modified ?? '');
	const date = moment ? `<lastmod>${moment[2] ? moment[0] : moment[1]}</lastmod>` : '';
	const versions = Object.entries(alternates === null ? {} : (JSON.parse(alternates) as Record<string, string>));
	const own = language ?? usual;
	const links = [...(own && own !== 'und' && versions.length > 0 ? [[own, address] as const] : []), ...versions].map(
		([tag, to]) =>
			`<xhtml:link rel="alternate" hreflang="${escape(tag)}" href="${escape(to.startsWith('/') ? base + to.slice(1) : to)}"/>`
	);
	const images = [...new Set(pictures)].map((src) => `<image:image><image:loc>${src}</image:loc></image:image>`);
	return `<url><loc>${escape(address)}</loc>${date}${links.join('')}${images.join('')}</url>\n`;
}

const SIGNS: ReadonlyMap<string, string> = new Map([
	['&', '&amp;'],
	['<', '&lt;'],
	['>', '&gt;'],
	['"', '&quot;'],
	["'", '&apos;']
]);
const escape = (text: string) => text.replace(/[&<>"']/g, (sign) => SIGNS.get(sign) as string);
