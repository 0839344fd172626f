import {
	headToJson,
	keyOfKind,
	ownOf,
	PAGE_FACTS,
	pagesIn,
	Resolver,
	type FindingKind,
	type Head,
	type HeadJson,
	type Page,
	type Picture
} from '$core';
import { refuse } from '../errors';
import { countBeyond } from '../people/beyond';
import { pagesOf } from '../heads/heads';
import type { Store, StoredSite } from '../store/store';
import type { PageOrigin } from '../store/working/readIn';
import { standInFor } from './working';

/** All the bench needs to work a page out by itself: the layers, the page, the pictures they name, and the way to others. */
export function readBenchData(store: Store, name: string, wanted: string | null) {
	const stored = store.working.sites.named(name);
	const { id } = stored;
	const path = wanted ?? store.table.listing.first(id);
	const page = path === undefined ? undefined : store.working.pages.at(id, path);
	if (!page) return { path, page };
	return { ...readBench(store, stored, page), path: page.path, beside: store.table.listing.beside(id, page.path) };
}

/** A page with all that it is worked out from. */
export interface BenchOfPage extends Pick<StoredSite, 'site' | 'types' | 'revision'> {
	readonly page: Page;
	/** Pictures that it and its layers name. */
	readonly pictures: readonly Picture[];
	/** Pages that it reads of. */
	readonly others: readonly Page[];
	/** Where pages that it names stand now, by their former paths. */
	readonly moved: Readonly<Record<string, string>>;
	/** How many pages read something of it. */
	readonly readers: number;
	readonly versions: readonly Version[];
	/** The share of the pages of its type that have each field. */
	readonly fieldShares: Readonly<Record<string, number>>;
	/** Where it was read from; missing for what was made here. */
	readonly cameFrom?: PageOrigin | 'table' | undefined;
	readonly count: { readonly all: number; readonly live: number; readonly byType: Readonly<Record<string, number>> };
	/** Its head as the server works it out, and the moment of that. */
	readonly server: { readonly now: string; readonly head: HeadJson };
	/** Its head as released; null where it is not. */
	readonly released: HeadJson | null;
}

/** What a program gets to work a page out by itself. */
export interface PageBench extends BenchOfPage {
	/** Whether the page is there; else it is as one of its type would begin. */
	readonly isThere: boolean;
	/** Whether whoever asks may write it. */
	readonly mayEdit: boolean;
	/** Kinds of findings that are set aside for it, see `keyOfKind`. */
	readonly suppressed: readonly string[];
	/** Where pictures of the site are to be had from here instead. */
	readonly standIn: { readonly base: string; readonly origin: string } | null;
}

/** The same for a page by its path, and, where its type is named, for one that is not there yet. Throws where there is none. */
export function readPageBench(
	store: Store,
	name: string,
	{ path, type, language }: { readonly path: string; readonly type?: string; readonly language?: string }
): PageBench {
	const stored = store.working.sites.named(name);
	const { id, types } = stored;
	const to = store.working.redirects.of(id, path);
	const page = store.working.pages.at(id, path) ?? (to === undefined ? undefined : store.working.pages.at(id, to));
	if (!page && (type === undefined || !types.some((one) => one.name === type) || !path.startsWith('/')))
		throw refuse('page-missing', { path });
	const begun: Page = { path, type: type ?? '', state: 'draft', fields: {}, rules: [], ...(language && { language }) };
	const suppressed = store.state.suppressions.all(id).filter((one) => one.path === '' || one.path === page?.path);
	return {
		...readBench(store, stored, page ?? begun),
		isThere: page !== undefined,
		mayEdit: page !== undefined && countBeyond(store, stored, [page.path]) === 0,
		suppressed: suppressed.map((one) => keyOfKind(one as FindingKind)),
		standIn: standInFor(store, name) ?? null
	};
}

function readBench(store: Store, stored: StoredSite, page: Page): BenchOfPage {
	const { id, site, types, revision } = stored;
	const release = store.releases.latest(id);
	const released = release && store.releases.head(id, { path: page.path });
	const now = new Date().toISOString();
	const { others, moved } = othersOf(store, stored, page);
	const named = new Set(
		picturesNamed([
			site.fields,
			site.translations,
			types.map((type) => [type.picture, type.pictureBy]),
			page.fields,
			site.rules,
			types.map((type) => type.rules),
			page.rules,
			others.map((other) => [other.fields, other.rules])
		])
	);
	const pictures = store.pictures.of(id, [...named]);
	return {
		...{ others, moved },
		readers: store.state.readersOf(id, page.path).length,
		...{ site, types, page, pictures, revision },
		versions: versionsOf(store, stored, page),
		fieldShares: store.working.pages.fieldShares(id, page.type),
		cameFrom: store.working.readIn.cameFrom(id, page.path),
		count: store.working.pages.count(id),
		server: {
			now,
			head: headToJson(new Resolver({ site, types, pictures, others: pagesIn(others, moved) }, now).resolveHead(page))
		},
		released: released ? (JSON.parse(released.json) as HeadJson) : null
	};
}

