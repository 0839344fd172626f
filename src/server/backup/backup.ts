import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, join, resolve } from 'node:path';
import { refuse } from '../errors';
import { Library } from '../pictures/library';
import { explain } from '../store/opening/database';
import { Store } from '../store/store';

export interface Backup {
	/** The copy of the database; the copy of the library stands beside it. */
	readonly db: string;
	readonly sites: number;
	readonly pages: number;
	/** Pictures of the library, as they were taken in. */
	readonly pictures: number;
	/** Of all that was written. */
	readonly bytes: number;
}

/**
 * Copies a database, whole as it is at one moment, and the pictures of its library into a folder, and checks the copy.
 * Throws a `UserError` when the folder holds anything, or what was copied is damaged; then nothing stays of the copy.
 */
export async function backUp(store: Store, folder: string): Promise<Backup> {
	const target = resolve(folder);
	if (existsSync(target) && readdirSync(target).length > 0) throw refuse('backup-folder-full', { folder });
	const db = join(target, basename(store.file));
	try {
		mkdirSync(target, { recursive: true });
		await store.db.backup(db);
		refuseDamaged(db, store.file);
		copyLibrary(new Library(store).folder, `${db}.media`);
		return count(db);
	} catch (error) {
		if (existsSync(target)) for (const name of readdirSync(target)) rmSync(join(target, name), { recursive: true });
		throw explain(error, store.file);
	}
}

/**
 * Puts a backup back: the database and its library become what the folder holds. Throws a `UserError` when there is no
 * backup in the folder, when it is damaged, or when a database stands where it would go.
 */
export function restore(folder: string, file: string): Backup {
	const from = existsSync(folder) ? readdirSync(folder).find((name) => name.endsWith('.db')) : undefined;
	const source = from === undefined ? undefined : join(folder, from);
	if (source === undefined) throw refuse('backup-missing', { folder });
	// A library without a database is what a restore that was ended between the two names left.
	const isHalf =
		!existsSync(file) &&
		existsSync(`${file}.media`) &&
		!existsSync(`${file}-wal`) &&
		isCopyOf(`${source}.media`, `${file}.media`);
	if (isHalf) rmSync(`${file}.media`, { recursive: true });
	for (const there of [file, `${file}-wal`, `${file}.media`])
		if (existsSync(there)) throw refuse('backup-in-the-way', { file: there });
	refuseDamaged(source, source);
	// Beside, then by a new name: what was broken off stands under no name that anything reads.
	const half = `${file}.restoring-${randomUUID().slice(0, 8)}`;
	try {
		mkdirSync(resolve(file, '..'), { recursive: true });
		dropHalfRestored(file);
		copyLibrary(`${source}.media`, `${half}.media`);
		copyFileSync(source, half);
		// The library first: a database that is there has all that it names.
		if (existsSync(`${half}.media`)) renameSync(`${half}.media`, `${file}.media`);
		renameSync(half, file);
	} catch (error) {
		for (const one of [half, `${half}.media`, `${file}.media`]) rmSync(one, { recursive: true, force: true });
		throw explain(error, file);
	}
	return count(file);
}

/** Whether a folder holds files of another one and nothing else. */
const isCopyOf = (from: string, to: string) => {
	const there = new Set(existsSync(from) ? readdirSync(from) : []);
	return readdirSync(to).every((name) => there.has(name));
};

/** What a restore that was ended half-way left behind. */
function dropHalfRestored(file: string) {
	const folder = resolve(file, '..');
	for (const name of readdirSync(folder))
		if (name.startsWith(`${basename(file)}.restoring-`)) rmSync(join(folder, name), { recursive: true, force: true });
}

/** Looks through every page of a database file. Throws a `UserError` that says what the first damage is. */
function refuseDamaged(file: string, name: string) {
	let found: string;
	let db: Database.Database | undefined;
	try {
		db = new Database(file, { readonly: true });
		found = db.pragma('integrity_check(1)', { simple: true }) as string;
		if (found === 'ok' && (db.pragma('foreign_key_check') as unknown[]).length > 0)
			found = 'rows that belong to nothing';
	} catch (error) {
		found = (error as Error).message;
	} finally {
		db?.close();
	}
	if (found !== 'ok') throw refuse('database-damaged', { name, fault: found });
}

/** What a copy holds. Not read-only: closing it then leaves nothing beside it. */
function count(db: string): Backup {
	const copy = new Store(db, { create: false });
	const sites = copy.working.sites.names();
	const pages = sites.reduce((sum, { id }) => sum + copy.working.pages.count(id).all, 0);
	const { pictures } = new Library(copy).size();
	copy.close();
	return { db, sites: sites.length, pages, pictures, bytes: statSync(db).size + bytesIn(`${db}.media`) };
}

const bytesIn = (folder: string) =>
	existsSync(folder) ? readdirSync(folder).reduce((sum, name) => sum + statSync(join(folder, name)).size, 0) : 0;

/** Files of the library never change once they have their name: after the database, all that it names is there. */
function copyLibrary(from: string, to: string) {
	if (!existsSync(from)) return;
	mkdirSync(to);
	// What was drawn to be looked at, in a folder of its own, is drawn again where it is asked for.
	for (const { name } of readdirSync(from, { withFileTypes: true }).filter((one) => one.isFile()))
		if (!name.startsWith('.')) copyFileSync(join(from, name), join(to, name));
}
