import { prepared, row, type Db, type Prepared } from '../opening/database';

/** What an address can ask to be told of. */
export const HOOK_EVENTS = ['release.made', 'findings.grown', 'drift.found', 'job.ended'] as const;
export type HookEvent = (typeof HOOK_EVENTS)[number];
/** What it is told: one that somebody tries by hand, too. */
export type HookTold = HookEvent | 'webhook.tried';

/** An address that is told; moments in milliseconds. Its secret is not among it. */
export interface Webhook {
	readonly id: number;
	readonly address: string;
	readonly events: readonly HookEvent[];
	readonly maker: string;
	readonly made: number;
	/** An owner said that it may lie in a network that is not public. */
	readonly inside: boolean;
	/** Why nothing is sent to it any more. */
	readonly stopped?: string;
	/** Messages that are yet to come through. */
	readonly waiting: number;
}

/** One try to send a message: when, and what was answered, or why nothing was. */
export interface HookTry {
	/** ISO 8601. */
	readonly at: string;
	readonly status?: number;
	readonly why?: string;
}

/** A message to an address; moments in milliseconds. */
export interface HookMessage {
	readonly id: string;
	readonly event: HookTold;
	readonly made: number;
	/** When it is tried next; missing where it came through, or is given up. */
	readonly due?: number;
	readonly tries: readonly HookTry[];
}

/** A message with all that is needed to send it. */
export interface DueMessage {
	readonly id: string;
	readonly webhook: number;
	readonly address: string;
	readonly secret: string;
	readonly inside: boolean;
	readonly body: string;
	readonly made: number;
	readonly tries: readonly HookTry[];
}

interface HookRow extends Omit<Webhook, 'events' | 'inside' | 'stopped'> {
	readonly events: string;
	readonly inside: 0 | 1;
	readonly stopped: string | null;
}
interface MessageRow extends Omit<HookMessage, 'due' | 'tries'> {
	readonly due: number | null;
	readonly tries: string;
}
interface DueRow extends Omit<DueMessage, 'inside' | 'tries'> {
	readonly inside: 0 | 1;
	readonly tries: string;
}

const DUE = `SELECT m.id, w.id AS webhook, w.address, w.secret, w.is_inside AS inside, m.body, m.made, m.tries
	FROM webhook_message m JOIN webhook w ON w.id = m.webhook_id`;
const SQL = {
	add: row<{ id: number }>(`INSERT INTO webhook (site_id, address, secret, events, maker, made, is_inside)
		VALUES (@site, @address, @secret, @events, @maker, @made, @inside) RETURNING id`),
	at: row<HookRow>(`SELECT id, address, events, maker, made, is_inside AS inside, stopped,
		(SELECT count(*) FROM webhook_message m WHERE m.webhook_id = webhook.id AND m.due IS NOT NULL) AS waiting
		FROM webhook WHERE site_id = ? ORDER BY id`),
	drop: `DELETE FROM webhook WHERE id = @id AND site_id = @site`,
	stop: `UPDATE webhook SET stopped = @why WHERE id = @id AND site_id = coalesce(@site, site_id)`,
	stopMessages: `UPDATE webhook_message SET due = NULL WHERE webhook_id = ?`,
	wanting: row<{ id: number }>(`SELECT id FROM webhook WHERE site_id = @site AND stopped IS NULL
		AND EXISTS (SELECT 1 FROM json_each(events) WHERE value = @event)`),
	tell: `INSERT INTO webhook_message (id, webhook_id, event, body, made, due, tries)
		VALUES (@id, @webhook, @event, @body, @now, @now, '[]')`,
	prune: `DELETE FROM webhook_message WHERE webhook_id = @webhook AND due IS NULL AND id NOT IN
		(SELECT id FROM webhook_message WHERE webhook_id = @webhook ORDER BY made DESC, id DESC LIMIT @most)`,
	messages: row<MessageRow>(`SELECT m.id, m.event, m.made, m.due, m.tries FROM webhook_message m
		JOIN webhook w ON w.id = m.webhook_id AND w.site_id = @site WHERE w.id = @webhook
		ORDER BY m.made DESC, m.id DESC LIMIT @most`),
	again: `UPDATE webhook_message SET due = @now WHERE id = @id AND webhook_id IN (SELECT id FROM webhook WHERE site_id = @site)`,
	hasDue: row<{ n: 0 | 1 }>(`SELECT EXISTS (SELECT 1 FROM webhook_message WHERE due <= ?) AS n`),
	// One of each address: one that answers slowly keeps none of the others waiting.
	due: row<DueRow>(`${DUE} WHERE m.id IN (SELECT first_value(id) OVER (PARTITION BY webhook_id ORDER BY due, rowid)
		FROM webhook_message WHERE due <= @now) AND w.stopped IS NULL ORDER BY m.due LIMIT @most`),
	hold: `UPDATE webhook_message SET due = @due WHERE id = @id`,
	tried: `UPDATE webhook_message SET due = @due, tries = @tries WHERE id = @id`,
	told: row<{ code: string; pages: number }>(`SELECT code, pages FROM finding_told WHERE site_id = ?`),
	forget: `DELETE FROM finding_told WHERE site_id = ?`,
	keepTold: `INSERT INTO finding_told (site_id, code, pages) VALUES (@site, @code, @pages)`
} as const;

