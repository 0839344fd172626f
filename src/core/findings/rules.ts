import type { Pieces } from '../template/pieces';
import { findTag, isReserved, TAG_NAMES, undeclaredPrefix } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { nearestName, type Issue } from '../issue';
import { limitExtraMarkup } from '../markup/extra';
import { PAGE_FIELDS, type ContentType, type ExtraMarkup, type Field, type Page, type Rule, type Site } from '../model';
import type { ShareLayout } from '../pictures/layout';
import { expectedOf, legalValue, ROBOTS_DIRECTIVES } from '../resolve/legal';
import { pathBetween } from '../resolve/loops';
import { checkTemplate, type TemplateContext } from '../template/check';
import { piecesFor } from '../resolve/words';
import { compileTemplate } from '../template/compile';
import { mendTemplate, type TemplateMend } from '../template/mend';
import { variablesIn } from '../template/nodes';
import { parseTemplate } from '../template/parse';
import { isBlank, isLanguageTag, settleText } from '../text/text';
import { parseUrl } from '../text/url';
import { ruleFinding, type Finding, type Target } from './finding';

/** Where a rule stands, as far as checking it needs to know. */
export interface RuleContext {
	readonly site: Site;
	/** The fields a template may name: of its type, or of any type when it stands at the site. */
	readonly fields: readonly Field[];
	/** The type that it stands at, or whose page it stands at. */
	readonly type?: ContentType | undefined;
}

/** The fields that a template at the site may name: those of every type. */
export function fieldsOfAll(types: readonly ContentType[]): Field[] {
	const fields = new Map(types.flatMap((type) => type.fields.map((field) => [field.name, field] as const)));
	return [...fields.values()];
}

/** Everything wrong or doubtful with one rule by itself. */
export function checkRule(rule: Rule, context: RuleContext): Issue[] {
	const { site } = context;
	const tag = findTag(rule.tag, site.prefixes);
	const language =
		rule.language !== undefined && !isLanguageTag(rule.language)
			? [whole(rule.language, { code: 'rule/bad-language' })]
			: [];
	if (!tag) return [unknownTag(rule.tag), ...language];
	if (tag.fact && tag.fact !== 'alt')
		return [whole(tag.name, { code: 'rule/facts-only', expected: `"${tag.parent}"` }), ...language];
	return [...language, ...checkBody(rule, tag, context)];
}

const whole = (seen: string, issue: Pick<Issue, 'code' | 'expected' | 'nearest'>): Issue => ({
	severity: 'error',
	start: 0,
	end: seen.length,
	seen,
	...issue
});

function unknownTag(name: string): Issue {
	const beside = isReserved(name) && reservedFor(name);
	if (beside) return whole(name, { code: 'rule/reserved-name', expected: `"${beside}"` });
	const prefix = undeclaredPrefix(name);
	const nearest = nearestName(name, TAG_NAMES);
	if (prefix && !nearest && !isReserved(name)) return whole(name, { code: 'rule/no-prefix', expected: prefix });
	return whole(name, { code: 'rule/unknown-tag', ...(nearest && { nearest }) });
}

/** The tag that a name of one's own would stand beside. */
const reservedFor = (name: string) => /^(?:meta|robots):(.*)$/i.exec(name)?.[1]?.toLowerCase();

function checkBody(rule: Rule, tag: TagDefinition, context: RuleContext): Issue[] {
	const { site, fields } = context;
	switch (rule.kind) {
		case 'leaveOut':
			return [];
		case 'borrow':
			return findTag(rule.from, site.prefixes) ? [] : [unknownTag(rule.from)];
		case 'pictures': {
			if (tag.kind !== 'picture') return [whole(tag.name, { code: 'rule/not-a-picture-tag' })];
			const names = [...fields, ...PAGE_FIELDS].map((field) => field.name);
			return rule.sources.flatMap((source) => {
				if (source.from !== 'field' || names.includes(source.name)) return [];
				const nearest = nearestName(source.name, names);
				return [whole(source.name, { code: 'rule/unknown-field', ...(nearest && { nearest }) })];
			});
		}
		case 'template': {
			return [...checkTemplate(rule.template, contextOf(context)), ...checkConstant(rule.template, tag)];
		}
	}
}

/** What mends an issue of a template, where one way is known after which less is wrong. */
export const mendOfTemplate = (template: string, issue: Issue, context: RuleContext): TemplateMend | undefined =>
	mendTemplate(template, issue, contextOf(context));

const contextOf = ({ site, fields, type }: RuleContext): TemplateContext => ({
	fields,
	words: Object.keys(site.words ?? {}),
	...(piecesFor(site, type) && { pieces: piecesFor(site, type)! }),
	siteFields: Object.keys(site.fields),
	tagNames: TAG_NAMES,
	languages: site.languages
});

/** A template without variables always comes to the same: then its value can be checked now. */
function checkConstant(source: string, tag: TagDefinition): Issue[] {
	const { nodes, issues } = parseTemplate(source);
	if (
		issues.length > 0 ||
		tag.kind === 'picture' ||
		variablesIn(nodes).length > 0 ||
		nodes.some((node) => node.kind !== 'text')
	)
		return [];
	const text = settleText(nodes.map((node) => (node.kind === 'text' ? node.text : '')).join(''));
	const isAddress = (value: string) => value.startsWith('/') || parseUrl(value) !== undefined;
	const isLegal = tag.kind === 'address' ? isAddress(text) : legalValue(tag, text) !== undefined;
	if (isBlank(text) || isLegal) return [];
	const names = tag.kind === 'directives' ? ROBOTS_DIRECTIVES : (tag.choices ?? []);
	const nearest = nearestName(text, names);
	return [
		{
			code: 'rule/bad-value',
			severity: 'error',
			start: 0,
			end: source.length,
			seen: text,
			expected: expectedOf(tag),
			...(nearest && { nearest })
		}
	];
}

