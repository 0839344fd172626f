import { parseUrl } from '$core';
import { refuse } from '../errors';
import type { Via } from '../fetching/trace';
import { lookBySchedule } from '../probes/drift';
import type { FolderSource } from '../imports/folderSource';
import { sendDue } from '../hooks/outbox';
import { freshen } from '../jobs/freshen';
import { runJob, stopJobs } from '../jobs/run';
import { log } from '../log';
import { insideOrigins } from '../sources/sources';
import { Store } from '../store/store';

let store: Store | undefined;

/** A connection of the thread that answers waits no longer (milliseconds) for another writer: see `patiently`. */
const PATIENCE = 20;

/** Whether a look at what is served is due is asked this often (milliseconds). */
const LOOK_EVERY = 60_000;
/** What nothing names any more is taken out of the library this often (milliseconds). */
const SWEEP_EVERY = 3_600_000;

/** The database that the web application works on; opened at the first request and kept. */
export function openStore(): Store {
	const file = process.env.KEPHALON_DB;
	if (!file) throw refuse('no-database');
	if (store) return store;
	store = new Store(file, { patience: PATIENCE });
	sweep(file);
	setInterval(() => sweep(file), SWEEP_EVERY).unref();
	setInterval(() => void lookWhereDue(store), LOOK_EVERY).unref();
	setInterval(() => freshenWhereStale(store), FRESHEN_EVERY).unref();
	setInterval(() => void sendWhereDue(store), SEND_EVERY).unref();
	process.once('kephalon:end' as 'exit', (ends: unknown) => (ends as Promise<unknown>[]).push(end()));
	return store;
}

/** Whether pages wait to be looked at is asked this often (milliseconds): content may come in by the command. */
const FRESHEN_EVERY = 2000;
/** What the database said of its changes when nothing waited. */
let fresh: unknown;

/** Brings up to date what waits for it, by whichever way it came in. */
function freshenWhereStale(at: Store | undefined) {
	if (!at) return;
	try {
		const state = at.db.pragma('data_version', { simple: true });
		// What says something of the day is due by the clock alone.
		const isDue = () => at.working.sites.names().some(({ id }) => at.state.countDue(id, Date.now()) > 0);
		if (state === fresh && !isDue()) return;
		const stale = at.working.sites.names().filter(({ id }) => at.state.countStale(id) > 0);
		for (const { name } of stale)
			freshen(at, name).catch((error: unknown) => log.error(error, `Pages of ${name} could not be looked at`));
		fresh = stale.length === 0 ? state : undefined;
	} catch (error) {
		log.error(error);
	}
}

/** Whether anything is to be told to other addresses is asked this often (milliseconds). */
const SEND_EVERY = 1000;
let isSending = false;
async function sendWhereDue(at: Store | undefined) {
	if (!at || isSending) return;
	isSending = true;
	try {
		while ((await sendDue(at, (task) => runJob('hook', task))) > 0);
	} catch (error) {
		log.error(error);
	}
	isSending = false;
}

/** Whether a look is under way: one that takes long is not begun again. */
let isLooking = false;
async function lookWhereDue(at: Store | undefined) {
	if (!at || isLooking) return;
	isLooking = true;
	try {
		await lookBySchedule(
			at,
			(site, base) => runJob('drift', { db: at.file, site, via: viaFor(base) }),
			new Date(),
			(error, site) => log.error(error, `What is served of ${site} could not be compared`)
		);
	} catch (error) {
		log.error(error);
	}
	isLooking = false;
}

/**
 * The way to a site that is not on the net: the server that stands in for it, where there is one of its base address. `at` is another,
 * which whoever started this one has named. Throws a `UserError` of one that was not.
 */
export function viaFor(base: string, at?: string): Via | undefined {
	if (at !== undefined) {
		const origin = parseUrl(at)?.origin;
		if (origin === undefined || !insideOrigins().includes(origin)) throw refuse('via-not-named', { via: at });
		return { origin: parseUrl(base)!.origin, at: origin };
	}
	const own = standIn();
	const origin = own?.base.replace(/\/$/, '');
	return own && origin !== undefined && base.startsWith(own.base) ? { origin, at: own.origin } : undefined;
}

/** An error of a timer ends in the log, not in the end of the process. */
function sweep(db: string) {
	runJob('sweep', { db }).catch((error: unknown) => log.error(error, 'The library could not be swept'));
}

async function end() {
	await stopJobs();
	store?.close();
	store = undefined;
}

/** The server that stands in for a site that is not on the net, if there is one. */
export function standIn(): { base: string; origin: string } | undefined {
	const text = process.env.KEPHALON_STAND_IN;
	return text ? (JSON.parse(text) as { base: string; origin: string }) : undefined;
}

/** The same for one site: without such a server, pictures come from the folder that the site was read from. */
export function standInFor(store: Store, name: string): ReturnType<typeof standIn> {
	const server = standIn();
	if (server) return server;
	const site = store.working.sites.find(name);
	const source = site && store.working.sources.settings<FolderSource>(site.id, 'folder');
	return source && { base: site.site.base, origin: `/folder/${encodeURIComponent(name)}` };
}
