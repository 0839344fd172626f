import type { ContentType } from '$core';
import { prepared, row, type Db, type Prepared } from '../opening/database';
import type { RuleStore } from './rules';

const SQL = {
	types: row<TypeRow>(`SELECT id, name, settings FROM content_type WHERE site_id = ? ORDER BY name`),
	saveType: row<{ id: number }>(`INSERT INTO content_type (site_id, name, settings) VALUES (@site, @name, @settings)
		ON CONFLICT (site_id, name) DO UPDATE SET settings = excluded.settings RETURNING id`),
	addType: `INSERT INTO content_type (site_id, name, settings) VALUES (@site, @name, @settings) ON CONFLICT DO NOTHING`,
	renameType: `UPDATE content_type SET name = @to WHERE site_id = @site AND name = @from`,
	changeType: `UPDATE page SET type = @to WHERE site_id = @site AND type = @from`,
	dropType: `DELETE FROM content_type WHERE site_id = @site AND name = @name`
} as const;

interface TypeRow {
	id: number;
	name: string;
	settings: string;
}

/** The content types of sites. */
export class TypeStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(
		db: Db,
		private readonly rules: RuleStore
	) {
		this.run = prepared(db, SQL);
	}

	/** The types of a site by name. */
	all(site: number): ContentType[] {
		return this.run('types')
			.all(site)
			.map(({ id, name, settings }) => ({
				name,
				...(JSON.parse(settings) as Omit<ContentType, 'name' | 'rules'>),
				rules: this.rules.ofType(id)
			}));
	}

	save(site: number, type: ContentType) {
		const { name, rules, ...settings } = type;
		const row = this.run('saveType').get({ site, name, settings: JSON.stringify(settings) })!;
		this.rules.replace({ site, type: row.id, page: null }, rules);
	}

	/** Makes a type without fields or rules, unless there is one of the name. */
	ensure(site: number, name: string) {
		this.run('addType').run({ site, name, settings: JSON.stringify({ fields: [] }) });
	}

	rename(site: number, from: string, to: string) {
		// Its pages follow by their foreign key.
		this.run('renameType').run({ site, from, to });
	}
	/** Gives all pages of a type another one. */
	change(site: number, from: string, to: string) {
		this.run('changeType').run({ site, from, to });
	}
	remove(site: number, name: string) {
		this.run('dropType').run({ site, name });
	}

	/** Takes away all but these. */
	keepOnly(site: number, names: ReadonlySet<string>) {
		for (const { name } of this.run('types').all(site)) if (!names.has(name)) this.remove(site, name);
	}
}
