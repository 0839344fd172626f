import { ownOf } from '$core';
import { prepared, row, type Prepared, type Db, type Statement } from '../opening/database';

const SQL = {
	next: row<{ revision: number }>(`UPDATE site SET revision = revision + 1 WHERE id = ? RETURNING revision`),
	same: `UPDATE site SET revision = revision - 1 WHERE id = ?`,
	add: row<{ id: number }>(`INSERT INTO edit (site_id, revision, made, author, origin, kind, what, takes_back)
		VALUES (@site, @revision, @made, @author, @origin, @kind, @what, @takesBack) RETURNING id`),
	tell: `UPDATE edit SET what = ? WHERE id = ?`,
	ledTo: `UPDATE edit SET revision = ? WHERE id = ?`,
	beginLong: `INSERT INTO unfinished (edit_id, is_new) VALUES (?, ?)`,
	endLong: `DELETE FROM unfinished WHERE edit_id = ?`,
	unfinished: row<
		UnfinishedEdit & { isNew: 0 | 1 | boolean }
	>(`SELECT u.edit_id AS id, e.site_id AS site, u.is_new AS isNew, e.made, e.author, e.kind
		FROM unfinished u JOIN edit e ON e.id = u.edit_id`),
	drop: `DELETE FROM edit WHERE id = ?`,
	begin: `INSERT INTO editing (edit_id) VALUES (?)`,
	end: `DELETE FROM editing`,
	hasChanged: `SELECT 1 FROM edit_change WHERE edit_id = ? LIMIT 1`,
	list: `SELECT id, revision, made, author, origin, kind, what, takes_back AS takesBack, is_back AS isBack
		FROM edit WHERE site_id = @site AND id < @before ORDER BY id DESC LIMIT @limit`,
	one: row<
		RecordedEdit & { what: string }
	>(`SELECT id, revision, made, author, origin, kind, what, takes_back AS takesBack, is_back AS isBack
		FROM edit WHERE site_id = ? AND id = ?`),
	lastToTakeBack: `SELECT id FROM edit WHERE site_id = ? AND is_back = 0 AND takes_back IS NULL
		AND id NOT IN (SELECT edit_id FROM unfinished) ORDER BY id DESC LIMIT 1`,
	lastToDoAgain: `SELECT id FROM edit u WHERE site_id = @site AND is_back = 0 AND takes_back IN
			(SELECT id FROM edit WHERE site_id = @site AND takes_back IS NULL)
		AND NOT EXISTS (SELECT 1 FROM edit n WHERE n.site_id = @site AND n.takes_back IS NULL AND n.id > u.id)
		ORDER BY id DESC LIMIT 1`,
	countChanges: row<{ n: number }>(`SELECT count(*) AS n FROM (SELECT 1 FROM edit_change WHERE edit_id = ? LIMIT ?)`),
	countSince: row<{ n: number }>(`SELECT count(*) AS n FROM edit WHERE site_id = @site AND revision > @since`),
	// What was done and taken back since counts for nothing; what was taken back of before counts.
	pagesChangedSince: row<{
		page: number | null;
	}>(`SELECT DISTINCT CASE c.place WHEN 'page' THEN CAST(c.key AS INTEGER) WHEN 'page_body' THEN CAST(c.key AS INTEGER)
			WHEN 'rule' THEN coalesce(r.page_id, json_extract(c.before, '$.page_id')) END AS page
		FROM edit e JOIN edit_change c ON c.edit_id = e.id LEFT JOIN rule r ON c.place = 'rule' AND r.id = CAST(c.key AS INTEGER)
		WHERE e.site_id = @site AND e.revision > @since AND e.is_back = 0
			AND (e.takes_back IS NULL OR EXISTS (SELECT 1 FROM edit t WHERE t.id = e.takes_back AND t.revision <= @since))`),
	touchedSince: row<{
		place: string;
		page: number | null;
		type: string | null;
	}>(`SELECT DISTINCT c.place,
			CASE c.place WHEN 'page' THEN CAST(c.key AS INTEGER) WHEN 'page_body' THEN CAST(c.key AS INTEGER)
				WHEN 'rule' THEN coalesce(r.page_id, json_extract(c.before, '$.page_id')) END AS page,
			CASE c.place WHEN 'content_type' THEN (SELECT name FROM content_type WHERE id = CAST(c.key AS INTEGER))
				WHEN 'rule' THEN (SELECT name FROM content_type WHERE id = coalesce(r.type_id, json_extract(c.before, '$.type_id'))) END AS type
		FROM edit e JOIN edit_change c ON c.edit_id = e.id LEFT JOIN rule r ON c.place = 'rule' AND r.id = CAST(c.key AS INTEGER)
		WHERE e.site_id = @site AND e.is_back = 0 AND e.origin NOT IN ('command', 'setup') AND e.id > coalesce((SELECT max(id) FROM edit
			WHERE site_id = @site AND kind = 'import' AND json_extract(what, '$.from') = @from AND is_back = 0), 0)`),
	countPagesMade: row<{
		n: number;
	}>(`SELECT count(*) AS n FROM edit_change c JOIN page p ON p.id = CAST(c.key AS INTEGER)
		WHERE c.edit_id = ? AND c.place = 'page' AND c.before IS NULL`),
	changes: row<ChangeRow>(
		`SELECT id, place, key, before, after FROM edit_change WHERE edit_id = ? AND id < ? ORDER BY id DESC LIMIT ?`
	),
	// The page that a row belongs to, as it stands, and as it was where the row is the page's own.
	noted:
		row<NotedRow>(`SELECT c.id, c.place, json_extract(c.before, '$.path') AS beforePath, json_extract(c.before, '$.type') AS beforeType,
			json_extract(c.before, '$.language') AS beforeLanguage, p.path, p.type, p.language,
			c.place IN ('page', 'page_body') OR (c.place = 'rule' AND coalesce(r.page_id, json_extract(c.before, '$.page_id')) IS NOT NULL) AS isOfPage
		FROM edit_change c LEFT JOIN rule r ON c.place = 'rule' AND r.id = CAST(c.key AS INTEGER)
		LEFT JOIN page p ON p.id = CASE c.place WHEN 'page' THEN CAST(c.key AS INTEGER) WHEN 'page_body' THEN CAST(c.key AS INTEGER)
			WHEN 'rule' THEN coalesce(r.page_id, json_extract(c.before, '$.page_id')) END
		WHERE c.edit_id = ? AND c.id > ? ORDER BY c.id`),
	mark: `UPDATE edit SET is_back = @isBack WHERE id = @id`,
	later: row<{
		made: string;
		author: string;
		what: string;
	}>(`SELECT e.id, e.made, e.author, e.what FROM edit_change c JOIN edit e ON e.id = c.edit_id
		WHERE c.place = @place AND c.key = @key AND c.before IS NOT NULL AND c.edit_id > @edit AND e.is_back = 0 AND e.takes_back IS NULL LIMIT 1`),
	forget: `DELETE FROM edit_change WHERE edit_id IN
		(SELECT id FROM edit WHERE site_id = @site ORDER BY id DESC LIMIT -1 OFFSET @keep)`,
	dropOldest: `DELETE FROM edit WHERE id IN (SELECT id FROM edit WHERE site_id = @site ORDER BY id DESC LIMIT -1 OFFSET @keep)
		AND id NOT IN (SELECT edit_id FROM unfinished) AND NOT EXISTS (SELECT 1 FROM edit n WHERE n.takes_back = edit.id
			AND n.id IN (SELECT id FROM edit WHERE site_id = @site ORDER BY id DESC LIMIT @keep))`
} as const;

