import {
	piecesFor,
	addSection,
	BUILT_IN_PICTURES,
	clipFirst,
	dropSiteName,
	editModel,
	editPage,
	findOnPage,
	Resolver,
	textOfValue,
	withSite,
	withTitle,
	wrapGaps,
	type AnyEdit,
	type ContentType,
	type Finding,
	type FindingCode,
	type Page,
	type PictureSource,
	type RuleBody,
	type Trace,
	ownOf
} from '$core';
import { pagesOf } from '../heads/heads';
import type { PageAction } from '../edits/pages';
import type { Store, StoredSite } from '../store/store';
import { triedInWords, wayInWords, type Tried, type TriedFinding, type Way, type Where } from './mendWords';

type Done =
	| { readonly edit: AnyEdit }
	/** Whole pages and the links between them, done as one edit. */
	| { readonly actions: readonly PageAction[] };

/** One way to mend a finding that is an edit: its reach can be measured, and it is taken back like any other. */
export type Mend = { readonly way: Way; readonly tried?: TriedFinding } & Done;

/** The same as it is told to whoever asks; `does` is what programs know it by. */
export type ToldMend = { readonly says: string; readonly does: Way['do']; readonly tried?: Tried } & Done;

export const mendInWords = ({ way, tried, ...done }: Mend): ToldMend => ({
	...{ says: wayInWords(way), does: way.do, ...done },
	...(tried && { tried: triedInWords(tried) })
});

/** What a mend looks at: the page that a finding was found on, with its traces. */
export interface MendScope {
	readonly store: Store;
	readonly stored: StoredSite;
	readonly resolver: Resolver;
	readonly page: Page | undefined;
	/** Some of the other pages that have the finding. */
	readonly others?: readonly Page[];
}

type DataOf<C extends FindingCode> = Finding<C>['data'];
const dataOf = <C extends FindingCode>(found: Finding): DataOf<C> => found.data as DataOf<C>;

/**
 * The ways to mend a finding by an edit; none for what only a person's words can mend. What pages have is tried on the
 * page that it was found on and on others that have it: what would not mend it there is not offered, and of several
 * lengths of a text the one that mends most of them is.
 */
export function mendsOf(found: Finding, scope: MendScope): Mend[] {
	const ways = waysOf(found, scope);
	if (found.code === 'shared-title' || found.code === 'shared-description')
		return ways.filter((mend) => setsApart(mend, scope, found.code === 'shared-title' ? 'title' : 'description'));
	if (Object.hasOwn(ON_THE_WHOLE, found.code)) return ways;
	const tried = ways.flatMap((mend) => triedOn(found, mend, scope) ?? []);
	if (!CLIPPED.has(found.code)) return tried;
	return [...tried].sort((a, b) => rank(b) - rank(a)).slice(0, 1);
}

/** Kinds for which several lengths of one text are tried, the longest first. */
const CLIPPED: ReadonlySet<string> = new Set(['cut', 'no-description']);

/** What leaves nothing else goes before what does, then what mends more pages. */
const rank = ({ tried }: Mend) => (tried ? tried.mended + (tried.leaves === undefined ? tried.on + 1 : 0) : 0);

/** Lengths of texts that are tried, in characters. */
const LENGTHS = { title: [60, 50, 40, 30, 20], description: [155, 140, 120, 100] } as const;

/** Kinds that only all pages together show, or that are mended without a rule. */
const ON_THE_WHOLE: Partial<Record<FindingCode, true>> = {
	'shared-title': true,
	'shared-description': true,
	'shared-picture': true,
	'key-no-picture': true,
	'canonical-nowhere': true,
	'version-one-way': true,
	'version-nowhere': true,
	'redirect-nowhere': true,
	'words-elsewhere': true
};

/** The rules as they would be with an edit. */
function resolverWith({ store, stored }: MendScope, edit: AnyEdit): Resolver {
	const { id, site, types } = stored;
	const model = { site, types, pictures: (src: string) => store.pictures.one(id, src), others: pagesOf(store, id) };
	return new Resolver(editModel(model, edit), new Date().toISOString());
}

