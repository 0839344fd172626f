import type { Rule, RuleBody } from '$core';
import { refuse } from '../../errors';
import { prepared, row, type Db, type Prepared } from '../opening/database';

const SQL = {
	siteRules: row<RuleRow>(
		`SELECT tag, language, body FROM rule WHERE site_id = ? AND type_id IS NULL AND page_id IS NULL ORDER BY tag, language`
	),
	typeRules: row<RuleRow>(`SELECT tag, language, body FROM rule WHERE type_id = ? ORDER BY tag, language`),
	pageRules: row<RuleRow>(`SELECT tag, language, body FROM rule WHERE page_id = ? ORDER BY tag, language`),
	rulesOf: row<RuleRow & { id: number }>(
		`SELECT page_id AS id, tag, language, body FROM rule WHERE page_id IN (SELECT value FROM json_each(?))`
	),
	saveRule: `INSERT INTO rule (site_id, type_id, page_id, tag, language, body) VALUES (@site, @type, @page, @tag, @language, @body)
		ON CONFLICT (site_id, coalesce(type_id, 0), coalesce(page_id, 0), tag, language) DO UPDATE SET body = excluded.body WHERE body <> excluded.body`,
	dropSameRule: `DELETE FROM rule WHERE site_id = @site AND coalesce(type_id, 0) = coalesce(@type, 0)
		AND coalesce(page_id, 0) = coalesce(@page, 0) AND tag = @tag AND lower(language) = lower(@language) AND language IS NOT @kept`,
	dropRule: `DELETE FROM rule WHERE site_id = @site AND coalesce(type_id, 0) = coalesce(@type, 0)
		AND coalesce(page_id, 0) = coalesce(@page, 0) AND tag = @tag AND language = @language`,
	types: row<{ id: number; name: string }>(
		`SELECT id, name, settings FROM content_type WHERE site_id = ? ORDER BY name`
	),
	hasPage: row<{ id: number }>(`SELECT id FROM page WHERE site_id = ? AND path = ?`)
} as const;

interface RuleRow {
	tag: string;
	language: string;
	body: string;
}
/** Who has a rule: the site itself where neither is named. */
interface Owner {
	readonly site: number;
	readonly type: number | null;
	readonly page: number | null;
}

/** The place where a rule stands: the site itself, or one of its types or pages by name or path. */
export type RulePlace =
	| { readonly layer: 'site' }
	| { readonly layer: 'type'; readonly name: string }
	| { readonly layer: 'page'; readonly path: string };

/** What is said of tags at the site, at its types and at its pages. */
export class RuleStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(
		db: Db,
		/** Runs writes together, wholly or not at all. */
		private readonly together: <T>(work: () => T) => T
	) {
		this.run = prepared(db, SQL);
	}

	/** The rules of a site itself. */
	ofSite(site: number): Rule[] {
		return this.run('siteRules').all(site).map(toRule);
	}
	/** The rules of a type, by its id. */
	ofType(type: number): Rule[] {
		return this.run('typeRules').all(type).map(toRule);
	}
	ofPage(id: number): Rule[] {
		return this.run('pageRules').all(id).map(toRule);
	}
	/** The rules of pages' own, by the ids of the pages. */
	ofPages(ids: readonly number[]): Map<number, Rule[]> {
		const rules = new Map<number, Rule[]>();
		for (const { id, ...row } of this.run('rulesOf').all(JSON.stringify(ids)))
			rules.set(id, [...(rules.get(id) ?? []), toRule(row)]);
		return rules;
	}

	/** Sets a rule, or takes it away when the body is null. */
	set(site: number, place: RulePlace, tag: string, language: string | undefined, body: RuleBody | null) {
		this.together(() => {
			const where = { site, ...this.ownerOf(site, place), tag, language: language ?? '' };
			// Also one whose language tag differs by case alone: it is the same rule.
			this.run('dropSameRule').run({ ...where, kept: body ? where.language : null });
			if (body) this.run('saveRule').run({ ...where, body: JSON.stringify(body) });
		});
	}

	private ownerOf(site: number, place: RulePlace): { type: number | null; page: number | null } {
		if (place.layer === 'site') return { type: null, page: null };
		if (place.layer === 'type') {
			const type = this.run('types')
				.all(site)
				.find((row) => row.name === place.name);
			if (!type) throw refuse('type-missing', { contentType: place.name });
			return { type: type.id, page: null };
		}
		const page = this.run('hasPage').get(site, place.path);
		if (!page) throw refuse('page-missing', { path: place.path });
		return { type: null, page: page.id };
	}

	/** Brings the rules of an owner to what is given. What stays as it is, is not written: nothing becomes stale by it. */
	replace(owner: Owner, rules: readonly Rule[]) {
		const { site, type, page } = owner;
		const rows =
			page !== null
				? this.run('pageRules').all(page)
				: type !== null
					? this.run('typeRules').all(type)
					: this.run('siteRules').all(site);
		const before = new Map(rows.map((row) => [`${row.tag} ${row.language}`, row.body]));
		for (const { tag, language = '', ...rest } of rules) {
			const body = JSON.stringify(rest);
			if (before.get(`${tag} ${language}`) !== body) this.run('saveRule').run({ ...owner, tag, language, body });
			before.delete(`${tag} ${language}`);
		}
		for (const row of rows)
			if (before.has(`${row.tag} ${row.language}`))
				this.run('dropRule').run({ ...owner, tag: row.tag, language: row.language });
	}
}

function toRule({ tag, language, body }: RuleRow): Rule {
	return { tag, ...(language && { language }), ...(JSON.parse(body) as RuleBody) };
}
