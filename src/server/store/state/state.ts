import { SourceStore } from './sources';
import { SuppressionStore } from './suppressions';
import { LookStore } from './looks';
import { prepared, row, type Prepared, type Db } from '../opening/database';
import { inPart, WHOLE, type Part } from '../opening/part';

/** What is kept of a page whatever it was before. */
/** One that an edit touched meanwhile is looked at again. */
const KEPT = `seen = iif(touched > @seen, -1, @seen), head = @head, canonical = @canonical, missing = @missing, strange = @strange, timed = @timed, changes_at = @changesAt`;
/**
 * What stands in an index or is searched, in parts that are written where they came to something else: writing an
 * index again costs as much as all the rest.
 */
const IN_INDEXES = [
	'title = @title, title_width = @titleWidth',
	'description = @description, description_width = @descriptionWidth',
	'picture = @picture',
	'title_from = @titleFrom, description_from = @descriptionFrom, picture_from = @pictureFrom',
	'weight = @weight',
	'tag_set = (SELECT id FROM tag_set WHERE tags = @tags)',
	'differs = @differs',
	'card = @card'
] as const;

/** Pages of one type, or of all. */
const HARD = `SELECT path FROM page_state WHERE site_id = @site AND (@type IS NULL OR type = @type)`;
const HARD_ORDERS = ['longest', 'shortest', 'wordiest', 'barest', 'strangest'] as const;
/** So many pages are looked at closely for each. */
const HARD_EACH = 12;

