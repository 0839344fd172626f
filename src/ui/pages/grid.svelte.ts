import { isRefused } from '../api';
import * as api from './api';
import type { GridRow, Order, PageFilter } from './api';

/** Rows are fetched so many at a time. */
const CHUNK = 100;
/** Chunks that are kept: those looked at longest ago go first. */
const MOST_CHUNKS = 40;

/** The rows of the table of pages, as far as they were looked at: never all of them. */
export class Grid {
	count = $state(0);
	unseen = $state(0);
	refused = $state('');
	isLoading = $state(false);
	/** Counted up with each answer, for what is drawn from the chunks. */
	version = $state(0);
	private readonly chunks = new Map<number, readonly GridRow[]>();
	private readonly asked = new Set<number>();
	private round = 0;

	constructor(
		private readonly site: string,
		private filter: PageFilter,
		private order: Order
	) {}

	/** Begins anew with another filter or order, or to see what has changed. */
	async show(filter: PageFilter, order: Order) {
		this.filter = filter;
		this.order = order;
		this.round++;
		this.chunks.clear();
		this.asked.clear();
		await this.load(0, true);
	}

	/** Fetches what was shown again, and leaves what stands there until the answer comes. */
	async again() {
		this.asked.clear();
		const known = [...this.chunks.keys()];
		await Promise.all(known.map((chunk) => this.load(chunk, chunk === known[0])));
	}

	row(index: number): GridRow | undefined {
		return this.chunks.get(Math.floor(index / CHUNK))?.[index % CHUNK];
	}

	/** Sees to it that rows are there soon. */
	want(from: number, to: number) {
		for (let chunk = Math.floor(from / CHUNK); chunk <= Math.floor(to / CHUNK); chunk++)
			if (!this.chunks.has(chunk) && !this.asked.has(chunk)) void this.load(chunk, false);
	}

	/** The rows from one to another, those that are not here fetched; undefined where they cannot be. */
	async between(from: number, to: number): Promise<readonly GridRow[] | undefined> {
		const { round } = this;
		const chunks = [];
		for (let chunk = Math.floor(from / CHUNK); chunk <= Math.floor(to / CHUNK); chunk++) {
			const known = this.chunks.get(chunk);
			if (known) chunks.push(known);
			else {
				const answer = await api.rows(this.site, this.filter, this.order, chunk * CHUNK, CHUNK, false);
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

	private async load(chunk: number, withCount: boolean) {
		const { round } = this;
		this.asked.add(chunk);
		this.isLoading = true;
		const answer = await api.rows(this.site, this.filter, this.order, chunk * CHUNK, CHUNK, withCount);
		if (round !== this.round) return;
		this.isLoading = false;
		this.refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return;
		this.chunks.delete(chunk);
		this.chunks.set(chunk, answer.rows);
		for (const old of this.chunks.keys()) {
			if (this.chunks.size <= MOST_CHUNKS) break;
			this.chunks.delete(old);
			this.asked.delete(old);
		}
		if (answer.count !== undefined) this.count = answer.count;
		this.unseen = answer.unseen;
		this.version++;
	}
}
