import { createHash, randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { Picture } from '$core';
import type { Store } from '../store/store';
import { takePicture } from './takePicture';

/** Where the library's pictures stand under a site's base address. */
export const MEDIA_PATH = '/media/';
const NAME = /^[0-9a-f]{24}\.(?:jpg|png)$/;

/** The pictures taken in, beside the database, each named by the hash of its bytes. */
export class Library {
	private readonly folder: string;

	constructor(private readonly store: Store) {
		this.folder = `${store.file}.media`;
	}

	/** Takes a picture into a site's library. The same picture twice is one. Throws a `UserError` when it is refused. */
	async take(site: number, bytes: Buffer): Promise<Picture> {
		const taken = await takePicture(bytes);
		const hash = createHash('sha256').update(taken.bytes).digest('hex').slice(0, 24);
		const name = `${hash}.${taken.extension}`;
		this.write(name, taken.bytes);
		const picture: Picture = { src: MEDIA_PATH + name, ...taken.facts };
		this.store.transaction(() => this.store.savePictures(site, [picture]));
		return picture;
	}

	/** The file of a name, or undefined when there is none; no other path can be meant. */
	fileOf(name: string): string | undefined {
		const file = join(this.folder, name);
		return NAME.test(name) && existsSync(file) ? file : undefined;
	}

	/** Copies pictures of the library into the folder of a site, to where its heads say they are; says how many. */
	copyInto(folder: string, sources: Iterable<string>): number {
		const files = [...sources].flatMap((src) => this.fileOf(src.slice(MEDIA_PATH.length)) ?? []);
		const target = join(folder, MEDIA_PATH);
		if (files.length > 0) mkdirSync(target, { recursive: true });
		for (const file of files) copyFileSync(file, join(target, basename(file)));
		return files.length;
	}

	/** Takes away the files that no site knows any more; says how many. */
	sweep(): number {
		if (!existsSync(this.folder)) return 0;
		const sites = this.store.siteNames();
		const known = new Set(sites.flatMap(({ id }) => this.store.pictures(id).map(({ src }) => src)));
		const orphans = readdirSync(this.folder).filter((name) => !known.has(MEDIA_PATH + name));
		for (const name of orphans) rmSync(join(this.folder, name));
		return orphans.length;
	}

	/** Whole or not at all: a file that is half written never has its name. */
	private write(name: string, bytes: Buffer) {
		const file = join(this.folder, name);
		if (existsSync(file)) return;
		mkdirSync(this.folder, { recursive: true });
		const waiting = join(this.folder, `.${randomUUID()}`);
		writeFileSync(waiting, bytes);
		renameSync(waiting, file);
	}
}
