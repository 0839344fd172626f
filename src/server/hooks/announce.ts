import { randomUUID } from 'node:crypto';
import type { HookEvent } from '../store/hooks/hooks';
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
export function tell(store: Store, webhook: number, site: string, event: HookEvent, data: object) {
	const body = JSON.stringify({ type: event, timestamp: new Date().toISOString(), data: { site, ...data } });
	store.hooks.tell(webhook, { id: `msg_${randomUUID()}`, event, body }, Date.now());
}

/** Tells of kinds of findings that stand on more pages than when that was last told, once all pages were looked at. */
export function announceFindings(store: Store, site: { readonly id: number; readonly name: string }) {
	if (store.hooks.wanting(site.id, 'findings.grown').length === 0 || store.state.countStale(site.id) > 0) return;
	const now = new Map<string, number>();
	for (const { code, pages } of store.state.kinds(site.id)) now.set(code, Math.max(pages, now.get(code) ?? 0));
	const before = store.hooks.toldFindings(site.id);
	const grown = [...now]
		.map(([code, pages]) => ({ code, pages, before: before.get(code) ?? 0 }))
		.filter((one) => one.pages > one.before);
	if (grown.length === 0 && now.size === before.size && [...now].every(([code, pages]) => before.get(code) === pages))
		return;
	store.transaction(() => {
		store.hooks.keepFindings(site.id, now);
		if (grown.length > 0) announce(store, site, 'findings.grown', { grown });
	});
}

/** Tells that a long work has ended, and how: done, or refused (the code says why). A site that is not there, or no more, is told nothing of. */
export function announceEnd(db: string, name: string, job: string, refused?: string) {
	const store = new Store(db);
	try {
		const site = store.working.sites.names().find((one) => one.name === name);
		if (site) announce(store, site, 'job.ended', { job, ended: refused ?? 'done' });
	} finally {
		store.close();
	}
}
