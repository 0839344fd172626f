import { hash as digest } from 'node:crypto';
import {
	findOnPage,
	folderForm,
	headToJson,
	MEDIA_PATH,
	measureText,
	missingOf,
	renderHead,
	Resolver,
	strangeness,
	textOfValue,
	readingOfBody,
	weightOf,
	type BodyReading,
	type Head,
	type Page,
	type SitePages,
	publicIn
} from '$core';
import type { Suppressed } from '../store/state/suppressions';
import type { ReleasedHead } from '../store/releases/releases';
import type { PageState } from '../store/state/state';
import type { Store, StoredSite } from '../store/store';

/** The resolver of a site's working copy. `moment` is what `{now}` names, and what the clock shows without `now`. */
export function resolverOf(store: Store, { id, site, types }: StoredSite, moment: string, now = moment): Resolver {
	return new Resolver({ site, types, pictures: store.pictures.all(id), others: pagesOf(store, id) }, moment, now);
}

/** The resolver of what is kept of a site's working copy, by the clock as it is. */
export const workingResolver = (store: Store, stored: StoredSite, now = new Date().toISOString()): Resolver =>
	resolverOf(store, stored, momentOf(store, stored.id), now);

/** Pages that others read are few, and read again and again; so many are kept. */
const MOST_OTHERS = 5000;

/** Other pages of the working copy as it stands: for as long as nothing is written. */
export function pagesOf(store: Store, site: number): SitePages {
	const known = new Map<string, Page | undefined>();
	return {
		at(path) {
			if (!known.has(path)) {
				if (known.size >= MOST_OTHERS) known.clear();
				known.set(path, store.working.pages.at(site, path));
			}
			return known.get(path);
		},
		leads: (path) => store.working.redirects.of(site, path),
		below: (folder, limit) => store.working.pages.below(site, folder, limit)
	};
}

/**
 * The moment that kept heads of the working copy name: that of the latest release, or every page that says it would count
 * as changed; until the first, that at which the site was made.
 */
const momentOf = (store: Store, site: number) =>
	store.releases.latest(site)?.created ?? store.working.sites.madeAt(site);

/** A page's head as a release keeps it. */
export function releasedHead(resolver: Resolver, page: Page): ReleasedHead {
	const evaluation = resolver.evaluate(page);
	return keptHead(resolver, page, evaluation, resolver.headOf(evaluation));
}

function keptHead(
	resolver: Resolver,
	page: Page,
	evaluation: ReturnType<Resolver['evaluate']>,
	head: Head
): ReleasedHead {
	const html = renderHead(head);
	const json = JSON.stringify(headToJson(head, { leftOut: evaluation.leftOut() }));
	const hash = digest('sha256', `${html}\0${json}`, 'base64url');
	const { src, recipe } = evaluation.composedPicture ?? {};
	const share = src && recipe && { name: src.slice(MEDIA_PATH.length), recipe };
	const address = resolver.addressOf(page.path) ?? page.path;
	return { path: page.path, address, hash, html, json, ...(share && { share }) };
}

/** What is asked of a site to tell the state of its pages. */
export interface StateModel {
	readonly site: number;
	readonly resolver: Resolver;
	readonly isPublic: ReturnType<typeof publicIn>;
	/** Types whose pages nobody shares. */
	readonly unshared: ReadonlySet<string>;
	/** The fields that each type declares. */
	readonly fields: ReadonlyMap<string, readonly string[]>;
	/** The sources of the library's pictures by the files of their copies. */
	readonly sourceOf: ReadonlyMap<string, string>;
	readonly suppressed: Suppressed;
}

/** The layer that a tag's value came from; '' where nothing won. */
function layerOf(evaluation: ReturnType<Resolver['evaluate']>, tag: string): string {
	const winner = evaluation.winnerOf(tag);
	if (!winner) return '';
	return winner.isFound ? 'found' : winner.layer;
}

const NO_FIELDS: readonly string[] = [];

/** What a page comes to, to be kept until something changes it. */
export function stateOf(
	model: StateModel,
	id: number,
	page: Page
): PageState & { readonly reading: BodyReading | undefined } {
	const { resolver, site } = model;
	const evaluation = resolver.evaluate(page);
	const head = resolver.headOf(evaluation);
	const isPublic = model.isPublic(page);
	const { hash, address } = keptHead(resolver, page, evaluation, head);
	const all = isPublic && !model.unshared.has(page.type) ? findOnPage(page, head, evaluation) : [];
	const findings = model.suppressed.isEmpty ? all : all.filter((one) => !model.suppressed.has(one, page.path));
	const canonical = head.tags.find(({ tag }) => tag.name === 'canonical')?.value ?? '';
	const [title, description] = [evaluation.textOf('title'), evaluation.textOf('description')];
	const picture = evaluation.pictureOf('og:image');
	const lead = picture?.recipe?.picture?.file;
	return {
		...{ id, site, path: page.path, address, title, description },
		head: isPublic ? hash : null,
		titleWidth: Math.round(measureText(title, 1000)),
		descriptionWidth: Math.round(measureText(description, 1000)),
		picture: (picture?.recipe ? lead && model.sourceOf.get(lead) : picture?.src) ?? '',
		canonical: folderForm(canonical) === folderForm(address) ? '' : canonical,
		titleFrom: layerOf(evaluation, 'title'),
		descriptionFrom: layerOf(evaluation, 'description'),
		pictureFrom: layerOf(evaluation, 'og:image'),
		tags: ` ${[...new Set(head.tags.map(({ tag }) => tag.name))].join(' ')} `,
		card: textOfValue(evaluation.valueOf('twitter:card')),
		// Key pages count double: they are checked first.
		weight: weightOf(findings) * (page.key ? 2 : 1),
		findings: findings.map(({ code, tag = '', weight }) => ({ code, tag, weight })),
		missing: missingOf(page, model.fields.get(page.type) ?? NO_FIELDS),
		strange: strangeness(title + description),
		isTimed: evaluation.isTimed,
		changesAt: Number.isFinite(evaluation.nextChange) ? evaluation.nextChange : null,
		reads: [...evaluation.reads].map((path) => ({ path, head: evaluation.headsRead.has(path) })),
		reading: readingOfBody(page)
	};
}