/** The tables whose rows an edit can change, with the columns that are JSON records and merge key by key. */
const PLACES = {
	page: { key: ['id'], json: ['fields', 'settings'] },
	page_body: { key: ['page_id'], json: [] },
	rule: { key: ['id'], json: [] },
	content_type: { key: ['id'], json: ['settings'] },
	site: { key: ['id'], json: ['settings'] },
	picture: { key: ['site_id', 'src'], json: ['facts'] },
	redirect: { key: ['site_id', 'path'], json: [] },
	aside: { key: ['site_id', 'code', 'tag', 'path'], json: [] }
} as const satisfies Record<string, { key: readonly string[]; json: readonly string[] }>;
type Place = keyof typeof PLACES;

/**
 * With what they did, so many edits of a site are remembered; of older ones only that they were made, and of those before
 * even these nothing.
 */
const REMEMBERED = 1000;
const LISTED = 20_000;
/** Changes that are read together. */
const TOGETHER = 1000;

export interface EditEntry {
	readonly site: number;
	readonly revision: number;
	/** ISO 8601. */
	readonly made: string;
	readonly author: string;
	readonly origin: string;
	readonly kind: string;
	readonly what: unknown;
	readonly takesBack?: number;
}

export interface RecordedEdit extends Omit<EditEntry, 'site' | 'takesBack'> {
	readonly id: number;
	/** The edit that it takes back, or does again. */
	readonly takesBack: number | null;
	readonly isBack: boolean;
}

