import { headOfJson, MEDIA_PATH, publicIn, type Head, type HeadJson, type Recipe } from '$core';
import { refuse } from '../errors';
import { resolverOf } from '../heads/heads';
import type { Store, StoredSite } from '../store/store';
import { refuseReleases } from './releases';

/** A head with what is needed to write it into a file that has one already. */
interface SourcedHead {
	readonly head: Head;
	/** Tags that a rule leaves out of it: one that a file has goes out of it. */
	readonly leftOut: readonly string[];
	/** Its share picture, where that is drawn, and what it is drawn from. */
	readonly share?: readonly [name: string, recipe: Recipe];
}

/** Where heads are taken from: a release, or the working copy. */
export interface HeadSource {
	/** In a sentence. */
	readonly said: string;
	/** Of all pages that have a head, in no order. */
	readonly paths: () => Iterable<string>;
	/** The head of a page, or why it has none. */
	readonly at: (path: string) => SourcedHead | string;
}

/** Throws a `UserError` where both are named, or the release is not there. */
export function headSource(
	store: Store,
	stored: StoredSite,
	{ release, working }: { readonly release?: number | 'latest'; readonly working?: boolean }
): HeadSource {
	if (release !== undefined && working) throw refuse('release-or-working');
	return release === undefined ? fromWorking(store, stored) : fromRelease(store, stored, release);
}

function fromWorking(store: Store, stored: StoredSite): HeadSource {
	const resolver = resolverOf(store, stored, new Date().toISOString());
	const isPublic = publicIn(stored.types);
	return {
		said: 'the working copy',
		*paths() {
			for (const page of store.working.pages.all(stored.id)) if (isPublic(page)) yield page.path;
		},
		at(path) {
			const page = store.working.pages.at(stored.id, path);
			if (!page || !isPublic(page)) return 'no live page of the site';
			const evaluation = resolver.evaluate(page);
			const head = resolver.headOf(evaluation);
			const { src, recipe } = evaluation.composedPicture ?? {};
			return {
				...{ head, leftOut: evaluation.leftOut() },
				...(src && recipe && { share: [src.slice(MEDIA_PATH.length), recipe] })
			};
		}
	};
}

/** What the share pictures of a release are drawn from was kept with it. */
function fromRelease(store: Store, { id, site }: StoredSite, asked: number | 'latest'): HeadSource {
	const latest = store.releases.latest(id);
	if (!latest) throw refuse('site-not-released', { site: site.name });
	const number = asked === 'latest' ? latest.number : asked;
	refuseReleases(store, id, [number]);
	return {
		said: `release ${number}`,
		paths: () => store.releases.hashes(id, number).keys(),
		at(path) {
			const kept = store.releases.headIn(id, number, path);
			if (!kept) return `not in release ${number}`;
			const json = JSON.parse(kept.json) as HeadJson;
			return { head: headOfJson(json), leftOut: json.leftOut ?? [] };
		}
	};
}
