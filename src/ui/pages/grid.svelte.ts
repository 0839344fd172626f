import type { GridRow, PageFilter, Sort } from '$server/store/table/grid';
import { call, isRefused } from '../client';

export interface Order {
	readonly sort: Sort;
	readonly down: boolean;
}

/** Rows are fetched so many at a time. */
const CHUNK = 100;
/** Chunks that are kept: those looked at longest ago go first. */
const MOST_CHUNKS = 40;
/** Rows so far before and behind those in view are there before they are reached. */
const AHEAD = 50;
/** What could not be fetched is asked for again after so long (milliseconds). */
const AGAIN = 1000;

/** The rows of the table of pages, as far as they were looked at: never all of them. */
export class Grid {
	count = $state(0);
	/** It is known how many there are. */
	isCounted = $state(false);
	unseen = $state(0);
	refused = $state('');
	isLoading = $state(false);
	/** Counted up with each answer, for what is drawn from the chunks. */
	version = $state(0);
	private readonly chunks = new Map<number, readonly GridRow[]>();
	private readonly asked = new Set<number>();
	private round = 0;
	private view = { from: 0, to: 0 };

	constructor(
		private readonly site: string,
		private filter: PageFilter,
		private order: Order
	) {}

	/** Begins anew with another filter or order, or to see what has changed. */
	async show(filter: PageFilter, order: Order) {
		this.filter = filter;
		this.order = order;
		this.leave();
		this.chunks.clear();
		this.asked.clear();
		await this.load(0, true);
	}

	/** What is under way is of no use any more. */
	leave() {
		this.round++;
	}

	/** Fetches what is in view again, and leaves what stands there until the answer comes; all else is asked for when wanted. */
	async again() {
		this.asked.clear();
		const [first, ...others] = chunksOf(this.view);
		const inView = new Set([first, ...others]);
		for (const chunk of this.chunks.keys()) if (!inView.has(chunk)) this.chunks.delete(chunk);
		await Promise.all([this.load(first, true), ...others.map((chunk) => this.load(chunk, false))]);
	}

	row(index: number): GridRow | undefined {
		return this.chunks.get(Math.floor(index / CHUNK))?.[index % CHUNK];
	}

	/** Sees to it that rows are there soon: those that are seen first, then those around them. */
	want(from: number, to: number) {
		this.view = { from, to };
		const around = { from: Math.max(0, from - AHEAD), to: Math.max(to, Math.min(this.count - 1, to + AHEAD)) };
		for (const chunk of [...chunksOf(this.view), ...chunksOf(around)])
			if (!this.chunks.has(chunk) && !this.asked.has(chunk)) void this.load(chunk, false);
	}

	/** The rows from one to another, those that are not here fetched; undefined where they cannot be. */
	async between(from: number, to: number): Promise<readonly GridRow[] | undefined> {
		const { round } = this;
		const chunks = [];
		for (const chunk of chunksOf({ from, to })) {
			const known = this.chunks.get(chunk);
			if (known) chunks.push(known);
			else {
				const answer = await this.ask(chunk, false);
				if (round !== this.round) return undefined;
				if (isRefused(answer)) {
					this.refused = answer.refused;
					return undefined;
				}
				chunks.push(answer.rows);
			}
		}
		const first = Math.floor(from / CHUNK) * CHUNK;
		return chunks.flat().slice(from - first, to - first + 1);
	}

	private ask(chunk: number, withCount: boolean) {
		const { sort, down } = this.order;
		const query = { ...this.filter, sort, row: chunk * CHUNK, limit: CHUNK };
		return call('GET /sites/{site}/grid', {
			site: this.site,
			query: { ...query, ...(down && { down: '1' }), ...(withCount && { count: '1' }) }
		});
	}

	private async load(chunk: number, withCount: boolean) {
		const { round } = this;
		this.asked.add(chunk);
		this.isLoading = true;
		const answer = await this.ask(chunk, withCount);
		if (round !== this.round) return;
		this.isLoading = false;
		this.refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) {
			this.asked.delete(chunk);
			setTimeout(() => round === this.round && this.want(this.view.from, this.view.to), AGAIN);
			return;
		}
		this.chunks.delete(chunk);
		this.chunks.set(chunk, answer.rows);
		for (const old of this.chunks.keys()) {
			if (this.chunks.size <= MOST_CHUNKS) break;
			this.chunks.delete(old);
			this.asked.delete(old);
		}
		if (answer.count !== undefined) [this.count, this.isCounted] = [answer.count, true];
		this.unseen = answer.unseen;
		this.version++;
	}
}

/** The chunks that rows from one to another stand in. */
function chunksOf({ from, to }: { from: number; to: number }): [number, ...number[]] {
	const [first, last] = [Math.floor(from / CHUNK), Math.floor(to / CHUNK)];
	return [first, ...Array.from({ length: last - first }, (_, at) => first + at + 1)];
}