export interface UnfinishedEdit extends Pick<EditEntry, 'site' | 'made' | 'author' | 'kind'> {
	readonly id: number;
	/** The site was made by it. */
	readonly isNew: boolean;
}

/** A row that an edit changed: the page that it belongs to, as it stands and as it was, or another place. */
export interface NotedRow {
	readonly id: number;
	readonly place: Place;
	readonly isOfPage: 0 | 1;
	readonly path: string | null;
	readonly type: string | null;
	readonly language: string | null;
	readonly beforePath: string | null;
	readonly beforeType: string | null;
	readonly beforeLanguage: string | null;
}

interface ChangeRow {
	readonly id: number;
	readonly place: Place;
	readonly key: string;
	readonly before: string | null;
	readonly after: string | null;
}
type Row = Record<string, string | number | null>;

/** A row was changed by a later edit that still stands. */
export class Overtaken extends Error {
	constructor(readonly by: { readonly made: string; readonly author: string; readonly what: unknown }) {
		super('overtaken');
	}
}

/**
 * The record of edits. What an edit does to rows is noted by triggers of the database while it is being made, so that
 * nothing that changes can be left out.
 */
export class RecordStore {
	private readonly run: Prepared<typeof SQL>;
	/** For rows of any table; by their text. */
	private readonly others = new Map<string, Statement>();

	constructor(private readonly db: Db) {
		this.run = prepared(db, SQL);
	}

	private prepare(sql: string): Statement {
		let statement = this.others.get(sql);
		if (!statement) this.others.set(sql, (statement = this.db.prepare<unknown[]>(sql)));
		return statement;
	}

	nextRevision(site: number): number {
		return this.run('next').get(site)!.revision;
	}
	sameRevision(site: number) {
		this.run('same').run(site);
	}

	/** Does the work of an edit and notes what it changes; `done` may look at that and refuse it. The id is undefined when nothing changed. */
	note<T>(entry: EditEntry, work: () => T, done: (edit: number) => void): { id: number | undefined; result: T } {
		const id = this.begin(entry);
		const result = this.go(id, work);
		done(id);
		return { id: this.finish(id, entry) ? id : undefined, result };
	}

	/** Makes the entry of an edit; its work is done in one go or in several, until it is finished. */
	begin(entry: EditEntry): number {
		const row = { takesBack: null, ...entry, what: 'null' };
		return this.run('add').get(row)!.id;
	}

	/** Does some of the work of an edit and notes what it changes, in the transaction that is open. */
	go<T>(id: number, work: () => T): T {
		this.run('begin').run(id);
		const result = work();
		this.run('end').run();
		return result;
	}

	/** Closes an edit; gives whether anything changed. One that changed nothing leaves no trace. */
	finish(id: number, entry: EditEntry): boolean {
		const hasChanged = this.run('hasChanged').get(id) !== undefined;
		// The work may have told more of what it does.
		if (hasChanged) this.run('tell').run(JSON.stringify(entry.what ?? null), id);
		if (!hasChanged) this.run('drop').run(id);
		else if (id % 100 === 0) {
			this.run('forget').run({ site: entry.site, keep: REMEMBERED });
			this.run('dropOldest').run({ site: entry.site, keep: LISTED });
		}
		return hasChanged;
	}

	/** The rows that an edit changed, after one of them, one at a time. */
	noted(edit: number, after = 0): IterableIterator<NotedRow> {
		return this.run('noted').iterate(edit, after);
	}

