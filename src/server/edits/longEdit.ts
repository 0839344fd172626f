import type { Site } from '$core';
import { refuse } from '../errors';
import { refuseBeyond } from '../people/beyond';
import type { Store, StoredSite } from '../store/store';
import { MANY, pauseOrders, resumeOrders } from '../store/opening/orders';
import { takeBackUnfinished } from '../store/unfinished';
import { WriterLock } from '../store/opening/writerLock';
import { authorName, refuseLostFile, type Made, type NewEdit } from './edit';

/** The work of an edit of any size: at each `yield`, others may write. */
export type LongWork<T> = (site: StoredSite) => Generator<void, T>;

export interface LongOptions {
	/** The site to make where there is none of the name. */
	readonly fresh?: Site;
	/** About how many pages come that were not there. */
	readonly coming?: number;
}

/** So long (milliseconds) nobody else can write, at the most; and so long they can, before it goes on. */
const GO = 400;
const PAUSE = 30;

/** Pages of the database in its log before they are put into the file: goes write the same ones again and again. */
const PAGES_BETWEEN = 25_000;
const USUALLY_BETWEEN = 1000;

const sleeping = new Int32Array(new SharedArrayBuffer(4));

/**
 * An edit that may be large: what takes longer is made in goes of a moment each, and others write between them. It stands
 * in the record as one and is taken back as one. When its work throws, or its maker is ended, what it had done is taken
 * back: at once, or by the next who opens the database to write. For use in a thread or a command: it sleeps between its
 * goes.
 */
export function makeLongEdit<T>(
	store: Store,
	name: string,
	edit: NewEdit,
	work: LongWork<T>,
	{ fresh, coming = 0 }: LongOptions = {}
): Made<T> {
	refuseLostFile(store);
	const making = new LongEdit(store, name, edit, work, fresh);
	try {
		making.expect(coming);
		while (!making.go()) {
			store.db.pragma(`wal_autocheckpoint = ${PAGES_BETWEEN}`);
			Atomics.wait(sleeping, 0, 0, PAUSE);
		}
		return making.made as Made<T>;
	} catch (error) {
		making.giveUp();
		throw error;
	} finally {
		store.db.pragma(`wal_autocheckpoint = ${USUALLY_BETWEEN}`);
		making.end();
	}
}

class LongEdit<T> {
	made: Made<T> | undefined;
	private lock: WriterLock | undefined;
	private isPaused = false;
	private running: Generator<void, T> | undefined;
	private site: { readonly id: number; readonly isNew: boolean } | undefined;
	private edit: number | undefined;
	/** The last row that was looked at for what may not be changed. */
	private seen = 0;
	/** Whether a go was kept already. */
	private isBegun = false;

	constructor(
		private readonly store: Store,
		private readonly name: string,
		private readonly entry: NewEdit,
		private readonly work: LongWork<T>,
		private readonly fresh: Site | undefined
	) {}

	/** Makes room for so many pages. */
	expect(coming: number) {
		// A short one takes no lock beforehand: another may want to go in parts meanwhile.
		if (coming < MANY) return;
		this.lock = WriterLock.take(this.store.file);
		this.isPaused = this.lock !== undefined && pauseOrders(this.store.db, coming);
	}
	end() {
		try {
			if (this.isPaused) resumeOrders(this.store.db);
		} finally {
			this.lock?.release();
		}
	}

	/** One go, in a transaction of its own; says whether the work is done. */
	go(): boolean {
		const isDone = this.store.transaction(() => {
			const { record } = this.store;
			const site = this.site ?? this.open();
			// The marks that rows get say the revision that this go leads to.
			const revision = record.nextRevision(site.id);
			const whole = { site: site.id, revision, made: new Date().toISOString(), author: authorName(), ...this.entry };
			this.edit ??= record.begin(whole);
			const id = this.edit;
			const step = record.go(id, () => this.stepsOfOneGo());
			// Each go by itself: nobody sees what may not be, not even for a while.
			this.seen = refuseBeyond(this.store, this.store.working.sites.named(this.name), id, this.seen);
			if (!step.done) {
				if (!this.isBegun) record.beginLong(id, site.isNew);
				return false;
			}
			const hasChanged = record.finish(id, whole);
			if (this.isBegun && hasChanged) record.endLong(id, revision);
			if (!hasChanged && !this.isBegun) record.sameRevision(site.id);
			this.made = {
				edit: hasChanged ? id : undefined,
				revision: hasChanged || this.isBegun ? revision : revision - 1,
				result: step.value
			};
			return true;
		});
		this.isBegun = true;
		return isDone;
	}

	private open() {
		const isNew = !this.store.working.sites.find(this.name);
		if (isNew && this.fresh) this.store.working.sites.save(this.fresh);
		return (this.site = { id: this.store.working.sites.named(this.name).id, isNew });
	}

	/** Works until the go is over; one that cannot be parted, since another long edit is going on, is made whole. */
	private stepsOfOneGo(): IteratorResult<void, T> {
		this.running ??= this.work(this.store.working.sites.named(this.name));
		const until = performance.now() + GO;
		for (;;) {
			const step = this.running.next();
			if (step.done) return step;
			if (performance.now() < until) continue;
			this.lock ??= WriterLock.take(this.store.file);
			if (this.lock) return step;
		}
	}

	/** Takes back what earlier goes kept. */
	giveUp() {
		if (this.isBegun) takeBackUnfinished(this.store.db, this.store.record, this.edit);
	}
}

/** While an edit is half made, nothing goes out. Throws a `UserError`. */
export function refuseHalfMade(store: Store, site: number) {
	const going = store.record.unfinished().find((one) => one.site === site);
	if (going) throw refuse('long-edit-under-way', { author: going.author, since: going.made });
}
