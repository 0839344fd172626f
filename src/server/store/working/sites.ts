import { normaliseBase, type ContentType, type Site } from '$core';
import { refuse } from '../../errors';
import { prepared, row, type Db, type Prepared } from '../opening/database';
import type { RuleStore } from './rules';
import type { TypeStore } from './types';

const SQL = {
	siteById: row<SiteRow>(`SELECT id, name, base, settings, revision FROM site WHERE id = ?`),
	siteByName: row<SiteRow>(`SELECT id, name, base, settings, revision FROM site WHERE name = ?`),
	madeAt: row<{ made: string }>(`SELECT made FROM site_made WHERE site_id = ?`),
	sites: row<SiteRow>(`SELECT id, name, base, revision FROM site ORDER BY name`),
	addSite: `INSERT INTO site (name, base, settings) VALUES (@name, @base, @settings)`,
	saveSite: `UPDATE site SET base = @base, settings = @settings WHERE id = @id`,
	renameSite: `UPDATE site SET name = @name WHERE id = @id`
} as const;

interface SiteRow {
	id: number;
	name: string;
	base: string;
	settings: string;
	revision: number;
}

/** A site with all that the resolver needs, but its pages. */
export interface StoredSite {
	readonly id: number;
	readonly revision: number;
	readonly site: Site;
	readonly types: readonly ContentType[];
}

/** Sites with their settings. */
export class SiteStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(
		db: Db,
		private readonly rules: RuleStore,
		private readonly types: TypeStore
	) {
		this.run = prepared(db, SQL);
	}

	names(): { id: number; name: string; base: string }[] {
		return this.run('sites').all();
	}

	/** Throws a `UserError` that names the sites there are, when there is none of this name. */
	named(name: string): StoredSite {
		const found = this.find(name);
		if (found) return found;
		throw refuse('site-missing', { site: name, sites: this.names().map((site) => site.name) });
	}

	/** What tells a site from others, and whether it is as it was; undefined when there is none of this name. */
	brief(name: string): { readonly id: number; readonly revision: number } | undefined {
		return this.run('siteByName').get(name);
	}
	/** The same. Throws a `UserError` when there is none. */
	summary(name: string): { readonly id: number; readonly revision: number } {
		return this.brief(name) ?? this.named(name);
	}

	find(name: string): StoredSite | undefined {
		return this.toSite(this.run('siteByName').get(name));
	}

	byId(id: number): StoredSite | undefined {
		return this.toSite(this.run('siteById').get(id));
	}

	private toSite(row: SiteRow | undefined): StoredSite | undefined {
		if (!row) return undefined;
		const settings = JSON.parse(row.settings) as Omit<Site, 'name' | 'base' | 'rules'>;
		return {
			id: row.id,
			revision: row.revision,
			site: { name: row.name, base: row.base, ...settings, rules: this.rules.ofSite(row.id) },
			types: this.types.all(row.id)
		};
	}

	/** When a site was made (ISO 8601 in UTC). */
	madeAt(site: number): string {
		return this.run('madeAt').get(site)!.made;
	}

	/** Makes a site, or brings its settings and rules to what is given; types and pages are left alone. */
	save(site: Site): number {
		const { name, base, rules, ...settings } = site;
		const known = this.run('siteByName').get(name);
		if (known?.base !== base && normaliseBase(base) === undefined) throw refuse('base-broken', { base });
		const row = { name, base, settings: JSON.stringify(settings) };
		const id = known ? known.id : Number(this.run('addSite').run(row).lastInsertRowid);
		if (known) this.run('saveSite').run({ id, base, settings: row.settings });
		this.rules.replace({ site: id, type: null, page: null }, rules);
		return id;
	}

	rename(id: number, name: string) {
		if (this.find(name)) throw refuse('site-taken', { name });
		this.run('renameSite').run({ id, name });
	}
}
