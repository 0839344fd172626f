import {
	describeFinding,
	findOnPage,
	pinsOf,
	PAGE_STATES,
	type Resolver,
	sameJson,
	textOfValue,
	replaceInText,
	replaceWords,
	toTemplate,
	toText,
	type FieldValue,
	type Page,
	type RuleBody,
	ownOf
} from '$core';
import { refuse } from '../errors';
import { countBeyond } from '../people/beyond';
import { resolverOf, workingResolver } from '../heads/heads';
import { countOverriding } from '../store/table/counts';
import { pathsOfFilter, type PageFilter } from '../store/table/grid';
import { checkOf, wrongIn } from '../schemas/schemas';
import type { Store, StoredSite } from '../store/store';
import type { Made, Origin } from './edit';
import { makeLongEdit } from './longEdit';
import type { Progress } from '../progress';
import { refuseEdit, refuseRule } from './rules';
import { heldWith } from './settings';

/** Which pages are changed: those named, or all that a filter means, without some of them. */
export type BatchPages =
	{ readonly paths: readonly string[] } | { readonly filter: PageFilter; readonly without?: readonly string[] };

interface Replacing {
	readonly find: string;
	readonly by: string;
	readonly whole?: boolean;
}

/** What is done to each of them. */
export type BatchAction =
	/** A rule of the page's own for a tag: words as they are, a template, another tag's value, left out; null takes it away. */
	| { readonly do: 'rule'; readonly tag: string; readonly body: RuleBody | null }
	| { readonly do: 'text'; readonly tag: string; readonly text: string }
	/** In the pages' own rules for a tag, or in a text field, words are replaced by others: `whole` ones alone, or wherever they stand. */
	| ({ readonly do: 'replace'; readonly tag: string } & Replacing)
	| ({ readonly do: 'replaceInField'; readonly name: string } & Replacing)
	/** A field is written, and held from then on; null empties it. */
	| { readonly do: 'field'; readonly name: string; readonly value: FieldValue }
	| { readonly do: 'type'; readonly type: string }
	| { readonly do: 'language'; readonly language: string }
	| { readonly do: 'state'; readonly state: Page['state'] }
	| { readonly do: 'hidden'; readonly on: boolean }
	| { readonly do: 'key'; readonly on: boolean }
	/** What its cards are made of is pinned as it is now, or let go. */
	| { readonly do: 'pin'; readonly on: boolean }
	/** Found values of a tag are set aside, or taken again. */
	| { readonly do: 'found'; readonly tag: string; readonly take: boolean };

/** The longest words (UTF-16 code units) that a template can hold. */
const LONGEST_WORDS = 2000;

const DOES = [
	'rule',
	'text',
	'replace',
	'replaceInField',
	'field',
	'type',
	'language',
	'state',
	'hidden',
	'key',
	'pin',
	'found'
];
const isRule = checkOf('rule');
const isPage = checkOf('page');
const isLanguage = checkOf('languageTag');

/** A batch as a request gives it. Throws a `UserError`. */
export function readBatch(data: Readonly<Record<string, unknown>>): { pages: BatchPages; action: BatchAction } {
	const action = data.action as Record<string, unknown> | undefined;
	const pages = data.pages as Record<string, unknown> | undefined;
	if (!action || !DOES.includes(String(action.do))) throw refuse('change-what', { known: DOES });
	const isNamed = Array.isArray(pages?.paths) && pages.paths.every((path) => typeof path === 'string');
	const isFiltered = typeof pages?.filter === 'object' && pages.filter !== null;
	if (!isNamed && !isFiltered) throw refuse('change-needs-pages');
	if (
		pages.without !== undefined &&
		!(Array.isArray(pages.without) && pages.without.every((one) => typeof one === 'string'))
	)
		throw refuse('change-needs-pages');
	const wanted: Record<string, readonly string[]> = {
		text: ['tag', 'text'],
		replace: ['tag', 'find', 'by'],
		replaceInField: ['name', 'find', 'by'],
		field: ['name'],
		rule: ['tag'],
		found: ['tag'],
		type: ['type']
	};
	for (const key of ownOf(wanted, action.do as string) ?? [])
		if (typeof ownOf(action, key) !== 'string') throw refuse('change-needs', { key });
	for (const key of ['text', 'find', 'by'] as const)
		if (typeof action[key] === 'string' && action[key].length > LONGEST_WORDS)
			throw refuse('words-too-long', { key, length: action[key].length, most: LONGEST_WORDS });
	if (String(action.do).startsWith('replace') && action.find === '') throw refuse('replace-needs-words');
	if (action.do === 'field') {
		const written = {
			path: '/',
			type: 'page',
			state: 'live',
			rules: [],
			fields: { [action.name as string]: action.value }
		};
		if (!isPage(written)) throw refuse('setting-broken', { wrong: wrongIn(isPage, 'page') });
	}
	if (action.do === 'rule' && action.body !== null && !isRule({ tag: action.tag, ...(action.body as object) }))
		throw refuse('rule-broken', { wrong: wrongIn(isRule, 'rule') });
	if (action.do === 'language' && action.language !== '' && !isLanguage(action.language))
		throw refuse('language-broken', { language: String(action.language) });
	if (action.do === 'state' && !PAGE_STATES.includes(action.state as Page['state']))
		throw refuse('state-unknown', { known: PAGE_STATES });
	return { pages: pages as unknown as BatchPages, action: action as unknown as BatchAction };
}

