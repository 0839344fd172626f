import { announce } from '../hooks/announce';
import type { Via } from '../fetching/trace';
import { looker } from '../people/note';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { clock } from '../waiting';
import { driftInWords, type Drift, type DriftOfPage, type HeadWay, type PageDrift } from './drifts';
import { verify, type VerifyOptions } from './verify';

/** How what is served of a whole site compares with what was released, as it was last looked at. */
export interface DriftOfSite {
	/** ISO 8601; null: nobody looked yet. */
	readonly made: string | null;
	readonly pages: number;
	readonly counts: Readonly<Partial<Record<Drift, number>>>;
	/** On how many pages the head was written in on its way, by what; of all others it stands in the page itself. */
	readonly ways?: Readonly<Partial<Record<HeadWay, number>>>;
	readonly drifted: readonly DriftOfPage[];
	/** Paths that drifted since the look before, and those that no longer do. */
	readonly came: readonly string[];
	readonly went: readonly string[];
	/** Pages yet to be asked for: it was stopped. */
	readonly waiting: number;
	readonly every: Schedule;
	/** Who looked, where there are people and it did not look by itself. */
	readonly by?: string;
}

export type Schedule = 'off' | 'hour' | 'night';

/** Drifted pages that are kept with a look. */
const MOST_KEPT = 500;
/** Requests a second, unless another rate is named. */
const RATE = 10;
/** A night's look begins in this hour by the clock of the machine. */
const NIGHT = 3;
const HOUR = 3_600_000;

interface Kept extends Omit<DriftOfSite, 'every' | 'drifted'> {
	readonly drifted: readonly PageDrift[];
}
const NEVER: Kept = { made: null, pages: 0, counts: {}, drifted: [], came: [], went: [], waiting: 0 };

/** When a site is looked at, and since when it is. */
interface Plan {
	readonly every: Schedule;
	/** ISO 8601. */
	readonly since?: string;
}
const planOf = (store: Store, id: number): Plan =>
	store.working.sources.settings<Plan>(id, 'verify-every') ?? { every: 'off' };

export function readDrift(store: Store, name: string): DriftOfSite {
	const { id } = store.working.sites.named(name);
	const kept = { ...NEVER, ...store.working.sources.settings<Kept>(id, 'drift') };
	return { ...kept, drifted: kept.drifted.map(driftInWords), every: planOf(store, id).every };
}

/** Looks at every released page as it is served, and keeps what was seen; what was stopped goes on from where it was. */
export async function lookForDrift(
	store: Store,
	name: string,
	via: Via | readonly Via[] | undefined,
	options: Pick<VerifyOptions, 'progress' | 'signal' | 'allowed'> & { readonly rate?: number } = {}
): Promise<DriftOfSite> {
	const { id } = store.working.sites.named(name);
	const seen = await verify(store, { ...options, site: name, rate: options.rate ?? RATE, via });
	const before = store.working.sources.settings<Kept>(id, 'drift');
	const [were, are] = [before?.drifted ?? [], seen.drifted].map((list) => new Set(list.map(({ path }) => path)));
	const kept: Kept = {
		...looker(),
		...{ made: new Date().toISOString(), pages: seen.pages, counts: seen.counts, waiting: seen.waiting },
		ways: seen.ways,
		drifted: seen.drifted.slice(0, MOST_KEPT),
		came: before ? [...are!].filter((path) => !were!.has(path)).slice(0, MOST_KEPT) : [],
		// What was not asked for again may still be as it was.
		went: seen.waiting > 0 ? [] : [...were!].filter((path) => !are!.has(path)).slice(0, MOST_KEPT)
	};
	await patiently(() =>
		store.transaction(() => {
			store.working.sources.saveSettings(id, 'drift', kept);
			if (kept.came.length > 0 || (!before && kept.drifted.length > 0))
				announce(store, { id, name }, 'drift.found', {
					counts: kept.counts,
					pages: kept.pages,
					came: before ? kept.came : kept.drifted.map(({ path }) => path)
				});
		})
	);
	return readDrift(store, name);
}

export async function setSchedule(store: Store, name: string, every: Schedule): Promise<DriftOfSite> {
	const { id } = store.working.sites.named(name);
	const plan: Plan = { every, since: new Date(clock.now()).toISOString() };
	await patiently(() => store.transaction(() => store.working.sources.saveSettings(id, 'verify-every', plan)));
	return readDrift(store, name);
}

/**
 * Whether a look is due by its schedule: a night's, where none was made since the last night began, so that one that was
 * missed while nothing ran is made up for, once.
 */
export function isDue({ every, made, since }: Plan & Pick<DriftOfSite, 'made'>, now: Date): boolean {
	const last = made === null ? 0 : new Date(made).getTime();
	if (every === 'hour') return now.getTime() - last >= HOUR;
	if (every !== 'night') return false;
	const night = new Date(now);
	night.setHours(NIGHT, 0, 0, 0);
	if (night > now) night.setDate(night.getDate() - 1);
	return Math.max(last, since === undefined ? 0 : new Date(since).getTime()) < night.getTime();
}

/** Looks at each site whose time has come, one after the other. */
export async function lookBySchedule(
	store: Store,
	look: (site: string, base: string) => Promise<unknown>,
	now: Date,
	told: (error: unknown, site: string) => void
) {
	for (const { id, name, base } of store.working.sites.names()) {
		if (!store.releases.latest(id) || !isDue({ ...readDrift(store, name), ...planOf(store, id) }, now)) continue;
		await look(name, base).catch((error: unknown) => told(error, name));
	}
}