/** The tags whose outcome a rule asks for. */
function readsOf(rule: Rule, pieces: Pieces | undefined): readonly string[] {
	if (rule.kind === 'borrow') return [rule.from];
	return rule.kind === 'template' ? compileTemplate(rule.template, pieces).reads : [];
}

/** The circle that rules of one set of layers make through this tag, or undefined (R7). */
export function loopThrough(tag: string, rules: readonly Rule[], pieces?: Pieces): string[] | undefined {
	const reads = new Map<string, string[]>();
	for (const rule of rules) reads.set(rule.tag, [...(reads.get(rule.tag) ?? []), ...readsOf(rule, pieces)]);
	for (const from of reads.get(tag) ?? []) {
		const path = pathBetween(from, tag, reads);
		if (path) return [tag, ...path];
	}
	return undefined;
}

function loopFindings(
	rules: readonly Rule[],
	all: readonly Rule[],
	target: Target,
	seen: Set<string>,
	pieces: Pieces | undefined
): Finding[] {
	return rules.flatMap((rule) => {
		const loop = loopThrough(rule.tag, all, pieces);
		const key = loop && [...new Set(loop)].sort().join();
		if (!loop || seen.has(key as string)) return [];
		seen.add(key as string);
		return [findingOf(rule, target, whole(loop.join(' → '), { code: 'rule/loop' }))];
	});
}

function findingOf(rule: Rule, target: Target, issue: Issue): Finding {
	const source = rule.kind === 'template' ? rule.template : '';
	return ruleFinding(target, rule.tag, { issue, source, ...(rule.language && { language: rule.language }) });
}

/** Every rule and template of a site, checked. Findings come in the order site, types, pages. */
export function findInRules(site: Site, types: readonly ContentType[], pages: Iterable<Page>): Finding[] {
	const seen = new Set<string>();
	const atSite = { site, fields: fieldsOfAll(types) };
	const found = [
		...findInLayer({ of: 'site' }, site, atSite, [], seen),
		...findInPieces(site.pieces, { of: 'site' }, atSite)
	];
	const byName = new Map(types.map((type) => [type.name, type]));
	for (const type of types) {
		const [target, context] = [{ of: 'type', name: type.name } as const, { site, fields: type.fields, type }];
		found.push(...findInLayer(target, type, context, site.rules, seen));
		if (type.layout) found.push(...findInLayout(type.layout, target, context));
		found.push(...findInPieces(type.pieces, target, context));
	}
	for (const page of pages) {
		if (page.rules.length === 0 && !page.extra) continue;
		const type = byName.get(page.type);
		const [target, context] = [{ of: 'page', path: page.path } as const, { site, fields: type?.fields ?? [], type }];
		found.push(...findInLayer(target, page, context, [...site.rules, ...(type?.rules ?? [])], seen));
	}
	return found;
}

/** The same with the pieces of a layer. */
export function findInPieces(pieces: ContentType['pieces'], target: Target, context: RuleContext): Finding[] {
	return Object.entries(pieces ?? {}).flatMap(([name, source]) =>
		checkTemplate(source, { ...contextOf(context), pieceName: name }).map((issue) =>
			ruleFinding(target, undefined, { issue, source, part: `piece ${name}` })
		)
	);
}

/** Everything wrong or doubtful with the texts of a layout, checked as rules are. */
export function findInLayout(layout: ShareLayout, target: Target, context: RuleContext): Finding[] {
	return (['title', 'line'] as const).flatMap((part) => {
		const source = layout[part]?.template;
		if (source === undefined) return [];
		return checkTemplate(source, contextOf(context)).map((issue) =>
			ruleFinding(target, undefined, { issue, source, part: `${part} of the share picture` })
		);
	});
}

function findInLayer(
	target: Target,
	{ rules, extra }: { readonly rules: readonly Rule[]; readonly extra?: ExtraMarkup },
	context: RuleContext,
	below: readonly Rule[],
	seen: Set<string>
): Finding[] {
	const inMarkup = (source: string | undefined) =>
		source === undefined
			? []
			: limitExtraMarkup(source).issues.map((issue) =>
					ruleFinding(target, undefined, { issue, source, part: 'extra markup' })
				);
	return [
		...rules.flatMap((rule) => checkRule(rule, context).map((issue) => findingOf(rule, target, issue))),
		...doubleFindings(rules, target),
		...loopFindings(rules, [...rules, ...below], target, seen, piecesFor(context.site, context.type)),
		...inMarkup(extra?.before),
		...inMarkup(extra?.after)
	];
}

/** Rules of one layer that speak of the same tag in the same language: only the first is used. */
function doubleFindings(rules: readonly Rule[], target: Target): Finding[] {
	const seen = new Set<string>();
	return rules.flatMap((rule) => {
		const key = `${rule.tag} ${(rule.language ?? '').toLowerCase()}`;
		if (!seen.has(key)) {
			seen.add(key);
			return [];
		}
		return [
			findingOf(
				rule,
				target,
				whole(rule.tag, { code: 'rule/double', ...(rule.language && { expected: rule.language }) })
			)
		];
	});
}