const SQL = {
	/** Pages that were touched themselves are marked by -1. */
	types: row<{ name: string; touched: number }>(
		`SELECT c.name, max(c.touched, s.touched) AS touched FROM content_type c JOIN site s ON s.id = c.site_id WHERE s.id = ?`
	),
	ofType: `SELECT page_id AS id FROM page_state WHERE site_id = @site AND type = @name AND seen < @touched
		AND ${inPart('page_id')} LIMIT @limit`,
	countOfType: `SELECT count(*) AS n FROM page_state WHERE site_id = ? AND type = ? AND seen < ?`,
	// One that is to be looked at anyway is not counted twice.
	countDue: row<{ n: number }>(
		`SELECT count(*) AS n FROM page_state WHERE site_id = @site AND changes_at <= @now AND seen >= 0`
	),
	markDue: `UPDATE page_state SET seen = -1 WHERE site_id = @site AND changes_at <= @now AND seen >= 0`,
	nextChange: row<{ at: number | null; pages: number }>(`SELECT min(changes_at) AS at, count(*) AS pages FROM page_state
		WHERE site_id = ? AND changes_at IS NOT NULL AND head IS NOT NULL`),
	before:
		row<StateBefore>(`SELECT s.seen, s.title, s.description, s.picture, s.title_from AS titleFrom, s.description_from AS descriptionFrom,
		s.picture_from AS pictureFrom, s.weight, s.differs, s.card, (SELECT tags FROM tag_set WHERE id = s.tag_set) AS tags, r.head AS releasedHead, r.address AS releasedAddress
		FROM page_state s LEFT JOIN released r ON r.site_id = s.site_id AND r.path = @path AND r.until IS NULL WHERE s.page_id = @id`),
	addTags: `INSERT OR IGNORE INTO tag_set (tags) VALUES (?)`,
	hasReads: row<{ n: number }>(`SELECT EXISTS (SELECT 1 FROM page_reads WHERE site_id = ?) AS n`),
	dropReads: `DELETE FROM page_reads WHERE page_id = ?`,
	addRead: `INSERT OR IGNORE INTO page_reads (site_id, path, page_id, head) VALUES (?, ?, ?, ?)`,
	readersOf: `SELECT page_id AS id FROM page_reads WHERE site_id = @site AND path = @path AND ${inPart('page_id')}`,
	readersOfType: `SELECT DISTINCT r.page_id AS id FROM page_reads r JOIN page p ON p.site_id = r.site_id AND p.path = r.path
		JOIN page q ON q.id = r.page_id WHERE r.site_id = @site AND p.type = @type AND q.type <> @type AND ${inPart('r.page_id')}`,
	dropFindings: `DELETE FROM page_finding WHERE page_id = ?`,
	addFinding: `INSERT OR IGNORE INTO page_finding (page_id, code, tag, site_id, weight) VALUES (?, ?, ?, ?, ?)`,
	differing: `SELECT p.path, s.differs FROM page_state s JOIN page p ON p.id = s.page_id
		WHERE s.site_id = ? AND s.differs > 0 ORDER BY s.differs, s.page_id LIMIT ?`,
	countDiffering: row<{ differs: number; n: number }>(
		`SELECT differs, count(*) AS n FROM page_state WHERE site_id = ? AND differs > 0 GROUP BY differs`
	),
	differingRows: row<{
		path: string;
		differs: number;
		id: number;
	}>(`SELECT path, differs, page_id AS id FROM (SELECT path, differs, page_id FROM page_state WHERE site_id = @site AND differs > 0
		UNION ALL SELECT path, 3, 1e15 FROM leaving WHERE site_id = @site)
		WHERE (@q = '' OR instr(path, @q)) AND (differs, page_id, path) > (@differs, @id, @path)
		ORDER BY differs, page_id, path LIMIT @limit`),
	keyPagesWith: `SELECT DISTINCT s.path FROM page_state s JOIN page_finding f USING (page_id)
		WHERE s.site_id = ? AND s.is_key = 1 AND f.code IN (SELECT value FROM json_each(?))`,
	leaving: `SELECT path FROM leaving WHERE site_id = ? ORDER BY path LIMIT ?`,
	countLeaving: row<{ n: number }>(`SELECT count(*) AS n FROM leaving WHERE site_id = ?`),
	toRelease: row<{
		id: number;
		seen: number;
		isPublic: 0 | 1;
	}>(`SELECT page_id AS id, seen, head IS NOT NULL AS isPublic FROM page_state WHERE site_id = @site AND differs > 0
		UNION SELECT page_id, seen, head IS NOT NULL FROM page_state WHERE site_id = @site AND timed = 1`),
	countToRelease: row<{ n: number }>(`SELECT count(*) AS n FROM page_state WHERE site_id = @site AND differs > 0`),
	going: `SELECT path FROM page_state WHERE site_id = ? AND differs = 3`,
	worst: `SELECT p.path FROM page_state s JOIN page p ON p.id = s.page_id
		WHERE s.site_id = ? AND s.weight > 0 ORDER BY s.weight DESC, s.page_id LIMIT ?`,
	longest: `${HARD} ORDER BY title_width DESC, path LIMIT @limit`,
	shortest: `${HARD} ORDER BY title_width, path LIMIT @limit`,
	wordiest: `${HARD} ORDER BY description_width DESC, path LIMIT @limit`,
	barest: `${HARD} ORDER BY missing DESC, path LIMIT @limit`,
	strangest: `${HARD} ORDER BY strange DESC, path LIMIT @limit`,
	unread: `SELECT DISTINCT s.path FROM page_finding f JOIN page_state s ON s.page_id = f.page_id
		WHERE f.site_id = @site AND f.code IN ('share-letters', 'share-contrast') AND (@type IS NULL OR s.type = @type) LIMIT @limit`,
	countFaulty: row<{ n: number }>(`SELECT count(*) AS n FROM page_state WHERE site_id = ? AND weight > 0`),
	kinds: `SELECT code, tag, count(*) AS pages, min(page_id) AS example, max(weight) AS weight FROM page_finding
		WHERE site_id = ? GROUP BY code, tag`,
	standing: row<Standing>(
		`SELECT page_id AS id, title, description, touched, seen FROM page_state WHERE site_id = ? AND path = ?`
	),
	// From one to the next, without a look at each.
	codes: row<{ code: string }>(`WITH RECURSIVE one (code) AS (SELECT min(code) FROM page_finding WHERE site_id = @site
		UNION ALL SELECT (SELECT min(code) FROM page_finding WHERE site_id = @site AND code > one.code) FROM one WHERE one.code IS NOT NULL)
		SELECT code FROM one WHERE code IS NOT NULL`),
	unknownPictures:
		row<object>(`SELECT count(*) FROM (SELECT DISTINCT picture FROM page_state WHERE site_id = @site AND picture <> '' AND head IS NOT NULL) s
		WHERE NOT EXISTS (SELECT 1 FROM picture p WHERE p.site_id = @site AND p.src = s.picture AND json_extract(p.facts, '$.width') > 0)`),
	shown: row<{ src: string; n: number }>(
		`SELECT picture AS src, count(*) AS n FROM page_state WHERE site_id = ? AND picture <> '' GROUP BY picture`
	),
	shownOn: `SELECT p.path FROM page_state s JOIN page p ON p.id = s.page_id
		WHERE s.site_id = ? AND s.picture = ? ORDER BY p.path LIMIT ?`
} as const;

