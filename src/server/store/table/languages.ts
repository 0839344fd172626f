import type { Db } from '../opening/database';
import { offTypes } from '../working/pages';

/** How many public pages of each type are in each language; one that says none is in the site's. */
export const publicCounts = (db: Db, site: number, usual: string) =>
	db
		.prepare<unknown[], { type: string; language: string; pages: number }>(
			`SELECT p.type, coalesce(p.language, ?) AS language, count(*) AS pages FROM page p WHERE p.site_id = ? AND p.state = 'live' AND p.type NOT IN ${offTypes('p')} GROUP BY 1, 2`
		)
		.all(usual, site);

/** The first public pages of a type in a language that they name. */
export const publicPaths = (db: Db, site: number, type: string, language: string, limit: number): string[] =>
	db
		.prepare<unknown[], { path: string }>(
			`SELECT p.path FROM page p WHERE p.site_id = ? AND p.type = ? AND p.language = ? AND p.state = 'live' AND p.type NOT IN ${offTypes('p')} ORDER BY p.path LIMIT ?`
		)
		.all(site, type, language, limit)
		.map(({ path }) => path);
