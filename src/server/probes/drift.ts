import { refuse } from '../errors';
import type { Via } from '../fetching/trace';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { verify, type Drift, type DriftOfPage, type VerifyOptions } from './verify';

/** How what is served of a whole site compares with what was released, as it was last looked at. */
export interface DriftOfSite {
	/** ISO 8601; null: nobody looked yet. */
	readonly made: string | null;
	readonly pages: number;
	readonly counts: Readonly<Partial<Record<Drift, number>>>;
	readonly drifted: readonly DriftOfPage[];
	/** Paths that drifted since the look before, and those that no longer do. */
	readonly came: readonly string[];
	readonly went: readonly string[];
	/** Pages yet to be asked for: it was stopped. */
	readonly waiting: number;
	readonly every: Schedule;
}

const SCHEDULES = ['off', 'hour', 'night'] as const;
export type Schedule = (typeof SCHEDULES)[number];

/** Drifted pages that are kept with a look. */
const MOST_KEPT = 500;
/** Requests a second, unless another rate is named. */
const RATE = 10;
/** A night's look begins in this hour by the clock of the machine. */
const NIGHT = 3;
const HOUR = 3_600_000;

type Kept = Omit<DriftOfSite, 'every'>;
const NEVER: Kept = { made: null, pages: 0, counts: {}, drifted: [], came: [], went: [], waiting: 0 };

export function readDrift(store: Store, name: string): DriftOfSite {
	const { id } = store.working.sites.named(name);
	const every = store.working.sources.settings<{ every: Schedule }>(id, 'verify-every')?.every ?? 'off';
	return { ...NEVER, ...store.working.sources.settings<Kept>(id, 'drift'), every };
}

/** Looks at every released page as it is served, and keeps what was seen; what was stopped goes on from where it was. */
export async function lookForDrift(
	store: Store,
	name: string,
	via: Via | undefined,
	options: Pick<VerifyOptions, 'progress' | 'signal' | 'allowed'> & { readonly rate?: number } = {}
): Promise<DriftOfSite> {
	const { id } = store.working.sites.named(name);
	const seen = await verify(store, { ...options, site: name, rate: options.rate ?? RATE, via });
	const before = store.working.sources.settings<Kept>(id, 'drift');
	const [were, are] = [before?.drifted ?? [], seen.drifted].map((list) => new Set(list.map(({ path }) => path)));
	const kept: Kept = {
		...{ made: new Date().toISOString(), pages: seen.pages, counts: seen.counts, waiting: seen.waiting },
		drifted: seen.drifted.slice(0, MOST_KEPT),
		came: before ? [...are!].filter((path) => !were!.has(path)).slice(0, MOST_KEPT) : [],
		// What was not asked for again may still be as it was.
		went: seen.waiting > 0 ? [] : [...were!].filter((path) => !are!.has(path)).slice(0, MOST_KEPT)
	};
	await patiently(() => store.transaction(() => store.working.sources.saveSettings(id, 'drift', kept)));
	return readDrift(store, name);
}

export async function setSchedule(store: Store, name: string, every: unknown): Promise<DriftOfSite> {
	if (!SCHEDULES.includes(every as Schedule)) throw refuse('schedule-unknown', { known: SCHEDULES });
	const { id } = store.working.sites.named(name);
	await patiently(() => store.transaction(() => store.working.sources.saveSettings(id, 'verify-every', { every })));
	return readDrift(store, name);
}

/** Whether a look is due by its schedule. */
export function isDue({ every, made }: Pick<DriftOfSite, 'every' | 'made'>, now: Date): boolean {
	const last = made === null ? 0 : new Date(made).getTime();
	if (every === 'hour') return now.getTime() - last >= HOUR;
	return every === 'night' && now.getHours() === NIGHT && now.getTime() - last >= 2 * HOUR;
}

/** Looks at each site whose time has come, one after the other. */
export async function lookBySchedule(
	store: Store,
	look: (site: string, base: string) => Promise<unknown>,
	now: Date,
	told: (error: unknown, site: string) => void
) {
	for (const { id, name, base } of store.working.sites.names()) {
		if (!store.releases.latest(id) || !isDue(readDrift(store, name), now)) continue;
		await look(name, base).catch((error: unknown) => told(error, name));
	}
}
