import { createHash } from 'node:crypto';
import { prepared, row, type Db, type Prepared } from '../opening/database';

const SQL = {
	last: row<{ hash: string }>(`SELECT hash FROM trail ORDER BY id DESC LIMIT 1`),
	base: row<{ last: number; hash: string; newest: string; days: number | null }>(
		`SELECT last, hash, newest, days FROM trail_base`
	),
	keep: `UPDATE trail_base SET days = ?`,
	// Among the oldest alone: a line more never costs much.
	over: row<{ id: number; hash: string }>(`SELECT id, hash FROM trail
		WHERE id < (SELECT min(id) FROM trail) + 1000 AND at < ? ORDER BY id DESC LIMIT 1`),
	begin: `UPDATE trail_base SET last = @id, hash = @hash`,
	drop: `DELETE FROM trail WHERE id <= ?`,
	add: `INSERT INTO trail (at, who, what, site, data, hash) VALUES (@at, @who, @what, @site, @data, @hash)`,
	all: row<LineRow>(`SELECT id, at, who, what, site, data, hash FROM trail WHERE id > ? ORDER BY id LIMIT 1000`),
	newest: row<LineRow>(`SELECT id, at, who, what, site, data, hash FROM trail
		WHERE (@site IS NULL OR site = @site) AND id < @before ORDER BY id DESC LIMIT @limit`)
} as const;

interface LineRow {
	readonly id: number;
	readonly at: string;
	readonly who: string;
	readonly what: string;
	readonly site: string | null;
	readonly data: string;
	readonly hash: string;
}

/** A line of what was done beside edits. */
export interface TrailLine {
	readonly id: number;
	/** ISO 8601. */
	readonly at: string;
	readonly who: string;
	readonly what: string;
	readonly site: string | undefined;
	readonly data: Readonly<Record<string, unknown>>;
	/** Of the line and of the hash of the one before. */
	readonly hash: string;
}
export type NewLine = Pick<TrailLine, 'at' | 'who' | 'what' | 'site' | 'data'>;

const hashOf = (before: string, { at, who, what, site, data }: Omit<LineRow, 'id' | 'hash'>) =>
	createHash('sha256')
		.update(JSON.stringify([before, at, who, what, site, data]))
		.digest('hex');

const lineOf = ({ data, site, ...line }: LineRow): TrailLine => ({
	...line,
	site: site ?? undefined,
	data: JSON.parse(data) as TrailLine['data']
});

/** The trail: what was done beside edits, line by line, each bound to the one before by its hash. */
export class TrailStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** Adds a line, in the transaction that is open: no other comes between. */
	add({ site, data, ...line }: NewLine) {
		const written = { ...line, site: site ?? null, data: JSON.stringify(data) };
		this.run('add').run({ ...written, hash: hashOf(this.run('last').get()?.hash ?? '', written) });
		this.dropOld(Date.parse(line.at));
	}

	/** For how many days lines are kept; undefined for ever. */
	get days(): number | undefined {
		return this.run('base').get()!.days ?? undefined;
	}
	/** Keeps lines so many days from now on; those whose time is over go as others come. */
	keepFor(days: number | undefined) {
		this.run('keep').run(days ?? null);
	}
	private dropOld(now: number) {
		const { days } = this;
		if (days === undefined) return;
		const over = this.run('over').get(new Date(now - days * 86_400_000).toISOString());
		if (!over) return;
		this.run('begin').run(over);
		this.run('drop').run(over.id);
	}

	/** The newest lines, of a site or of all. */
	newest(site: string | undefined, limit: number, before = Number.MAX_SAFE_INTEGER): TrailLine[] {
		return this.run('newest')
			.all({ site: site ?? null, limit, before })
			.map(lineOf);
	}

	/** All lines, the oldest first. */
	*all(): Generator<TrailLine> {
		for (const one of this.rows()) yield lineOf(one);
	}

	private *rows(): Generator<LineRow> {
		let last = 0;
		for (let rows = this.run('all').all(last); rows.length > 0; rows = this.run('all').all(last)) {
			yield* rows;
			last = rows.at(-1)!.id;
		}
	}

	/**
	 * How many lines hold, and the number of the first that does not: it, or one before it, was changed or is gone. At the end
	 * that is the number after the last, where lines were cut off.
	 */
	verify(): { readonly lines: number; readonly broken?: number } {
		const base = this.run('base').get()!;
		let [before, last, lines] = [base.hash, base.last, 0];
		for (const row of this.rows()) {
			// Numbers go up by one: a line that was taken out leaves a gap.
			if (row.hash !== hashOf(before, row) || row.id !== last + 1) return { lines, broken: row.id };
			[before, last, lines] = [row.hash, row.id, lines + 1];
		}
		return before === base.newest || (last === 0 && base.newest === '') ? { lines } : { lines, broken: last + 1 };
	}
}
