import { copyFileSync, existsSync, mkdirSync, readdirSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { UserError } from '../errors';
import { Library } from '../pictures/library';
import { explain } from './database';
import { Store } from './store';

export interface Backup {
	/** The copy of the database; the copy of the library stands beside it. */
	readonly db: string;
	readonly sites: number;
	readonly pages: number;
	/** Pictures of the library that the sites know, and the bytes of all of its files. */
	readonly pictures: number;
	readonly bytes: number;
}

/**
 * Copies a database, whole as it is at one moment, and the pictures of its library into a folder. Throws a `UserError`
 * when the folder holds anything.
 */
export async function backUp(store: Store, folder: string): Promise<Backup> {
	const target = resolve(folder);
	if (existsSync(target) && readdirSync(target).length > 0)
		throw new UserError(`The folder ${folder} is not empty. Name one that is: a backup never writes over anything.`);
	const db = join(target, basename(store.file));
	try {
		mkdirSync(target, { recursive: true });
		await store.db.backup(db);
		copyLibrary(new Library(store).folder, `${db}.media`);
	} catch (error) {
		throw explain(error, db);
	}
	// Not read-only: closing it then leaves nothing beside it.
	const copy = new Store(db);
	try {
		const sites = copy.siteNames();
		const pages = sites.reduce((sum, { id }) => sum + copy.countPages(id).all, 0);
		return { db, sites: sites.length, pages, ...new Library(copy).size() };
	} finally {
		copy.close();
	}
}

/** Files of the library never change once they have their name: after the database, all that it names is there. */
function copyLibrary(from: string, to: string) {
	if (!existsSync(from)) return;
	mkdirSync(to);
	for (const name of readdirSync(from)) if (!name.startsWith('.')) copyFileSync(join(from, name), join(to, name));
}
