import { UserError } from '../errors';
import { Library } from '../pictures/library';
import { Store } from '../store/store';

let store: Store | undefined;

/** The database that the web application works on; opened at the first request and kept. */
export function openStore(): Store {
	const file = process.env.KEPHALON_DB;
	if (!file) throw new UserError('No database is named. Start the web application with the kephalon command.');
	if (store) return store;
	store = new Store(file);
	// Nothing is being taken in yet: what no site knows was left behind.
	new Library(store).sweep();
	return store;
}

/** The server that stands in for a site that is not on the net, if there is one. */
export function standIn(): { base: string; origin: string } | undefined {
	const text = process.env.KEPHALON_STAND_IN;
	return text ? (JSON.parse(text) as { base: string; origin: string }) : undefined;
}