	/** From now on the edit is one in several goes. */
	beginLong(id: number, isNewSite: boolean) {
		this.run('beginLong').run(id, isNewSite ? 1 : 0);
	}
	endLong(id: number, revision: number) {
		this.run('ledTo').run(revision, id);
		this.run('endLong').run(id);
	}
	/** The edits that are being made in several goes, or were broken off. */
	unfinished(): UnfinishedEdit[] {
		return this.run('unfinished')
			.all()
			.map((row) => ({
				...row,
				isNew: Boolean(row.isNew)
			}));
	}
	drop(id: number) {
		this.run('drop').run(id);
	}
	/**
	 * What people have touched in the rooms since content last came in from somewhere: ids of pages, names of types, the site
	 * itself. As far back as it is remembered what edits did.
	 */
	touchedSince(site: number, from: string): { pages: ReadonlySet<number>; types: ReadonlySet<string>; site: boolean } {
		const rows = this.run('touchedSince').all({ site, from });
		const pages = rows.flatMap(({ page }) => page ?? []);
		const types = rows.flatMap(({ type }) => type ?? []);
		const ofSite = rows.some(
			({ place, page, type }) => place === 'site' || (place === 'rule' && page === null && type === null)
		);
		return { pages: new Set(pages), types: new Set(types), site: ofSite };
	}
	/**
	 * The ids of pages that edits which stand have changed after a revision; undefined where it is not remembered any more what
	 * all of them did.
	 */
	pagesChangedSince(site: number, since: number): ReadonlySet<number> | undefined {
		const { n } = this.run('countSince').get({ site, since })!;
		if (n >= REMEMBERED) return undefined;
		const rows = this.run('pagesChangedSince').all({ site, since });
		return new Set(rows.flatMap(({ page }) => page ?? []));
	}
	/** How many pages that an edit made are there. */
	countPagesMade(edit: number): number {
		return this.run('countPagesMade').get(edit)!.n;
	}

	/** The newest first; `before` is the id of the last one seen. */
	list(site: number, before: number | undefined, limit: number): RecordedEdit[] {
		const rows = this.run('list').all({ site, before: before ?? Number.MAX_SAFE_INTEGER, limit });
		return (rows as (RecordedEdit & { what: string; isBack: 0 | 1 | boolean })[]).map(toEdit);
	}
	one(site: number, id: number): RecordedEdit | undefined {
		const row = this.run('one').get(site, id);
		return row && toEdit(row);
	}
	/** The edit that undo would take back next, and the one that redo would: the undo to be undone. */
	next(site: number): { readonly back: number | undefined; readonly again: number | undefined } {
		const idOf = (row: unknown) => (row as { id: number } | undefined)?.id;
		return { back: idOf(this.run('lastToTakeBack').get(site)), again: idOf(this.run('lastToDoAgain').get({ site })) };
	}

	/**
	 * Puts the rows that an edit changed back to what they were, as far as they are as it left them: records of settings
	 * and fields are compared key by key. Throws `Overtaken` where a later edit stands in the way; where `mayLeave`, what it
	 * changed is left. `progress` is told how many rows of how many.
	 */
	putBack(id: number, mayLeave = false, progress?: (done: number, all: number) => void) {
		this.db.pragma('defer_foreign_keys = ON');
		const all = progress ? this.countChanges(id) : 0;
		let [done, before] = [0, Number.MAX_SAFE_INTEGER];
		for (let rows = this.changesBefore(id, before); rows.length > 0; rows = this.changesBefore(id, before)) {
			for (const change of rows)
				try {
					this.putRowBack(id, change);
				} catch (error) {
					if (!mayLeave || !(error instanceof Overtaken)) throw error;
				}
			before = rows.at(-1)!.id;
			progress?.((done += rows.length), all);
		}
		this.run('mark').run({ id, isBack: 1 });
	}
	/** Some of the rows that an edit changed, the newest first: never all of a large one at once. */
	private changesBefore(id: number, before: number): ChangeRow[] {
		return this.run('changes').all(id, before, TOGETHER);
	}
	/** How many rows an edit changed, counted up to a number. */
	countChanges(id: number, most = -1): number {
		return this.run('countChanges').get(id, most)!.n;
	}
	/** An edit that was taken back was done again. */
	stands(id: number) {
		this.run('mark').run({ id, isBack: 0 });
	}

	private putRowBack(edit: number, { place, key, before, after }: ChangeRow) {
		const was = before === null ? undefined : readRow(before);
		if (was && after !== null) return this.mergeBack(edit, { place, key, was, left: readRow(after) });
		const now = this.rowAt(place, key);
		const isThere = now !== undefined;
		if (was) {
			// Another row stands there by now.
			if (isThere) this.refuseOvertaken(edit, place, key, true);
			return this.insert(place, was);
		}
		if (!isThere) return;
		this.refuseOvertaken(edit, place, key);
		// The body that came with a page goes with it.
		if (place === 'page') this.refuseOvertaken(edit, 'page_body', key);
		this.prepare(`DELETE FROM ${place} WHERE ${whereKey(place)}`).run(keyOf(place, now));
	}

