import { createHash, randomUUID } from 'node:crypto';
import {
	existsSync,
	mkdirSync,
	readdirSync,
	readFileSync,
	renameSync,
	rmSync,
	statSync,
	writeFileSync,
	copyFileSync
} from 'node:fs';
import { basename, join } from 'node:path';
import {
	keptCopyOf,
	MEDIA_PATH,
	nameOfRecipe,
	readCutName,
	readIconName,
	RECIPE_NAME,
	type Picture,
	type Recipe
} from '$core';
import { makeEdit } from '../edits/edit';
import { patiently } from '../store/opening/patiently';
import type { Store } from '../store/store';
import { writeCut, writeIcon } from './cuts';
import { drawShare } from './draw';
import { manifestOf } from './manifest';
import { takePicture } from './takePicture';

/** The folder for what is drawn to be looked at, and how many files it holds at the most. */
const DRAFTS = 'drafts';
const MOST_DRAFTS = 500;

const KEPT_NAME = /^[0-9a-f]{24}\.(?:jpg|png)$/;
/** A file that no site knows is left alone until it is this old (milliseconds): it may be on its way in. */
const GRACE = 10 * 60_000;
/** Share pictures that no release names are kept this long (milliseconds). */
const SHARE_KEEP = 30 * 24 * 3_600_000;

/**
 * The pictures taken in, beside the database, each named by the hash of its bytes; and what is made of them: cuts, icons
 * and share pictures, each named by all that goes into it, and made when first asked for.
 */
export class Library {
	readonly folder: string;

	constructor(private readonly store: Store) {
		this.folder = `${store.file}.media`;
	}

	/** Takes a picture into a site's library. The same picture twice is one. Throws a `UserError` when it is refused. */
	async take(site: string, bytes: Buffer, name?: string): Promise<Picture> {
		const { file, facts } = await this.keep(bytes);
		const src = MEDIA_PATH + file;
		const edit = { origin: 'bench', kind: 'picture', what: { src, ...(name && { name }) } } as const;
		const made = await patiently(() =>
			makeEdit(this.store, site, edit, ({ id }) => {
				// What was set for it when it came before stays.
				const picture: Picture = { ...facts, ...(name && { name }), ...this.store.pictures.one(id, src), src };
				this.store.pictures.save(id, [picture]);
				return picture;
			})
		);
		return made.result;
	}

	/**
	 * Keeps a copy of a picture that stands at an address of its own, and gives its facts with where the copy is. `own`
	 * are the facts of the file itself. Throws a `UserError` when it is refused.
	 */
	async copyOf(bytes: Buffer, own: Omit<Picture, 'src'>): Promise<Omit<Picture, 'src'>> {
		const { file, facts } = await this.keep(bytes);
		const { width = 1, height = 1, bytes: _bytes, type: _type, ...looks } = facts;
		return { ...looks, ...own, kept: { file, width, height } };
	}

	/** The file a picture is kept in, decoded once for each file that ever comes. */
	private async keep(bytes: Buffer): Promise<{ file: string; facts: Omit<Picture, 'src'> }> {
		const original = hashOf(bytes);
		const before = this.store.pictures.taken(original);
		if (before && existsSync(join(this.folder, before.file))) return before;
		const taken = await takePicture(bytes);
		const file = `${hashOf(taken.bytes)}.${taken.extension}`;
		this.write(file, taken.bytes);
		await patiently(() => this.store.transaction(() => this.store.pictures.saveTaken(original, file, taken.facts)));
		return { file, facts: taken.facts };
	}

	/** The file of a name that is there already; no other path can be meant. */
	fileOf(name: string): string | undefined {
		const file = join(this.folder, name);
		const isOurs = KEPT_NAME.test(name) || RECIPE_NAME.test(name) || readCutName(name) || readIconName(name);
		return isOurs && existsSync(file) ? file : undefined;
	}

	/** The file of a name, made now if it is one that can be; undefined when there is no such picture. */
	async find(name: string): Promise<string | undefined> {
		const there = this.fileOf(name);
		if (there) return there;
		const bytes = await this.make(name);
		if (!bytes) return undefined;
		this.write(name, bytes);
		return join(this.folder, name);
	}

	/**
	 * The same for one that nobody has released, to be looked at: kept apart, the newest alone, so that names by chance
	 * fill no disk.
	 */
	async draft(name: string): Promise<string | undefined> {
		const there = this.fileOf(name);
		if (there) return there;
		const folder = join(this.folder, DRAFTS);
		const file = join(folder, name);
		if (readCutName(name) === undefined && readIconName(name) === undefined) return this.find(name);
		if (existsSync(file)) return file;
		const bytes = await this.make(name);
		if (!bytes) return undefined;
		mkdirSync(folder, { recursive: true });
		writeWhole(folder, name, bytes);
		this.dropOldDrafts(folder, name);
		return file;
	}

	/** Whether anything public names a picture that is made of others: a released head, or the manifest of a site. */
	isNamed(name: string): boolean {
		if (RECIPE_NAME.test(name) || this.store.releases.knowsMedia(name)) return true;
		if (readIconName(name) === undefined) return false;
		return this.store.working.sites
			.names()
			.some((site) => manifestOf(this.store, this.store.working.sites.named(site.name))?.files.includes(name));
	}