/** Whether pages that share a title or a description have their own then. */
function setsApart(mend: Mend, scope: MendScope, tag: 'title' | 'description'): boolean {
	const { page, others = [] } = scope;
	if (!page || !('edit' in mend) || others.length === 0) return false;
	const resolver = resolverWith(scope, mend.edit);
	const texts = [page, ...others].map((one) => textOfValue(resolver.evaluate(editPage(one, mend.edit)).valueOf(tag)));
	return new Set(texts).size === texts.length;
}

/** A mend with what came of it on pages that have the finding; undefined where it mends not even the one it was found on. */
function triedOn(found: Finding, mend: Mend, scope: MendScope): Mend | undefined {
	const { page, others = [] } = scope;
	if (!page || !('edit' in mend)) return mend;
	const [before, after] = [scope.resolver, resolverWith(scope, mend.edit)];
	const then = lookAt(after, editPage(page, mend.edit));
	if (then.some((one) => isSame(one, found))) return undefined;
	const had = lookAt(before, page);
	const added = then.filter((one) => !had.some((old) => isSame(old, one)));
	if (added.some(({ weight }) => weight >= found.weight)) return undefined;
	const mended = others.filter(
		(one) => !lookAt(after, editPage(one, mend.edit)).some((other) => isSame(other, found))
	).length;
	const [left] = added;
	return {
		...mend,
		tried: { on: 1 + others.length, mended: 1 + mended, ...(left && { leaves: left }) }
	};
}

const isSame = (one: Finding, other: Finding) => one.code === other.code && one.tag === other.tag;

function lookAt(resolver: Resolver, page: Page): Finding[] {
	const evaluation = resolver.evaluate(page);
	return findOnPage(page, resolver.headOf(evaluation), evaluation);
}

function waysOf(found: Finding, scope: MendScope): Mend[] {
	const { tag = '' } = found;
	switch (found.code) {
		case 'no-picture':
			return sharePicture(scope);
		case 'no-title':
			return rule('site', scope, 'title', template('{page.title} {separator} {site.name}'));
		case 'no-description':
			return LENGTHS.description.flatMap((most) =>
				rule('site', scope, 'description', template(`{page.summary ?? site.description | clip ${most}}`))
			);
		case 'bare-title':
			return rule('page', scope, 'title', template('{site.name}[[ {separator} {site.tagline}]]'));
		case 'gap': {
			const { variables } = dataOf<'gap'>(found);
			const { site, types } = scope.stored;
			const pieces = piecesFor(
				site,
				types.find(({ name }) => name === scope.page?.type)
			);
			return changedTemplate(scope, tag, (text) => wrapGaps(text, variables, pieces));
		}
		case 'name-twice':
			return changedTemplate(scope, tag, dropSiteName);
		case 'cut': {
			const lengths = tag.endsWith('description') ? LENGTHS.description : LENGTHS.title;
			return lengths.flatMap((most) => changedTemplate(scope, tag, (text) => clipFirst(text, most)));
		}
		case 'short':
			return changedTemplate(scope, tag, (text) => withSite(text, tag.endsWith('description')));
		case 'logo-picture':
			return otherThanLogo(scope);
		case 'shared-title':
			return changedTemplate(scope, 'title', addSection);
		case 'shared-description':
			return changedTemplate(scope, 'description', withTitle);
		case 'shared-picture':
		case 'key-no-picture':
			return drawnPicture(scope);
		case 'passed-over':
			return ownRuleAway(scope, tag);
		case 'small-picture':
			return leastWidth(scope, dataOf<'small-picture'>(found).needed);
		case 'canonical-nowhere':
			return ownRuleAway(scope, 'canonical');
		case 'version-one-way': {
			const { path, to } = dataOf<'version-one-way'>(found);
			return [{ way: { do: 'link', path, to }, actions: [{ do: 'link', path, to }] }];
		}
		case 'version-nowhere': {
			const { path, to } = dataOf<'version-nowhere'>(found);
			return [{ way: { do: 'unlink', path, to }, actions: [{ do: 'unlink', path, to }] }];
		}
		case 'words-elsewhere': {
			const { language, isBegun } = dataOf<'words-elsewhere'>(found);
			return isBegun ? [] : forLanguage(scope, tag, language);
		}
		case 'redirect-nowhere': {
			const { path } = dataOf<'redirect-nowhere'>(found);
			return [{ way: { do: 'forget', path }, actions: [{ do: 'forget', path }] }];
		}
		default:
			return [];
	}
}

