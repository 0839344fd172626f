import { userInfo } from 'node:os';
import type { Site } from '$core';
import { UserError, refuse } from '../errors';
import { nameOf } from '../people/note';
import { actor, revisionSeen } from '../people/acting';
import { refuseBeyond } from '../people/beyond';
import type { Store, StoredSite } from '../store/store';

/** The room that an edit was made in. */
export type Origin = 'bench' | 'command' | 'setup' | 'pages' | 'findings' | 'program';

/** Something that someone else changed meanwhile: what was to be replaced is not what stands there. */
export class Conflict extends UserError {
	constructor(
		code: 'changed-meanwhile' | 'changed-again',
		/** What stands there now. */
		readonly current: unknown,
		data: Readonly<Record<string, unknown>> = {}
	) {
		super(code, { ...data, current });
	}
}

export interface NewEdit {
	readonly origin: Origin;
	/** What sort of edit it is: rule, settings, page, picture, type, import, batch, back. */
	readonly kind: string;
	/** What was done, in the words of its kind; for people and for undoing. */
	readonly what: unknown;
	/** The edit that this one takes back. */
	readonly takesBack?: number;
}

export interface Made<T> {
	/** Its number in the record; undefined when nothing came out different. */
	readonly edit: number | undefined;
	/** The revision of the working copy that it led to. */
	readonly revision: number;
	readonly result: T;
}

/**
 * The one way in: reads the site, lets the work compare and write, marks what it touches, and puts it all into the record
 * of edits, in one transaction that no other writer can come between. Throws what the work throws; then nothing is kept.
 * An edit that changes no row leaves no trace.
 */
export function makeEdit<T>(store: Store, name: string, edit: NewEdit, work: (site: StoredSite) => T): Made<T> {
	refuseLostFile(store);
	return store.transaction(() => {
		const site = store.working.sites.named(name);
		const seen = revisionSeen();
		if (seen !== undefined && seen !== site.revision) throw refuse('site-changed', { revision: site.revision });
		// The marks that rows get say the revision that the edit leads to.
		const revision = store.record.nextRevision(site.id);
		const { id, result } = store.record.note(
			{ site: site.id, revision, made: new Date().toISOString(), author: authorName(), ...edit },
			() => work(site),
			(noted) => void refuseBeyond(store, site, noted)
		);
		if (id === undefined) store.record.sameRevision(site.id);
		return { edit: id, revision: id === undefined ? site.revision : revision, result };
	});
}

/** The same for content that is read in: makes the site first where there is none of its name. */
export function makeImport<T>(store: Store, site: Site, edit: NewEdit, work: (site: StoredSite) => T): Made<T> {
	return store.transaction(() => {
		if (!store.working.sites.find(site.name)) store.working.sites.save(site);
		return makeEdit(store, site.name, edit, work);
	});
}

/** Who does it: the person or key, or who is at this machine; a user whom the system has no name for is told by number. */
export function authorName(): string {
	const who = actor();
	if (who.kind !== 'alone') return nameOf(who, '');
	try {
		return userInfo().username;
	} catch {
		return `user ${process.getuid?.() ?? ''}`.trim();
	}
}

/** A database file that was replaced or deleted while it is open would take writes that nobody finds again. */
export function refuseLostFile(store: Store) {
	if (store.isLost()) throw refuse('database-replaced', { file: store.file });
}
