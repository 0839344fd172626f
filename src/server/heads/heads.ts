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
	publicIn
} from '$core';
import type { Suppressed } from '../store/state/suppressions';
import type { ReleasedHead } from '../store/releases/releases';
import type { PageState } from '../store/state/state';
import type { Store, StoredSite } from '../store/store';

/** The resolver of a site's working copy. `now` is the moment that `{now}` names. */
export function resolverOf(store: Store, { id, site, types }: StoredSite, now: string): Resolver {
	return new Resolver({ site, types, pictures: store.pictures.all(id) }, now);
}

/**
 * The moment that kept heads of the working copy name: that of the latest release, or every page that says it would count
 * as changed; until the first, that at which the site was made.
 */
export const momentOf = (store: Store, site: number) =>
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
		reading: readingOfBody(page)
	};
}
