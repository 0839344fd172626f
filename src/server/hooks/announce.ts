import { randomUUID } from 'node:crypto';
import type { HookEvent, HookTold } from '../store/hooks/hooks';
import { Store } from '../store/store';

/**
 * Puts down what happened at a site for all addresses that want to be told of it, in the transaction that is open: it is told
 * if and only if it was kept, whichever process did it. Sent by `outbox.ts`.
 */
export function announce(
	store: Store,
	site: { readonly id: number; readonly name: string },
	event: HookEvent,
	data: object
) {
	store.transaction(() => {
		for (const webhook of store.hooks.wanting(site.id, event)) tell(store, webhook, site.name, event, data);
	});
}

/** The same for one address, whatever it wants. */
export function tell(store: Store, webhook: number, site: string, event: HookTold, data: object) {
	const body = JSON.stringify({ type: event, timestamp: new Date().toISOString(), data: { site, ...data } });
	store.hooks.tell(webhook, { id: `msg_${randomUUID()}`, event, body }, Date.now());
}

/**
 * Tells of kinds of findings that stand on more pages than when that was last told, once all pages were looked at. The first count
 * after somebody wanted to know is what others are held against. It goes over all findings: called in a thread.
 */
export function announceFindings(store: Store, site: { readonly id: number; readonly name: string }) {
	if (store.hooks.wanting(site.id, 'findings.grown').length === 0 || store.state.countStale(site.id) > 0) return;
	const now = new Map<string, number>();
	// A kind may stand on several tags of a page: the tag that most pages have it on counts.
	for (const { code, pages } of store.state.kinds(site.id)) now.set(code, Math.max(pages, now.get(code) ?? 0));
	const before = store.hooks.toldFindings(site.id);
	if (before?.size === now.size && [...now].every(([code, pages]) => before.get(code) === pages)) return;
	const grown = [...now]
		.map(([code, pages]) => ({ code, pages, before: before?.get(code) ?? 0 }))
		.filter((one) => before !== undefined && one.pages > one.before);
	store.transaction(() => {
		store.hooks.keepFindings(site.id, now);
		if (grown.length > 0) announce(store, site, 'findings.grown', { grown });
	});
}

/** Tells that a long work has ended, and how: `done`, `failed`, or the code of what refused it. Of a site that is not there any more nothing is told. */
export function announceEnd(db: string, name: string, job: string, ended: string) {
	if (!opened(db, true, (store) => wants(store, name) !== undefined)) return;
	opened(db, false, (store) => {
		const site = wants(store, name);
		if (site) announce(store, site, 'job.ended', { job, ended });
	});
}

const wants = (store: Store, name: string) =>
	store.working.sites.names().find((one) => one.name === name && store.hooks.wanting(one.id, 'job.ended').length > 0);
function opened<T>(db: string, readonly: boolean, work: (store: Store) => T): T {
	const store = new Store(db, { readonly });
	try {
		return work(store);
	} finally {
		store.close();
	}
}
