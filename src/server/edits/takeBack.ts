import { isMuch, refuse } from '../errors';
import { pauseOrders, resumeOrders } from '../store/opening/orders';
import { Overtaken } from '../store/record/record';
import type { Store } from '../store/store';
import { WriterLock } from '../store/opening/writerLock';
import { Conflict, makeEdit, type Made, type Origin } from './edit';

/** Which edit is meant: the last that can be taken back, the last that was taken back, or one by its number. */
export type WhichEdit = 'last' | 'again' | number;

/** What was taken back: the number of an edit, and what it had done. */
export interface TakenBack {
	readonly taken: number;
	readonly of: { readonly kind: string; readonly what: unknown };
}

/**
 * Takes an edit back, which is an edit itself; taking that back does it again. Throws a `Conflict` when what it changed
 * was changed again since.
 */
export function takeBack(
	store: Store,
	name: string,
	which: WhichEdit,
	origin: Origin,
	/** How many pages go by it: to be said where they are much of the site. */
	removes?: number,
	/** Told how many changes of how many were put back. */
	progress?: (done: number, all: number) => void
): Made<TakenBack> {
	const { id } = store.working.sites.named(name);
	const wanted = editMeant(store, name, which);
	const edit = wanted === undefined ? undefined : store.record.one(id, wanted);
	if (!edit)
		throw typeof which === 'number'
			? refuse('edit-missing', { edit: which })
			: refuse(which === 'again' ? 'nothing-to-do-again' : 'nothing-to-take-back');
	if (edit.isBack) throw refuse('taken-back-already');
	const what = { ...(edit.what as object), of: edit.kind };
	return makeEdit(
		store,
		name,
		{
			origin,
			kind: edit.takesBack === null ? 'back' : 'again',
			what,
			takesBack: edit.id
		},
		() => {
			refuseMuchGone(store, id, edit.id, removes);
			try {
				store.record.putBack(edit.id, false, progress);
				// Doing again what was taken back makes the first edit stand again.
				if (edit.takesBack) store.record.stands(edit.takesBack);
			} catch (error) {
				if (!(error instanceof Overtaken)) throw error;
				const { made, author } = error.by;
				throw new Conflict('changed-again', error.by.what, { author, made: made || undefined });
			}
			return { taken: edit.id, of: { kind: edit.kind, what: edit.what } };
		}
	);
}

/** Taking back what brought much of the site is stopped until it is said how much goes. */
function refuseMuchGone(store: Store, site: number, edit: number, said: number | undefined) {
	const gone = store.record.countPagesMade(edit);
	const { all } = store.working.pages.count(site);
	if (isMuch(gone, all) && said !== gone) throw refuse('take-back-removes', { removes: gone, all });
}

/** The number of the edit that is meant, if there is one. */
export function editMeant(store: Store, name: string, which: WhichEdit): number | undefined {
	if (typeof which === 'number') return which;
	const { back, again } = store.record.next(store.working.sites.named(name).id);
	return which === 'last' ? back : again;
}

/** An edit of more changes is taken back in a thread: who asks for something else is answered meanwhile. */
const FEW_CHANGES = 300;
export const isLarge = (store: Store, edit: number) => store.record.countChanges(edit, FEW_CHANGES + 1) > FEW_CHANGES;

/** The same for a large one, in a thread: what only sorts and filters the table of pages is made anew afterwards. */
export function takeBackLarge(
	store: Store,
	name: string,
	edit: number,
	origin: Origin,
	removes?: number,
	progress?: (done: number, all: number) => void
): ReturnType<typeof takeBack> {
	const lock = WriterLock.take(store.file);
	const isPaused = lock !== undefined && pauseOrders(store.db, store.record.countChanges(edit));
	try {
		return takeBack(store, name, edit, origin, removes, progress);
	} finally {
		try {
			if (isPaused) resumeOrders(store.db);
		} finally {
			lock?.release();
		}
	}
}