/** Stands among the counts of findings where they were counted, also where there were none. */
const KNOWN = '';
/** So many messages are kept of each address. */
const MOST_KEPT = 200;

/** The addresses that are told what happens, and what they are told. */
export class HookStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	/** Adds an address; gives its number. */
	add(
		site: number,
		one: Pick<Webhook, 'address' | 'events' | 'maker' | 'made' | 'inside'> & { secret: string }
	): number {
		const { events, inside, ...rest } = one;
		return this.run('add').get({ ...rest, site, events: JSON.stringify(events), inside: inside ? 1 : 0 })!.id;
	}
	at(site: number): Webhook[] {
		return this.run('at')
			.all(site)
			.map(({ events, inside, stopped, ...one }) => ({
				...{ ...one, events: JSON.parse(events) as HookEvent[], inside: inside === 1 },
				...(stopped !== null && { stopped })
			}));
	}
	/** Says whether there was one. */
	drop(id: number, site: number): boolean {
		return this.run('drop').run({ id, site }).changes > 0;
	}
	/** Sends nothing more to an address, or again (no reason); what waited is given up. Says whether there was one. */
	stop(id: number, why: string | undefined, site?: number): boolean {
		const isThere = this.run('stop').run({ id, why: why ?? null, site: site ?? null }).changes > 0;
		if (isThere && why !== undefined) this.run('stopMessages').run(id);
		return isThere;
	}

	/** Puts a message down for an address. */
	tell(
		webhook: number,
		message: { readonly id: string; readonly event: HookTold; readonly body: string },
		now: number
	) {
		this.run('tell').run({ ...message, webhook, now });
		this.run('prune').run({ webhook, most: MOST_KEPT });
	}
	/** The addresses of a site that want to be told of something. */
	wanting(site: number, event: HookEvent): number[] {
		return this.run('wanting')
			.all({ site, event })
			.map(({ id }) => id);
	}
	/** The newest messages to an address of a site. */
	messages(site: number, webhook: number, most: number): HookMessage[] {
		return this.run('messages')
			.all({ site, webhook, most })
			.map(({ due, tries, ...one }) => ({
				...{ ...one, tries: JSON.parse(tries) as HookTry[] },
				...(due !== null && { due })
			}));
	}
	/** Lets a message be sent again, now. Says whether there was one. */
	again(site: number, id: string, now: number): boolean {
		return this.run('again').run({ site, id, now }).changes > 0;
	}

	/** Whether the time of any message has come. */
	hasDue(now: number): boolean {
		return this.run('hasDue').get(now)!.n === 1;
	}
	/** Takes messages whose time has come, one of each address; nobody else takes them before `until`. */
	takeDue(now: number, until: number, most: number): DueMessage[] {
		const found = this.run('due').all({ now, most });
		for (const { id } of found) this.run('hold').run({ id, due: until });
		return found.map(({ inside, tries, ...one }) => ({
			...{ ...one, inside: inside === 1, tries: JSON.parse(tries) as HookTry[] }
		}));
	}
	/** Keeps a try; `due` is when it is tried next, undefined where it is not. */
	tried(id: string, tries: readonly HookTry[], due: number | undefined) {
		this.run('tried').run({ id, tries: JSON.stringify(tries), due: due ?? null });
	}

	/** On how many pages each kind of finding stood when that was last told; undefined where nobody wanted to know yet. */
	toldFindings(site: number): Map<string, number> | undefined {
		const told = new Map(
			this.run('told')
				.all(site)
				.map(({ code, pages }) => [code, pages])
		);
		return told.delete(KNOWN) ? told : undefined;
	}
	keepFindings(site: number, counts: ReadonlyMap<string, number>) {
		this.forgetFindings(site);
		for (const [code, pages] of [...counts, [KNOWN, 0] as const]) this.run('keepTold').run({ site, code, pages });
	}
	forgetFindings(site: number) {
		this.run('forget').run(site);
	}
}
