import { keptCopyOf, publicIn } from '$core';
import type { Part } from '../store/opening/part';
import type { Store } from '../store/store';
import { mendUnfinished } from '../store/unfinished';
import type { Progress } from '../progress';
import { stateOf, workingResolver, type StateModel } from '../heads/heads';

/** Pages that are brought up to date together, in a transaction of their own: an editor waits no longer than for one. */
const BATCH = 400;

/**
 * Looks at every page that an edit may have touched and keeps what it comes to. Each batch reads the working copy as it
 * is then; edits that come between mark their pages again. Gives how many pages were looked at.
 */
export function refresh(reader: Store, writer: Store, name: string, part: Part, progress: Progress): number {
	let [done, model] = [0, undefined as (StateModel & { revision: number }) | undefined];
	// By one clock from beginning to end: what changes meanwhile is for the next time.
	const now = new Date().toISOString();
	const due = reader.working.sites.named(name).id;
	if (reader.state.countDue(due, Date.parse(now)) > 0)
		writer.transaction(() => writer.state.markDue(due, Date.parse(now)));
	for (;;) {
		const batch = reader.db
			.transaction(() => {
				const site = reader.working.sites.named(name);
				if (model?.revision !== site.revision) model = modelOf(reader, name, now);
				const known = model;
				const ids = reader.state.stale(site.id, part, BATCH);
				const states = reader.working.pages.byIds(ids).map(([id, page]) => stateOf(known, id, page));
				return { revision: site.revision, states, count: ids.length };
			})
			.deferred();
		if (batch.count === 0) {
			mendUnfinished(writer.db, writer.record);
			return done;
		}
		writer.transaction(() => {
			writer.state.keep(batch.revision, batch.states);
			for (const { id, reading } of batch.states) if (reading) writer.working.bodies.saveReading(id, reading);
		});
		done += batch.count;
		progress(done);
	}
}

function modelOf(store: Store, name: string, now: string): StateModel & { revision: number } {
	const stored = store.working.sites.named(name);
	const namesOf = (isMeant: (type: (typeof stored.types)[number]) => boolean) =>
		new Set(stored.types.filter(isMeant).map((type) => type.name));
	return {
		site: stored.id,
		revision: stored.revision,
		resolver: workingResolver(store, stored, now),
		fields: new Map(stored.types.map((type) => [type.name, type.fields.map((field) => field.name)])),
		isPublic: publicIn(stored.types),
		unshared: namesOf(({ special }) => special === 'not-found'),
		suppressed: store.state.suppressions.of(stored.id),
		sourceOf: new Map(
			store.pictures.all(stored.id).flatMap((picture) => {
				const file = keptCopyOf(picture)?.file;
				return file === undefined ? [] : [[file, picture.src] as const];
			})
		)
	};
}