/** What a page's head came to. */
export interface PageState {
	readonly id: number;
	readonly site: number;
	readonly path: string;
	readonly address: string;
	/** The hash of the head; null for a page that is not public. */
	readonly head: string | null;
	readonly title: string;
	/** In thousandths of an em. */
	readonly titleWidth: number;
	readonly description: string;
	readonly descriptionWidth: number;
	/** The source of the picture that the card shows or is made from. */
	readonly picture: string;
	/** The form of the card. */
	readonly card: string;
	/** The layers that these came from; 'found' for what the page's own file says. */
	readonly titleFrom: string;
	readonly descriptionFrom: string;
	readonly pictureFrom: string;
	/** Where the page says it stands, when that is another address than its own. */
	readonly canonical: string;
	/** The tags of its head, each between spaces. */
	readonly tags: string;
	/** How many of its fields are empty, and how many characters in a hundred are strange. */
	readonly missing: number;
	readonly strange: number;
	readonly weight: number;
	readonly findings: readonly { readonly code: string; readonly tag: string; readonly weight: number }[];
	readonly isTimed: boolean;
	/** When its head comes to something else by itself, in milliseconds; null where it never does. */
	readonly changesAt: number | null;
	/** Other pages that it reads, there or not. */
	readonly reads: readonly Read[];
}

/** Another page that one reads by its path: fields of it, or what its head came to as well. */
interface Read {
	readonly path: string;
	readonly head: boolean;
}

/** What stands in indexes of a page that is looked at again, and what is released of it. */
interface StateBefore extends Pick<
	PageState,
	'title' | 'description' | 'picture' | 'titleFrom' | 'descriptionFrom' | 'pictureFrom' | 'weight' | 'card'
> {
	readonly seen: number;
	readonly tags: string | null;
	readonly differs: number;
	readonly releasedHead: string | null;
	readonly releasedAddress: string | null;
}

/** Against what is released: 0 the same, 1 changed, 2 new, 3 leaves. */
function differsFrom(
	{ releasedHead, releasedAddress }: StateBefore,
	{ head, address }: Pick<PageState, 'head' | 'address'>
): number {
	if (head === null) return releasedHead === null ? 0 : 3;
	if (releasedHead === null) return 2;
	return head === releasedHead && address === releasedAddress ? 0 : 1;
}

/** Which parts of what stands in indexes came to something else, a bit each. */
function changedParts(
	before: StateBefore,
	now: Omit<PageState, 'findings' | 'isTimed' | 'changesAt' | 'reads'> & { differs: number }
): number {
	const isChanged = [
		// A page that changed is searched by its new words, and its path is one of them.
		before.seen < 0 || before.title !== now.title,
		before.description !== now.description,
		before.picture !== now.picture,
		before.titleFrom !== now.titleFrom ||
			before.descriptionFrom !== now.descriptionFrom ||
			before.pictureFrom !== now.pictureFrom,
		before.weight !== now.weight,
		before.tags !== now.tags,
		before.differs !== now.differs,
		before.card !== now.card
	];
	return isChanged.reduce((bits, is, at) => bits | (is ? 1 << at : 0), 0);
}

/** How the working copy differs from what is released. */
export interface Differing {
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	readonly paths: readonly string[];
}

/** What a page last came to, and when it was touched itself. */
export interface Standing {
	readonly id: number;
	readonly title: string;
	readonly description: string;
	/** The revision that an edit of the page itself led to. */
	readonly touched: number;
	/** The revision at which it was looked at; -1 where that is to be done again. */
	readonly seen: number;
}