function pathsOf(store: Store, site: number, pages: BatchPages): readonly string[] {
	if ('paths' in pages) return pages.paths;
	const all = pathsOfFilter(store.db, site, pages.filter);
	const without = new Set(pages.without);
	return without.size === 0 ? all : all.filter((path) => !without.has(path));
}

/**
 * Changes many pages as one edit, which is taken back as one. Gives how many came out different. Tells how many of the
 * pages it has been over.
 */
export function changeMany(
	store: Store,
	name: string,
	pages: BatchPages,
	action: BatchAction,
	origin: Origin,
	progress: Progress = () => undefined
): Made<number> {
	return makeLongEdit(store, name, { origin, kind: 'batch', what: { action, ...wordsOf(pages) } }, function* (site) {
		refuseAction(store, site, action);
		const pins = pinsBy(store, site);
		let [seen, changed] = [0, 0];
		for (const path of pathsOf(store, site.id, pages)) {
			yield;
			if (++seen % 100 === 0) progress(seen);
			const page = store.working.pages.at(site.id, path);
			if (!page) throw refuse('page-missing', { path });
			const after = changedPage(page, action, pins);
			refuseChanged(site, page, after, action);
			if (path === '/' && page.state === 'live' && after.state !== 'live') throw refuse('home-among-them');
			if (store.working.pages.change(site.id, page, after)) changed++;
		}
		return changed;
	});
}

const wordsOf = (pages: BatchPages) => ('paths' in pages ? { pages: pages.paths.length } : { filter: pages.filter });

function refuseAction(store: Store, site: StoredSite, action: BatchAction) {
	if (action.do === 'type' && !site.types.some(({ name }) => name === action.type))
		throw refuse('type-missing', { contentType: action.type });
	const body = bodyWritten(action);
	if (body === null || !('tag' in action)) return;
	const [issue] = refuseEdit(store, site, { place: { layer: 'site' }, tag: action.tag, body });
	if (issue) throw refuse('rule-refused', { why: issue.message });
}

/** The rule that an action writes, the same for all pages. */
function bodyWritten(action: BatchAction): RuleBody | null {
	if (action.do === 'rule') return action.body;
	return action.do === 'text' && action.text !== '' ? { kind: 'template', template: toTemplate(action.text) } : null;
}

/**
 * What is another on every page is held to what holds for an edit of that page alone: words that were replaced, and rules
 * that ask for other tags.
 */
function refuseChanged(site: StoredSite, before: Page, after: Page, action: BatchAction) {
	const body = bodyWritten(action);
	const mayLoop = body?.kind === 'borrow' || (body?.kind === 'template' && body.template.includes('{'));
	if (!('tag' in action) || (action.do !== 'replace' && !mayLoop)) return;
	for (const rule of after.rules) {
		if (rule.tag !== action.tag || before.rules.includes(rule)) continue;
		const { tag, language, ...written } = rule;
		const edit = { place: { layer: 'page' as const, path: after.path }, tag, ...(language && { language }) };
		const [issue] = refuseRule(site, { ...edit, body: written }, after);
		if (issue) throw refuse('rule-refused-at', { path: after.path, why: issue.message });
	}
}

/** What pages come to, to be pinned. */
function pinsBy(store: Store, site: StoredSite): (page: Page) => Page['pinned'] {
	let resolver: Resolver | undefined;
	return (page) => pinsOf((resolver ??= workingResolver(store, site)).resolveHead(page));
}

/** A page as it is after an action. */
function changedPage(page: Page, action: BatchAction, pins: (page: Page) => Page['pinned']): Page {
	switch (action.do) {
		case 'rule':
			return withRule(page, action.tag, action.body);
		case 'text':
			return withRule(page, action.tag, bodyWritten(action));
		case 'replace':
			return {
				...page,
				rules: page.rules.map((rule) =>
					rule.tag === action.tag && rule.kind === 'template' && rule.template !== replaced(rule.template, action)
						? { ...rule, template: replaced(rule.template, action) }
						: rule
				)
			};
		case 'replaceInField': {
			const text = ownOf(page.fields, action.name);
			return typeof text === 'string'
				? withField(page, action.name, replaceInText(text, action.find, action.by, action.whole))
				: page;
		}
		case 'field':
			return withField(page, action.name, action.value);
		case 'type':
			return { ...page, type: action.type };
		case 'language':
			return withOrWithout(page, 'language', action.language || undefined);
		case 'state':
			return { ...page, state: action.state };
		case 'hidden':
			return withOrWithout(page, 'hidden', action.on || undefined);
		case 'key':
			return withOrWithout(page, 'key', action.on || undefined);
		case 'pin':
			return withOrWithout(page, 'pinned', action.on ? pins(page) : undefined);
		case 'found': {
			const { [action.tag]: _gone, ...others } = page.foundPolicy?.tags ?? {};
			const tags = action.take ? others : { ...others, [action.tag]: 'never' as const };
			const policy = { ...page.foundPolicy, tags };
			const isEmpty = Object.keys(tags).length === 0 && policy.all === undefined;
			return withOrWithout(page, 'foundPolicy', isEmpty ? undefined : policy);
		}
	}
}