	private dropOldDrafts(folder: string, newest: string) {
		const all = readdirSync(folder).filter((name) => name !== newest);
		const aged = all.map((name) => ({
			name,
			made: statSync(join(folder, name), { throwIfNoEntry: false })?.mtimeMs ?? 0
		}));
		for (const { name } of aged.sort((a, b) => b.made - a.made).slice(MOST_DRAFTS - 1))
			rmSync(join(folder, name), { force: true });
	}

	private async make(name: string): Promise<Buffer | undefined> {
		const cut = readCutName(name);
		const icon = readIconName(name);
		const master = this.masterOf((cut ?? icon)?.hash);
		if (master && cut) return writeCut(master, cut);
		if (master && icon) return writeIcon(master, icon);
		const recipe = RECIPE_NAME.test(name) ? this.store.pictures.recipe(name) : undefined;
		return recipe && this.draw(recipe);
	}

	private masterOf(hash: string | undefined): string | undefined {
		return hash === undefined ? undefined : (this.fileOf(`${hash}.jpg`) ?? this.fileOf(`${hash}.png`));
	}

	private draw(recipe: Recipe): Promise<Buffer> {
		return drawShare(recipe, (name) => {
			const file = this.fileOf(name);
			return file === undefined ? undefined : readFileSync(file);
		});
	}

	/** Draws a share picture, unless it is there; says whether it was. */
	async compose(recipe: Recipe): Promise<{ readonly file: string; readonly wasThere: boolean }> {
		const name = nameOfRecipe(recipe);
		const file = join(this.folder, name);
		if (existsSync(file)) return { file, wasThere: true };
		this.write(name, await this.draw(recipe));
		return { file, wasThere: false };
	}

	/** Copies pictures of the library into the folder of a site, to where its heads say they are; says how many. */
	async copyInto(folder: string, names: Iterable<string>): Promise<number> {
		const target = join(folder, MEDIA_PATH);
		let count = 0;
		for (const name of names) {
			const file = await this.find(name);
			if (!file) continue;
			mkdirSync(target, { recursive: true });
			copyFileSync(file, join(target, basename(file)));
			count++;
		}
		return count;
	}

	/** How much it holds: files as they were taken in, and bytes. */
	size(): { readonly pictures: number; readonly bytes: number } {
		const files = this.files().filter((name) => KEPT_NAME.test(name));
		return {
			pictures: files.length,
			bytes: files.reduce((sum, name) => sum + statSync(join(this.folder, name)).size, 0)
		};
	}

	private files(): string[] {
		return existsSync(this.folder) ? readdirSync(this.folder).filter((name) => name !== DRAFTS) : [];
	}

	/**
	 * Takes away the files that no site knows any more, what was made of them, and the rests of an unfinished write; says
	 * how many. What the last two releases name stays. Safe at any time.
	 */
	sweep(now = Date.now()): number {
		this.store.transaction(() => this.store.pictures.dropRecipes(new Date(now - SHARE_KEEP).toISOString()));
		const recipes = new Set(this.store.pictures.recipeNames());
		const known = this.knownHashes();
		const isKnown = (name: string) => (RECIPE_NAME.test(name) ? recipes.has(name) : known.has(hashIn(name)));
		const old = this.files().filter((name) => !isKnown(name) && this.isOld(name, now));
		// Only now, and seldom: all released heads are looked through.
		const released = old.length > 0 ? this.store.releases.findInLast(/\/media\/[0-9a-f]{24}/g) : new Set<string>();
		const orphans = old.filter((name) => !released.has(MEDIA_PATH + hashIn(name)));
		for (const name of orphans) {
			rmSync(join(this.folder, name));
			this.store.pictures.forgetTaken(name);
		}
		return orphans.length;
	}

	private knownHashes(): Set<string> {
		const pictures = this.store.working.sites.names().flatMap(({ id }) => this.store.pictures.all(id));
		return new Set(pictures.flatMap((picture) => hashIn(keptCopyOf(picture)?.file ?? '')));
	}

	private isOld(name: string, now: number): boolean {
		return now - statSync(join(this.folder, name)).mtimeMs >= GRACE;
	}

	/** Whole or not at all: a file that is half written never has its name. */
	private write(name: string, bytes: Buffer) {
		if (existsSync(join(this.folder, name))) return;
		mkdirSync(this.folder, { recursive: true });
		writeWhole(this.folder, name, bytes);
	}
}

/** A file that could not be written, as on a full disk, leaves nothing behind. */
function writeWhole(folder: string, name: string, bytes: Buffer) {
	const waiting = join(folder, `.${randomUUID()}`);
	try {
		writeFileSync(waiting, bytes);
		renameSync(waiting, join(folder, name));
	} catch (error) {
		rmSync(waiting, { force: true });
		throw error;
	}
}

const hashOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex').slice(0, 24);
/** The hash of the picture that a file is, or was made of. */
const hashIn = (name: string) => name.slice(0, 24);