/** The kept state of pages: what every head came to, and whether that is known for the working copy as it is. */
/** A page that differs from what is released (1 changed, 2 new, 3 leaves). */
export interface DifferingRow {
	readonly path: string;
	readonly differs: number;
	readonly id: number;
}
const BEFORE_ALL: DifferingRow = { path: '', differs: 0, id: 0 };

export class StateStore {
	/** What readers saw of addresses, and what was verified. */
	readonly looks: LookStore;
	/** Findings that somebody set aside. */
	readonly suppressions: SuppressionStore;
	readonly sources: SourceStore;
	private readonly run: Prepared<typeof SQL>;

	constructor(private readonly db: Db) {
		this.run = prepared(db, SQL);
		this.looks = new LookStore(db);
		this.suppressions = new SuppressionStore(db);
		this.sources = new SourceStore(db);
	}

	/** The ids of at most so many pages that must be looked at again, in one part of them all. */
	stale(site: number, { part, parts }: Part, limit: number): number[] {
		const ids: number[] = [];
		for (const { name, touched } of this.types(site)) {
			if (ids.length >= limit) break;
			const more = { site, name, touched, part, parts, limit: limit - ids.length };
			ids.push(...idsOf(this.run('ofType').all(more)));
		}
		return ids;
	}

	/** What is kept of the page at a path. */
	standing(site: number, path: string): Standing | undefined {
		return this.run('standing').get(site, path);
	}

	/** The kinds of findings that pages have. */
	codes(site: number): string[] {
		return this.run('codes')
			.all({ site })
			.map(({ code }) => code);
	}

	/** The ids of pages that read the one at a path, in one part of them all. */
	readersOf(site: number, path: string, part: Part = WHOLE): number[] {
		return idsOf(this.run('readersOf').all({ site, path, ...part }));
	}
	/** The ids of pages of other types that read pages of a type. */
	readersOfType(site: number, type: string, part: Part = WHOLE): number[] {
		return this.run('hasReads').get(site)!.n > 0 ? idsOf(this.run('readersOfType').all({ site, type, ...part })) : [];
	}

	/** How many pages must be looked at again: an edit may have touched them, or their time has come. */
	countStale(site: number): number {
		const count = (row: unknown) => (row as { n: number }).n;
		return this.types(site).reduce(
			(sum, { name, touched }) => sum + count(this.run('countOfType').get(site, name, touched)),
			this.countDue(site, Date.now())
		);
	}

	/** How many pages' heads come to something else by a moment (milliseconds), and were not looked at again. */
	countDue(site: number, now: number): number {
		return this.run('countDue').get({ site, now })!.n;
	}
	/** They are looked at again. */
	markDue(site: number, now: number) {
		this.run('markDue').run({ site, now });
	}
	/** How many public pages say something of the day, and when the first comes to something else (milliseconds). */
	nextChange(site: number): { readonly at: number; readonly pages: number } | undefined {
		const { at, pages } = this.run('nextChange').get(site)!;
		return at === null ? undefined : { at, pages };
	}

	private types(site: number): { name: string; touched: number }[] {
		return this.run('types').all(site);
	}

	/** Keeps what pages came to at a revision. A page that was looked at later by another is left alone. */
	keep(seen: number, states: Iterable<PageState>) {
		const haveReads = new Map<number, boolean>();
		for (const { findings, isTimed, reads, ...state } of states) {
			const before = this.run('before').get({ id: state.id, path: state.path });
			if (!before || before.seen >= seen) continue;
			if (before.tags !== state.tags) this.run('addTags').run(state.tags);
			const differs = differsFrom(before, state);
			this.keeping(changedParts(before, { ...state, differs })).run({
				...{ ...state, seen, differs },
				timed: isTimed ? 1 : 0
			});
			this.keepReads(haveReads, state, reads);
			// Every finding weighs something.
			if (before.weight > 0) this.run('dropFindings').run(state.id);
			for (const { code, tag, weight } of findings) this.run('addFinding').run(state.id, code, tag, state.site, weight);
		}
	}

	/** Most sites have no page that reads another: then nothing is asked of one. */
	private keepReads(known: Map<number, boolean>, { id, site }: Pick<PageState, 'id' | 'site'>, reads: readonly Read[]) {
		if (!known.has(site)) known.set(site, this.run('hasReads').get(site)!.n > 0);
		if (known.get(site)) this.run('dropReads').run(id);
		for (const { path, head } of reads) this.run('addRead').run(site, path, id, head ? 1 : 0);
		if (reads.length > 0) known.set(site, true);
	}