const replaced = (template: string, { find, by, whole }: Replacing) => replaceWords(template, find, by, whole);

/** A page whose field says something else, and is held from then on; one that says it already is left as it is. */
function withField(page: Page, name: string, value: FieldValue): Page {
	const { [name]: _before, ...others } = page.fields;
	const isEmpty = value === null || value === '';
	if (sameJson(ownOf(page.fields, name) ?? null, isEmpty ? null : value)) return page;
	const fields = isEmpty ? others : { ...page.fields, [name]: value };
	return { ...page, fields, held: heldWith(page, fields) };
}

function withRule(page: Page, tag: string, body: RuleBody | null): Page {
	const others = page.rules.filter((rule) => rule.tag !== tag || rule.language);
	return { ...page, rules: body === null ? others : [...others, { tag, ...body }] };
}

function withOrWithout<K extends keyof Page>(page: Page, key: K, value: Page[K] | undefined): Page {
	const { [key]: _before, ...rest } = page;
	return (value === undefined ? rest : { ...rest, [key]: value }) as unknown as Page;
}

/** What a field holds, on a line. */
const textOfField = (value: FieldValue | undefined): string =>
	typeof value === 'object' && value !== null && !Array.isArray(value)
		? Object.values(value).filter(Boolean).join(', ')
		: toText(value);

/** How many pages the sample shows, and how many are looked at for it. */
const SHOWN = 6;
const LOOKED_AT = 60;

export interface BatchSample {
	/** How many pages are meant, and how many of them whoever asks may not change: then it is refused whole. */
	readonly pages: number;
	readonly beyond: number;
	/** Of those looked at: how many would come out different, better and worse. */
	readonly lookedAt: number;
	readonly changed: number;
	/** Of all that are meant: how many say something of the tag by themselves, which would go. */
	readonly replaced: number;
	readonly better: number;
	readonly worse: number;
	readonly sample: readonly {
		readonly path: string;
		readonly tag: string;
		readonly before: string;
		readonly after: string;
		readonly gained: readonly string[];
		readonly lost: readonly string[];
	}[];
}

/** What a change of many would do, tried on some of them; nothing is kept. */
export function sampleOfBatch(store: Store, name: string, pages: BatchPages, action: BatchAction): BatchSample {
	const stored = store.working.sites.named(name);
	refuseAction(store, stored, action);
	const resolver = resolverOf(store, stored, new Date().toISOString());
	// What is written is shown: a tag as it comes out, or a field as it is.
	const field = action.do === 'field' || action.do === 'replaceInField' ? action.name : undefined;
	const tag = field ?? ('tag' in action ? action.tag : 'title');
	const look = (page: Page) => {
		const evaluation = resolver.evaluate(page);
		const head = resolver.headOf(evaluation);
		return {
			head,
			value: field === undefined ? textOfValue(evaluation.valueOf(tag)) : textOfField(ownOf(page.fields, field)),
			found: findOnPage(page, head, evaluation).map(describeFinding)
		};
	};
	const paths = pathsOf(store, stored.id, pages);
	const pins = pinsBy(store, stored);
	const looked = paths.slice(0, LOOKED_AT).flatMap((path) => {
		const page = store.working.pages.at(stored.id, path);
		if (!page) return [];
		const [before, after] = [look(page), look(changedPage(page, action, pins))];
		const gained = after.found.filter((one) => !before.found.includes(one));
		const lost = before.found.filter((one) => !after.found.includes(one));
		return [
			{
				path,
				tag,
				before: before.value,
				after: after.value,
				gained,
				lost,
				isSame: sameJson(before.head.tags, after.head.tags) && sameJson(page, changedPage(page, action, pins))
			}
		];
	});
	const changed = looked.filter(({ isSame }) => !isSame);
	return {
		...{
			pages: paths.length,
			beyond: countBeyond(store, stored, paths),
			lookedAt: looked.length,
			changed: changed.length
		},
		replaced:
			action.do === 'rule' || action.do === 'text' ? countOverriding(store.db, stored.id, action.tag, paths) : 0,
		better: looked.filter(({ gained, lost }) => lost.length > gained.length).length,
		worse: looked.filter(({ gained, lost }) => gained.length > lost.length).length,
		sample: changed.slice(0, SHOWN).map(({ isSame: _isSame, ...one }) => one)
	};
}
