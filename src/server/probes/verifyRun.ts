import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { refuse } from '../errors';
import { clock } from '../waiting';
import { DRIFTS, type Drift, type PageDrift, type HeadWay } from './drifts';

/** What is kept while it runs, so that it goes on where it was stopped. */
interface Kept {
	readonly release: number;
	readonly after: string;
	readonly counts: Record<Drift, number>;
	/** On how many pages the head was written in on its way, by what. */
	readonly ways: Partial<Record<HeadWay, number>>;
	/** Who looks now, and until when it counts as looking without a word of it (milliseconds). */
	readonly by?: { readonly run: string; readonly process: number; readonly until: number };
}

/** A run that says nothing for so long (milliseconds) has ended. */
const SILENT = 120_000;

const none = () => Object.fromEntries(DRIFTS.map((is) => [is, 0])) as Record<Drift, number>;

/** How far a look is, with the pages that drifted. */
export type State = { -readonly [K in keyof Omit<Kept, 'by'>]: Kept[K] } & { readonly drifted: PageDrift[] };
export const fresh = (release: number): State => ({ release, after: '', counts: none(), ways: {}, drifted: [] });

/** Where a look at all pages begins: where the one before was stopped, if it was of this release. Throws where one looks now. */
export async function begin(
	store: Store,
	id: number,
	{ run, release }: { run: string; release: number }
): Promise<State> {
	const { sources } = store.working;
	return patiently(() =>
		store.transaction(() => {
			const before = sources.settings<Kept & { drifted?: PageDrift[] }>(id, 'verify');
			if (before?.by && isAtWork(before.by)) throw refuse('verify-running', { done: doneOf(before) });
			const drifted = sources.settings<PageDrift[]>(id, 'verify-drifted') ?? before?.drifted ?? [];
			const state: State =
				before?.release === release
					? // What an earlier version kept knows fewer ways to differ.
						{ release, after: before.after, counts: { ...none(), ...before.counts }, ways: before.ways ?? {}, drifted }
					: fresh(release);
			save(store, id, run, state, true);
			return state;
		})
	);
}

/** Whether a run still looks: its process is there, and has said so lately. */
function isAtWork({ process: by, until }: NonNullable<Kept['by']>): boolean {
	if (clock.now() > until) return false;
	try {
		return process.kill(by, 0);
	} catch (error) {
		return (error as NodeJS.ErrnoException).code === 'EPERM';
	}
}

function save(store: Store, id: number, run: string, { drifted, ...rest }: State, hasMore: boolean) {
	const kept: Kept = { ...rest, by: { run, process: process.pid, until: clock.now() + SILENT } };
	store.working.sources.saveSettings(id, 'verify', kept);
	if (hasMore) store.working.sources.saveSettings(id, 'verify-drifted', drifted);
}
/** Notes how far a run is. Throws where another has gone on with it: this one had said nothing for too long. */
export const note = (store: Store, id: number, run: string, state: State, hasMore: boolean) =>
	patiently(() =>
		store.transaction(() => {
			if (!isOwn(store, id, run)) throw refuse('verify-running', { done: doneOf(state) });
			save(store, id, run, state, hasMore);
		})
	);

const isOwn = (store: Store, id: number, run: string) =>
	store.working.sources.settings<Kept>(id, 'verify')?.by?.run === run;
const doneOf = ({ counts }: Pick<Kept, 'counts'>) => Object.values(counts).reduce((sum, count) => sum + count, 0);

/** Ends a look, however it came to its end: what is left of one that was stopped waits for the next. */
export const leave = (store: Store, id: number, run: string, { drifted: _, ...kept }: State, isDone: boolean) =>
	patiently(() =>
		store.transaction(() => {
			if (!isOwn(store, id, run)) return;
			if (!isDone) return store.working.sources.saveSettings(id, 'verify', kept);
			store.working.sources.forget(id, 'verify');
			store.working.sources.forget(id, 'verify-drifted');
		})
	);
