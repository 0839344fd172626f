import { setImmediate } from 'node:timers/promises';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { MEDIA_PATH, type Recipe } from '$core';
import { Library } from '../pictures/library';
import { Store } from '../store/store';
import { resolverOf } from '../heads/heads';

/** The share pictures of one page, of a type, or of all types that have a layout; or a part of them: every so many-th. */
export interface ComposeTask {
	readonly db: string;
	readonly site: string;
	readonly type?: string | undefined;
	readonly path?: string | undefined;
	readonly part: { readonly at: number; readonly of: number };
}

export interface Composed {
	/** Drawn now. */
	readonly drawn: number;
	/** As they are already: nothing that goes into them has changed. */
	readonly kept: number;
}

/** Recipes are noted in the database so many at a time. */
const BATCH = 50;

/**
 * Draws the share pictures of its part of the pages, one after the other, so that memory stays level. A picture that is
 * there is left as it is: going on after a stop is the same as beginning.
 */
export async function compose(task: ComposeTask, progress: (done: number) => void): Promise<Composed> {
	const store = new Store(task.db);
	try {
		const site = store.working.sites.named(task.site);
		const library = new Library(store);
		const resolver = resolverOf(store, site, new Date().toISOString());
		const noted = new Map<string, Recipe>();
		const note = () => {
			store.transaction(() => store.pictures.saveRecipes(site.id, noted, new Date().toISOString()));
			noted.clear();
		};
		const count = { drawn: 0, kept: 0 };
		for (const path of pathsOf(store, site.id, task)) {
			const page = store.working.pages.at(site.id, path);
			const made = page && resolver.evaluate(page).sharePicture();
			if (!made?.recipe) continue;
			const { wasThere } = await library.compose(made.recipe);
			count[wasThere ? 'kept' : 'drawn']++;
			noted.set(made.src.slice(MEDIA_PATH.length), made.recipe);
			if (noted.size >= BATCH) {
				note();
				await collectPictures();
			}
			progress(count.drawn + count.kept);
		}
		note();
		return count;
	} finally {
		store.close();
	}
}

/**
 * Drawn pictures lie outside the engine's heap, which does not know their weight and would let thousands of them gather.
 * They are let go when it is cleaned and the loop has turned.
 */
async function collectPictures() {
	setFlagsFromString('--expose-gc');
	(runInNewContext('gc') as () => void)();
	await setImmediate();
}

/** The paths of the part: no statement may stay open while pictures are drawn, so they are read first. */
function pathsOf(store: Store, site: number, { type, path, part }: ComposeTask): string[] {
	const paths = path === undefined ? store.working.pages.paths(site, type) : [path];
	return paths.filter((_, at) => at % part.of === part.at);
}