/** What a page can read of others: those that every page has, those that its fields name, and former paths of these. */
function othersOf(store: Store, stored: StoredSite, page: Page): { others: Page[]; moved: Record<string, string> } {
	const { id, site, types } = stored;
	const pictures = (src: string) => store.pictures.one(id, src);
	const pages = pagesOf(store, id);
	const resolver = new Resolver({ site, types, pictures, others: pages }, new Date().toISOString());
	const evaluation = resolver.evaluate(page);
	for (const { name, kind } of PAGE_FACTS) if (kind === 'page' || kind === 'pages') evaluation.pageValue(name);
	evaluation.lostReferences();
	resolver.headOf(evaluation);
	const reads = [...evaluation.reads];
	const others = reads.flatMap((path) => {
		const other = pages.at(path);
		return other ? [evaluation.headsRead.has(path) ? other : withoutBody(other)] : [];
	});
	const moved = reads.flatMap((path) => {
		const to = pages.leads(path);
		return to === undefined ? [] : [[path, to] as const];
	});
	return { others, moved: Object.fromEntries(moved) };
}

/** A page with what was read out of its body, where that was kept, in the place of the body. */
function withoutBody(page: Page): Page {
	const { body, ...fields } = page.fields;
	const { reading } = page;
	return body === undefined || !reading ? page : { ...page, fields, reading };
}

/** The same page in one language, as it stands, and how the two name each other. */
export interface Version {
	readonly language: string;
	/** Undefined where the page names none. */
	readonly path?: string;
	readonly title?: string;
	readonly description?: string;
	/** The address of its share picture; '' for none. */
	readonly picture?: string;
	/** Undefined where there is no page at the path. */
	readonly state?: Page['state'];
	/** Whether it names the page in turn. */
	readonly namesBack?: boolean;
}

/** The versions of a page in the site's other languages and in those that it names, gaps among them. */
function versionsOf(store: Store, { id, site, types }: StoredSite, page: Page): Version[] {
	const own = page.language ?? site.languages[0];
	const named = Object.keys(page.alternates ?? {}).filter((tag) => tag !== 'x-default');
	const all = [...new Set([...site.languages, ...named])].filter((tag) => tag !== own && tag !== 'und');
	const facts = (src: string) => store.pictures.one(id, src);
	const resolver = new Resolver({ site, types, pictures: facts, others: pagesOf(store, id) }, new Date().toISOString());
	return all.map((language) => {
		const path = ownOf(page.alternates, language);
		const other = path === undefined ? undefined : store.working.pages.at(id, path);
		if (path === undefined) return { language };
		if (!other) return { language, path };
		return {
			...{ language, path, state: other.state },
			...shownOf(resolver.resolveHead(other)),
			namesBack: Object.values(other.alternates ?? {}).includes(page.path)
		};
	});
}

/** What of a head a card shows first. */
function shownOf(head: Head) {
	const json = headToJson(head);
	const first = (...names: string[]) =>
		names.map((name) => json.tags.find(({ tag }) => tag === name)?.value).find((value) => value !== undefined) ?? '';
	return {
		title: first('title'),
		description: first('description'),
		picture: first('og:image', 'twitter:image')
	};
}

/** What would be lost, or lead nowhere, with a page. */
export interface WhatLeads {
	/** Former paths that lead to it. */
	readonly former: readonly string[];
	/** Pages that name it as a version. */
	readonly naming: readonly string[];
	readonly isHome: boolean;
}

export function readWhatLeads(store: Store, name: string, path: string): WhatLeads {
	const { id } = store.working.sites.named(name);
	const naming = store.working.pages.naming(id, path).filter((page) => page.path !== path);
	return {
		former: store.working.redirects.leadingTo(id, path),
		naming: naming.map((page) => page.path),
		isHome: path === '/'
	};
}

/** Every text below a value that could be the source of a picture. */
function picturesNamed(value: unknown): string[] {
	if (typeof value === 'string') return [value];
	if (typeof value !== 'object' || value === null) return [];
	return Object.values(value).flatMap(picturesNamed);
}