	/** The statement that writes some of the parts, by which of them. */
	private readonly keepings = new Map<number, ReturnType<Db['prepare']>>();
	private keeping(parts: number) {
		let known = this.keepings.get(parts);
		if (!known) {
			const set = [KEPT, ...IN_INDEXES.filter((_, at) => parts & (1 << at))].join(', ');
			known = this.db.prepare(`UPDATE page_state SET ${set} WHERE page_id = @id`);
			this.keepings.set(parts, known);
		}
		return known;
	}

	differing(site: number, listed: number): Differing {
		const counts = new Map(
			this.run('countDiffering')
				.all(site)
				.map(({ differs, n }) => [differs, n])
		);
		const leaving = this.run('countLeaving').get(site)!;
		const paths = pathsOf(this.run('differing').all(site, listed));
		if (paths.length < listed) paths.push(...pathsOf(this.run('leaving').all(site, listed - paths.length)));
		return {
			changed: counts.get(1) ?? 0,
			added: counts.get(2) ?? 0,
			removed: (counts.get(3) ?? 0) + leaving.n,
			paths
		};
	}

	/**
	 * Pages that differ from what is released, changed ones first, those that leave last, that follow one of them; `q` is part of
	 * their path.
	 */
	differingRows(site: number, q: string, limit: number, after: DifferingRow = BEFORE_ALL): DifferingRow[] {
		return this.run('differingRows').all({ site, q, limit, ...after });
	}
	/** The key pages with a finding of one of these codes. */
	keyPagesWith(site: number, codes: readonly string[]): string[] {
		return pathsOf(this.run('keyPagesWith').all(site, JSON.stringify(codes)));
	}

	/** What a release has to look at: pages that differ, and those whose head says the moment of the release. */
	toRelease(site: number): { id: number; seen: number; isPublic: 0 | 1 }[] {
		return this.run('toRelease').all({ site });
	}
	/** How many pages a release has to look at. */
	countToRelease(site: number): number {
		return this.run('countToRelease').get({ site })!.n;
	}
	/** The paths that the next release takes away. */
	goingPaths(site: number): string[] {
		return [...pathsOf(this.run('going').all(site)), ...this.leaving(site)];
	}
	/** Paths that are released and belong to no page any more. */
	leaving(site: number): string[] {
		return pathsOf(this.run('leaving').all(site, -1));
	}

	/** The paths of the pages with the heaviest findings. */
	worst(site: number, limit: number): string[] {
		return pathsOf(this.run('worst').all(site, limit));
	}
	/** The pages that may be the hardest on templates, of one type or of all: a few for each way to be hard. */
	hard(site: number, type: string | undefined): string[] {
		const paths = HARD_ORDERS.flatMap((order) =>
			pathsOf(this.run(order).all({ site, type: type ?? null, limit: HARD_EACH }))
		);
		paths.push(...pathsOf(this.run('unread').all({ site, type: type ?? null, limit: HARD_EACH })));
		return [...new Set(paths)];
	}
	countFaulty(site: number): number {
		return this.run('countFaulty').get(site)!.n;
	}
	/** How many pages each kind of finding is on, with the id of one of them. */
	kinds(site: number): { code: string; tag: string; pages: number; example: number; weight: number }[] {
		return this.run('kinds').all(site) as ReturnType<StateStore['kinds']>;
	}

	/** How many pictures that cards show were never looked at: whether they are there is not known. */
	countUnknownPictures(site: number): number {
		return Number(Object.values(this.run('unknownPictures').get({ site })!)[0]);
	}

	/** How many pages' cards show each picture. */
	shown(site: number): Map<string, number> {
		return new Map(
			this.run('shown')
				.all(site)
				.map(({ src, n }) => [src, n])
		);
	}
	shownOn(site: number, src: string, limit: number): string[] {
		return pathsOf(this.run('shownOn').all(site, src, limit));
	}
}

const idsOf = (rows: unknown[]) => (rows as { id: number }[]).map(({ id }) => id);
const pathsOf = (rows: unknown[]) => (rows as { path: string }[]).map(({ path }) => path);
