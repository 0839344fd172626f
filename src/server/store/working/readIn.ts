import type { FoundTag, FramedPage, FrameValue, Page } from '$core';
import type { BodyStore } from './bodies';
import { prepared, row, type Prepared, type Db } from '../opening/database';
import { splitBody, type PageRow } from './pageRows';

const SQL = {
	addFound: row<{
		id: number;
	}>(`INSERT INTO page (site_id, path, type, language, state, modified, hidden, fields, settings, origin, source)
		VALUES (@site, @path, coalesce(@type, 'page'), @language, @state, @modified, @hidden, @fields, @settings, @origin, @source)
		ON CONFLICT (site_id, path) DO NOTHING RETURNING id`),
	refreshPage: row<{
		id: number;
		holdsBody: 0 | 1;
	}>(`INSERT INTO page (site_id, path, type, language, state, modified, hidden, fields, settings, origin, source)
		VALUES (@site, @path, coalesce(@type, 'page'), @language, @state, @modified, @hidden, @fields,
			json_patch(json_object('found', json(@found)), json_object('alternates', json(@alternates))), @origin, @source)
		ON CONFLICT (site_id, path) DO UPDATE SET type = coalesce(@type, type), 
			-- One that somebody has set stays where the source tells none.
			language = CASE WHEN coalesce(excluded.language, 'und') = 'und' THEN coalesce(language, excluded.language) ELSE excluded.language END,
			modified = CASE WHEN @columns IS NULL THEN excluded.modified ELSE coalesce(excluded.modified, modified) END,
			-- A table replaces what it has columns for, and fields that somebody wrote here stay.
			fields = CASE WHEN @columns IS NULL AND json_extract(settings, '$.held') IS NULL THEN excluded.fields ELSE
				json_patch(json_patch(
					CASE WHEN @columns IS NULL THEN excluded.fields ELSE json_patch(json_patch(fields, @columns), excluded.fields) END,
					(SELECT json_group_object(value, NULL) FROM json_each(settings, '$.held'))),
					(SELECT json_group_object(value, json(fields -> ('$.' || json_quote(value)))) FROM json_each(settings, '$.held')))
				END,
			origin = CASE WHEN @columns IS NULL THEN @origin WHEN origin = 'gone' THEN NULL ELSE origin END,
			source = CASE WHEN @columns IS NULL THEN @source ELSE source END,
			-- Alternates that somebody has set stay.
			settings = CASE WHEN @alternates IS NULL THEN iif(@columns IS NULL, json_set(settings, '$.found', json(@found)), settings)
				ELSE json_patch(json_object('alternates', json(@alternates)),
					iif(@columns IS NULL, json_set(settings, '$.found', json(@found)), settings)) END,
			hidden = CASE WHEN @hidden THEN 1 WHEN @columns IS NULL AND instr(lower(json_extract(settings, '$.found')), 'noindex') THEN 0
				ELSE hidden END,
			state = CASE WHEN origin = 'gone' THEN 'live' ELSE state END
		RETURNING id, coalesce((SELECT 1 FROM json_each(settings, '$.held') WHERE value = 'body'), 0) AS holdsBody`),
	cameFrom: row<{
		origin: string | null;
		source: string | null;
		hasTable: 0 | 1;
	}>(`SELECT origin, source, EXISTS (SELECT 1 FROM import_source WHERE site_id = @site AND kind = 'table') AS hasTable
		FROM page WHERE site_id = @site AND path = @path`),
	found: row<{ path: string; type: string; language: string | null; found: string | null }>(
		`SELECT path, type, language, json_extract(settings, '$.found') AS found FROM page WHERE site_id = ?`
	),
	written: row<{ keys: string }>(`SELECT keys FROM written WHERE site_id = ? AND path = ?`),
	saveWritten: `INSERT INTO written (site_id, path, keys) VALUES (@site, @path, @keys)
		ON CONFLICT (site_id, path) DO UPDATE SET keys = excluded.keys`,
	pagesFrom: row<PageRow>(
		`SELECT id, path FROM page WHERE site_id = ? AND origin = 'folder' AND coalesce(source, 'folder') = ?`
	),
	pageGone: `UPDATE page SET origin = 'gone', state = 'draft' WHERE id = ?`,
	saveFrames: `UPDATE site SET settings = json_set(settings, '$.frames', json(@frames)) WHERE id = @id`,
	pushed: row<{ source: string; fields: string }>(`SELECT source, fields FROM pushed WHERE site_id = ? AND path = ?`),
	savePushed: `INSERT INTO pushed (site_id, path, source, fields) VALUES (@site, @path, @source, @fields)
		ON CONFLICT (site_id, path) DO UPDATE SET source = excluded.source, fields = excluded.fields`
} as const;

/** Keys kept of what was written into one page's file. */
const MOST_WRITTEN = 1000;