	private mergeBack(edit: number, { place, key, was, left }: { place: Place; key: string; was: Row; left: Row }) {
		const now = this.rowAt(place, key);
		const merged = now && mergeRow(place, was, left, now);
		if (!merged) return this.refuseOvertaken(edit, place, key, true);
		const columns = Object.keys(merged).filter((column) => ownOf(merged, column) !== ownOf(now, column));
		if (columns.length === 0) return;
		const set = columns.map((column) => `${column} = @${column}`).join(', ');
		this.prepare(`UPDATE ${place} SET ${set} WHERE ${whereKey(place)}`).run({
			...pick(merged, columns),
			...keyOf(place, now)
		});
	}

	private rowAt(place: Place, key: string): Row | undefined {
		const { key: names } = PLACES[place];
		// The last may hold spaces itself.
		const all = key.split(' ');
		const parts = [...all.slice(0, names.length - 1), all.slice(names.length - 1).join(' ')];
		const given = Object.fromEntries(names.map((name, at) => [`key_${name}`, parts[at] as string]));
		return this.prepare(`SELECT * FROM ${place} WHERE ${whereKey(place)}`).get(given) as Row | undefined;
	}

	private insert(place: Place, row: Row) {
		const columns = Object.keys(row);
		this.prepare(
			`INSERT INTO ${place} (${columns.join(', ')}) VALUES (${columns.map((name) => `@${name}`).join(', ')})`
		).run(row);
	}

	/** Throws when a later edit that stands has changed the row; with `always`, also when none is found. */
	private refuseOvertaken(edit: number, place: Place, key: string, always = false) {
		const later = this.run('later').get({ edit, place, key });
		if (later) throw new Overtaken({ ...later, what: JSON.parse(later.what) as unknown });
		if (always) throw new Overtaken({ made: '', author: '', what: null });
	}
}

/** A row as it was noted. A text of JSON that was just made may have been noted as what it says. */
function readRow(text: string): Row {
	const asText = (value: unknown) => (typeof value === 'object' && value !== null ? JSON.stringify(value) : value);
	const row = Object.entries(JSON.parse(text) as object).map(([column, value]) => [column, asText(value)]);
	return Object.fromEntries(row) as Row;
}

const toEdit = (row: RecordedEdit & { what: unknown }): RecordedEdit => ({
	...row,
	what: JSON.parse(row.what as string) as unknown,
	isBack: Boolean(row.isBack)
});

const whereKey = (place: Place) => PLACES[place].key.map((name) => `${name} = @key_${name}`).join(' AND ');
const keyOf = (place: Place, row: Row) =>
	Object.fromEntries(PLACES[place].key.map((name) => [`key_${name}`, ownOf(row, name) ?? null]));
const pick = (row: Row, columns: readonly string[]) =>
	Object.fromEntries(columns.map((name) => [name, ownOf(row, name) ?? null]));

/** The row with what an edit changed put back; undefined when something it changed is another now. */
function mergeRow(place: Place, was: Row, left: Row, now: Row): Row | undefined {
	const merged = new Map(Object.entries(now));
	for (const [column, before] of Object.entries(was)) {
		const [after, stands] = [ownOf(left, column), ownOf(now, column)];
		// What is as it was already needs nothing: a renamed type takes its pages along.
		if (before === after || stands === before) continue;
		if (stands === after) merged.set(column, before);
		else if ((PLACES[place].json as readonly string[]).includes(column)) {
			const text = mergeRecord(before as string, after as string, stands as string);
			if (text === undefined) return undefined;
			merged.set(column, text);
		} else return undefined;
	}
	return Object.fromEntries(merged);
}

function mergeRecord(wasText: string, leftText: string, nowText: string): string | undefined {
	const [was, left, now] = [wasText, leftText, nowText].map(
		(text) => new Map(Object.entries(JSON.parse(text) as Record<string, unknown>))
	) as [Map<string, unknown>, Map<string, unknown>, Map<string, unknown>];
	for (const name of new Set([...was.keys(), ...left.keys()])) {
		const [before, after] = [JSON.stringify(was.get(name)), JSON.stringify(left.get(name))];
		if (before === after) continue;
		if (JSON.stringify(now.get(name)) !== after) return undefined;
		if (before === undefined) now.delete(name);
		else now.set(name, was.get(name));
	}
	return JSON.stringify(Object.fromEntries(now));
}
