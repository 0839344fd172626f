import type { Picture, Recipe } from '$core';
import { prepared, row, type Prepared, type Db } from '../opening/database';

const SQL = {
	pictures: row<PictureRow>(`SELECT src, facts FROM picture WHERE site_id = ? ORDER BY src`),
	savePicture: `INSERT INTO picture (site_id, src, facts) VALUES (@site, @src, @facts)
		ON CONFLICT (site_id, src) DO UPDATE SET facts = excluded.facts`,
	picturesBySource: row<PictureRow>(
		`SELECT src, facts FROM picture WHERE site_id = ? AND src IN (SELECT value FROM json_each(?)) ORDER BY src`
	),
	pictureBySource: row<PictureRow>(`SELECT src, facts FROM picture WHERE site_id = ? AND src = ?`),
	shownPictures: row<PictureRow>(`SELECT src, facts FROM picture WHERE site_id = @site AND src IN (
		SELECT json_extract(fields, '$.pictures[0].src') FROM page WHERE site_id = @site
		UNION SELECT json_extract(fields, '$.pictures[1].src') FROM page WHERE site_id = @site
		UNION SELECT json_extract(fields, '$.picture.src') FROM page WHERE site_id = @site)`),
	// A page names a picture where a text of its fields or of its rules is the picture's source.
	named: row<{
		src: string;
		path: string;
		named: number;
	}>(`WITH naming AS (
			SELECT DISTINCT p.path, j.value AS src FROM page p, json_tree(p.fields) j WHERE p.site_id = @site AND j.type = 'text'
				AND j.value IN (SELECT src FROM picture WHERE site_id = @site)
			UNION
			SELECT p.path, j.value FROM rule r JOIN page p ON p.id = r.page_id, json_tree(r.body) j WHERE r.site_id = @site
				AND r.page_id IS NOT NULL AND j.type = 'text' AND j.value IN (SELECT src FROM picture WHERE site_id = @site)
		), numbered AS (SELECT src, path, count(*) OVER (PARTITION BY src) AS named,
			row_number() OVER (PARTITION BY src ORDER BY path) AS at FROM naming)
		SELECT src, path, named FROM numbered WHERE at <= @listed ORDER BY src, path`),
	dropPicture: `DELETE FROM picture WHERE site_id = ? AND src = ?`,
	pictureSources: row<{ src: string }>(`SELECT src FROM picture WHERE site_id = ?`),
	taken: row<{ file: string; facts: string }>(`SELECT file, facts FROM taken WHERE original = ?`),
	saveTaken: `INSERT INTO taken (original, file, facts) VALUES (@original, @file, @facts)
		ON CONFLICT (original) DO UPDATE SET file = excluded.file, facts = excluded.facts`,
	dropTaken: `DELETE FROM taken WHERE file = ?`,
	recipe: row<{ recipe: string }>(`SELECT recipe FROM recipe WHERE name = ? LIMIT 1`),
	recipes: row<{ name: string }>(`SELECT DISTINCT name FROM recipe`),
	owners: row<{
		site: string;
		isPrivate: 0 | 1;
	}>(`SELECT name AS site, coalesce(json_extract(settings, '$.private'), 0) AS isPrivate FROM site
		WHERE id IN (SELECT site_id FROM media_of WHERE hash = substr(@name, 1, 24) UNION SELECT site_id FROM recipe WHERE name = @name)`),
	saveRecipe: `INSERT INTO recipe (name, site_id, recipe, used) VALUES (@name, @site, @recipe, @used)
		ON CONFLICT (name, site_id) DO UPDATE SET used = excluded.used`,
	dropRecipes: `DELETE FROM recipe WHERE used < @before AND used < coalesce((SELECT created FROM release
		WHERE release.site_id = recipe.site_id ORDER BY number DESC LIMIT 1 OFFSET 1), @before)`
} as const;

interface PictureRow {
	src: string;
	facts: string;
}
const toPicture = ({ src, facts }: PictureRow): Picture => ({ src, ...(JSON.parse(facts) as Omit<Picture, 'src'>) });

/** The pictures of sites: their facts, what was made of files that came, and what share pictures are drawn from. */
export class PictureStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	all(site: number): Picture[] {
		return this.run('pictures').all(site).map(toPicture);
	}

	one(site: number, src: string): Picture | undefined {
		const row = this.run('pictureBySource').get(site, src);
		return row && toPicture(row);
	}

	/** Those of the sources that are pictures of the site. */
	of(site: number, sources: readonly string[]): Picture[] {
		return this.run('picturesBySource').all(site, JSON.stringify(sources)).map(toPicture);
	}

	/** Those that stand first on a page: most of what can come to stand on a card. */
	shown(site: number): Picture[] {
		return this.run('shownPictures').all({ site }).map(toPicture);
	}

	/** How many pages name each picture, and the first of them. */
	named(site: number, listed: number): { src: string; named: number; namedOn: string[] }[] {
		const found = new Map<string, { src: string; named: number; namedOn: string[] }>();
		for (const { src, path, named } of this.run('named').all({ site, listed })) {
			const one = found.get(src) ?? { src, named, namedOn: [] };
			one.namedOn.push(path);
			found.set(src, one);
		}
		return [...found.values()];
	}

	remove(site: number, src: string) {
		this.run('dropPicture').run(site, src);
	}

	/** What was made of a file when it came before, by the hash of its bytes. */
	taken(original: string): { file: string; facts: Omit<Picture, 'src'> } | undefined {
		const row = this.run('taken').get(original);
		return row && { file: row.file, facts: JSON.parse(row.facts) as Omit<Picture, 'src'> };
	}
	saveTaken(original: string, file: string, facts: Omit<Picture, 'src'>) {
		this.run('saveTaken').run({ original, file, facts: JSON.stringify(facts) });
	}
	forgetTaken(file: string) {
		this.run('dropTaken').run(file);
	}

	/** What a share picture is drawn from, by the name of its file. */
	recipe(name: string): Recipe | undefined {
		const row = this.run('recipe').get(name);
		return row && (JSON.parse(row.recipe) as Recipe);
	}
	/** The sites that have or had the picture of a file in the library, or that one was made of. */
	ownersOf(name: string): { readonly site: string; readonly isPrivate: 0 | 1 }[] {
		return this.run('owners').all({ name });
	}
	recipeNames(): string[] {
		return this.run('recipes')
			.all()
			.map(({ name }) => name);
	}
	saveRecipes(site: number, recipes: ReadonlyMap<string, Recipe>, used: string) {
		for (const [name, recipe] of recipes)
			this.run('saveRecipe').run({ name, site, recipe: JSON.stringify(recipe), used });
	}
	/** Takes away the recipes not used since a moment (ISO 8601), but those that the last two releases named. */
	dropRecipes(before: string) {
		this.run('dropRecipes').run({ before });
	}

	save(site: number, pictures: Iterable<Picture>, replace = false) {
		const kept = new Set<string>();
		for (const { src, ...facts } of pictures) {
			this.run('savePicture').run({ site, src, facts: JSON.stringify(facts) });
			kept.add(src);
		}
		if (!replace) return;
		for (const { src } of this.run('pictureSources').all(site)) if (!kept.has(src)) this.remove(site, src);
	}
}