/** A page as reading a folder found it; rules and overrides are not part of it. */
export interface FoundPage extends Pick<Page, 'path' | 'language' | 'modified' | 'fields' | 'found' | 'alternates'> {
	/** Paths of the site that its file links to, decoded; undefined where the file was not read now. */
	readonly links?: readonly string[];
	/** Of a new page, which is live unless this says otherwise; one that is there keeps its own. */
	readonly state?: Page['state'];
	/** Undefined: as it is, or the type `page` for a new one. */
	readonly type: string | undefined;
}

/** What a page came from, where a later reading of it tells whether it is gone. */
export type PageOrigin = 'folder' | 'web';

/** Pages as they are read in from folders, tables and the web, and what is known of where they came from. */
export class ReadInStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(
		db: Db,
		private readonly bodies: BodyStore
	) {
		this.run = prepared(db, SQL);
	}

	/**
	 * Brings a page's content up to date, or adds it; its rules, state and other overrides stay. One that came from a
	 * source is set to draft when a later reading of the source has it no more. What its file says of robots hides it.
	 * `withBody`: false leaves the body as it is. `columns`: the fields that the source speaks of; the others stay then.
	 */
	refreshPage(
		site: number,
		page: FoundPage,
		origin: PageOrigin | null = 'folder',
		{ withBody = true, columns }: { readonly withBody?: boolean; readonly columns?: readonly string[] } = {}
	) {
		const { body, rest } = splitBody(page.fields);
		const isHidden = (page.found ?? []).some(
			({ name, value }) => name.toLowerCase() === 'robots' && /\b(noindex|none)\b/i.test(value)
		);
		const { found = [], alternates } = page;
		const said = {
			origin: origin && 'folder',
			source: origin === 'web' ? origin : null,
			...{ site, path: page.path, type: page.type ?? null },
			language: page.language ?? null,
			modified: page.modified ?? null,
			fields: JSON.stringify(rest),
			state: page.state ?? 'live',
			hidden: isHidden ? 1 : 0
		};
		const settings = JSON.stringify({ found, ...(alternates && { alternates }) });
		const added = this.run('addFound').get({ ...said, settings });
		if (added) {
			if (withBody && body !== undefined) this.bodies.save(added.id, body);
			this.bodies.saveLinks(added.id, page.links);
			return;
		}
		const row = this.run('refreshPage').get({
			...said,
			alternates: alternates ? JSON.stringify(alternates) : null,
			found: JSON.stringify(found),
			columns: columns ? JSON.stringify(Object.fromEntries(columns.map((name) => [name, null]))) : null
		})!;
		if (withBody && !row.holdsBody && (!columns || columns.includes('body'))) this.bodies.save(row.id, body);
		this.bodies.saveLinks(row.id, page.links);
	}

	/** What a later reading would bring a page up to date from. */
	cameFrom(site: number, path: string): PageOrigin | 'table' | undefined {
		const row = this.run('cameFrom').get({ site, path });
		if (row?.origin === 'folder') return row.source === 'web' ? 'web' : 'folder';
		return row?.hasTable ? 'table' : undefined;
	}

	/** Which program sent a page last, and the fields that it sent of it. */
	pushed(site: number, path: string): { readonly source: string; readonly fields: readonly string[] } | undefined {
		const row = this.run('pushed').get(site, path);
		return row && { source: row.source, fields: JSON.parse(row.fields) as string[] };
	}
	savePushed(site: number, path: string, source: string, fields: readonly string[]) {
		this.run('savePushed').run({ site, path, source, fields: JSON.stringify(fields) });
	}

	/** Sets pages that came from a source and are no longer in it to draft; says which. */
	retirePages(site: number, present: ReadonlySet<string>, origin: PageOrigin = 'folder'): string[] {
		const gone: PageRow[] = [];
		// Of many pages few are gone: no more are held.
		for (const row of this.run('pagesFrom').iterate(site, origin)) if (!present.has(row.path)) gone.push(row);
		for (const { id } of gone) this.run('pageGone').run(id);
		return gone.map((row) => row.path);
	}

	/** Which found values are a frame's, counted over all pages (R13). */
	saveFrames(id: number, frames: readonly FrameValue[]) {
		this.run('saveFrames').run({ id, frames: JSON.stringify(frames) });
	}

	/** What each page's own file said, its language and where it stands: without the bodies, which are long. */
	*foundOfPages(site: number): Generator<FramedPage> {
		const rows = this.run('found').iterate(site);
		for (const { path, type, language, found } of rows)
			yield {
				path,
				type,
				...(language && { language }),
				found: found === null ? [] : (JSON.parse(found) as FoundTag[])
			};
	}

	/** The keys of what was written into a page's file: see `written.ts`. */
	writtenInto(site: number, path: string): Set<string> {
		const row = this.run('written').get(site, path);
		return new Set(row ? (JSON.parse(row.keys) as string[]) : []);
	}
	/** Adds to them. Those of the last few dozen heads are remembered. */
	noteWritten(site: number, path: string, keys: readonly string[]) {
		const all = [...new Set([...keys, ...this.writtenInto(site, path)])].slice(0, MOST_WRITTEN);
		this.run('saveWritten').run({ site, path, keys: JSON.stringify(all) });
	}
}
