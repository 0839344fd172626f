import { UserError } from '../errors';
import { Library } from '../pictures/library';
import { Store } from '../store/store';

let store: Store | undefined;

/** What nothing names any more is taken out of the library this often (milliseconds). */
const SWEEP_EVERY = 3_600_000;

/** The database that the web application works on; opened at the first request and kept. */
export function openStore(): Store {
	const file = process.env.KEPHALON_DB;
	if (!file) throw new UserError('No database is named. Start the web application with the kephalon command.');
	if (store) return store;
	store = new Store(file);
	const library = new Library(store);
	library.sweep();
	setInterval(() => library.sweep(), SWEEP_EVERY).unref();
	return store;
}

/** The server that stands in for a site that is not on the net, if there is one. */
export function standIn(): { base: string; origin: string } | undefined {
	const text = process.env.KEPHALON_STAND_IN;
	return text ? (JSON.parse(text) as { base: string; origin: string }) : undefined;
}