/** A rule for one language beside the one in force for any, begun with its words. */
function forLanguage(scope: MendScope, tag: string, language: string): Mend[] {
	const source = sourceOf(scope, tag);
	if (source?.tag !== tag || source.step.rule.kind !== 'template' || source.step.layer === 'built-in') return [];
	const { layer, rule: body } = source.step;
	const { template: words } = body;
	return rule(layer, scope, tag, template(words), language, {
		do: 'begin',
		language,
		at: whereOf(layer, scope),
		template: words
	});
}

/** The same done for each of several findings, as one edit; only where all are mended by actions. */
export function mendTogether(all: readonly Mend[], count: number, first: Finding): Mend[] {
	const actions = all.flatMap((mend) => ('actions' in mend ? mend.actions : []));
	return actions.length > 1 ? [{ way: { do: 'together', count, first }, actions }] : [];
}

const template = (text: string): RuleBody => ({ kind: 'template', template: text });

type Layer = 'page' | 'type' | 'site';

function placeOf(layer: Layer, page: Page | undefined): AnyEdit['place'] | undefined {
	if (layer === 'site') return { layer };
	if (!page) return undefined;
	return layer === 'type' ? { layer, name: page.type } : { layer, path: page.path };
}

const calledOf = ({ name, label }: ContentType) => label ?? name;

function whereOf(layer: Layer, { page, stored }: MendScope): Where {
	switch (layer) {
		case 'site':
			return { of: layer };
		case 'type': {
			const type = stored.types.find(({ name }) => name === page?.type);
			return { of: layer, called: type ? calledOf(type) : (page?.type ?? '') };
		}
		case 'page':
			return { of: layer, path: page?.path ?? '' };
	}
}

function rule(
	layer: Layer,
	scope: MendScope,
	tag: string,
	body: RuleBody | null,
	language?: string,
	way: Way = wayOf(layer, scope, tag, body)
): Mend[] {
	const place = placeOf(layer, scope.page);
	if (!place || place.layer === 'picture') return [];
	return [{ way, edit: { place, tag, body, ...(language && { language }) } as AnyEdit }];
}

/** A template that is written at a layer, or its rule that goes. */
function wayOf(layer: Layer, scope: MendScope, tag: string, body: RuleBody | null): Way {
	const at = whereOf(layer, scope);
	return body?.kind === 'template' ? { do: 'write', tag, at, template: body.template } : { do: 'take-away', tag, at };
}

/** Where a tag's value comes from: the rule that wrote it, through what it borrows. */
function sourceOf({ resolver, page }: MendScope, tag: string) {
	if (!page) return undefined;
	const { traces } = resolver.resolveWithTrace(page);
	const seen = new Set<string>();
	for (let at = tag; !seen.has(at);) {
		seen.add(at);
		const trace: Trace | undefined = traces.find((one) => one.tag === at);
		const step = trace?.steps[trace.winner];
		if (!step) return undefined;
		const from = 'from' in step.rule && typeof step.rule.from === 'string' ? step.rule.from : undefined;
		if (from === undefined || step.rule.kind === 'pictures') return { tag: at, step };
		at = from;
	}
	return undefined;
}

/** What the built-in says, as a template that one can go on from. */
const AS_BUILT_IN: Readonly<Record<string, string>> = {
	title: '{page.title ?? site.name}',
	description: '{page.summary ?? page.body}'
};

function changedTemplate(scope: MendScope, tag: string, change: (text: string) => string | undefined): Mend[] {
	const source = sourceOf(scope, tag);
	if (!source) return [];
	const { layer, rule: body, language } = source.step;
	if (body.kind === 'template' && layer !== 'built-in') {
		const after = change(body.template);
		return after === undefined ? [] : rule(layer, scope, source.tag, template(after), language);
	}
	const before = body.kind === 'built-in' ? ownOf(AS_BUILT_IN, source.tag) : undefined;
	const after = before && change(before);
	return after ? rule('site', scope, source.tag, template(after)) : [];
}

function ownRuleAway(scope: MendScope, tag: string): Mend[] {
	const source = sourceOf(scope, tag);
	const { layer, language } = source?.step ?? { layer: 'built-in' as const, language: undefined };
	return source?.tag === tag && layer !== 'built-in' ? rule(layer, scope, tag, null, language) : [];
}

/** The pictures of the page stand before the one that is a logo; or another picture stands in for the site. */
function otherThanLogo(scope: MendScope): Mend[] {
	const source = sourceOf(scope, 'og:image');
	if (!source) return [];
	const { layer, rule: body, language } = source.step;
	if (body.kind !== 'pictures' || layer === 'built-in') return sharePicture(scope, true);
	const own = BUILT_IN_PICTURES.sources.filter(({ from }) => from === 'lead' || from === 'body');
	const rest = body.sources.filter(({ from }) => from !== 'lead' && from !== 'body');
	return rule(layer, scope, source.tag, { ...body, sources: [...own, ...rest] }, language, {
		do: 'own-first',
		at: whereOf(layer, scope)
	});
}

/** Small ones are passed over, where the rule that chose it stands. */
function leastWidth(scope: MendScope, needed: number): Mend[] {
	const source = sourceOf(scope, 'og:image');
	if (!source) return [];
	const { layer, rule: body, language } = source.step;
	const isOwn = body.kind === 'pictures' && layer !== 'built-in';
	const before = isOwn ? body : BUILT_IN_PICTURES;
	const after: RuleBody = { ...before, kind: 'pictures', limits: { ...before.limits, minWidth: needed } };
	const at = isOwn ? layer : 'site';
	return rule(at, scope, source.tag, after, language, {
		do: 'least-width',
		pixels: needed,
		at: whereOf(at, scope)
	});
}

/** The widest picture of the library that fits wide cards becomes the site's; else share pictures are drawn, where a layout is. */
function sharePicture(scope: MendScope, mayReplace = false): Mend[] {
	const { store, stored } = scope;
	const { id, site } = stored;
	const fits = store.pictures
		.all(id)
		.filter(({ width = 0, height = 1, mark, plain }) => width >= 600 && !mark && !plain && width / height >= 1.2)
		.sort((a, b) => (b.width ?? 0) - (a.width ?? 0));
	const [best] = fits;
	const has = site.fields.picture !== undefined;
	const ofSite: Mend[] =
		best && (!has || mayReplace)
			? [
					{
						way: { do: 'picture-of-site', name: best.name ?? best.src },
						edit: { place: { layer: 'site' }, changes: { fields: { ...site.fields, picture: { src: best.src } } } }
					}
				]
			: [];
	return [...ofSite, ...drawnPicture(scope)];
}

/** Share pictures are drawn for pages that have none of their own, where their type has a layout. */
function drawnPicture({ stored, page }: MendScope): Mend[] {
	const type = stored.types.find(({ name }) => name === page?.type);
	if (!type?.layout) return [];
	const sources: readonly PictureSource[] = [{ from: 'lead' }, { from: 'body' }, { from: 'composed' }];
	return [
		{
			way: { do: 'draw', called: calledOf(type) },
			edit: {
				place: { layer: 'type', name: type.name },
				tag: 'og:image',
				body: { kind: 'pictures', sources, shapes: ['wide'] }
			}
		}
	];
}
