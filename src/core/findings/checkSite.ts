import { findTag, TAG_NAMES, undeclaredPrefix } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { formatIssue, nearestName, type Issue } from '../issue';
import { limitExtraMarkup } from '../markup/extra';
import { PAGE_FIELDS, type ContentType, type ExtraMarkup, type Field, type Page, type Rule, type Site } from '../model';
import { checkLayout } from './checkLayout';
import { KIND_EXPECTED, legalValue, ROBOTS_DIRECTIVES } from '../resolve/legal';
import { pathBetween } from '../resolve/loops';
import { checkTemplate } from '../template/check';
import { compileTemplate, variablesIn } from '../template/compile';
import { parseTemplate } from '../template/parse';
import { isLanguageTag } from '../text/text';

/** An issue with the place of the rule it is about. */
export interface RuleIssue {
	readonly layer: 'site' | 'type' | 'page';
	/** The type's name or the page's path. */
	readonly owner?: string;
	readonly tag: string;
	readonly language?: string;
	readonly issue: Issue;
	/** The sentence for people. */
	readonly message: string;
}

/** Where a rule stands, as far as checking it needs to know. */
export interface RuleContext {
	readonly site: Site;
	/** The fields a template may name: of its type, or of any type when it stands at the site. */
	readonly fields: readonly Field[];
}

/** The fields that a template at the site may name: those of every type. */
export function fieldsOfAll(types: readonly ContentType[]): Field[] {
	const fields = new Map(types.flatMap((type) => type.fields.map((field) => [field.name, field] as const)));
	return [...fields.values()];
}

/** Everything wrong or doubtful with one rule by itself. */
export function checkRule(rule: Rule, { site, fields }: RuleContext): Issue[] {
	const tag = findTag(rule.tag, site.prefixes);
	const language =
		rule.language !== undefined && !isLanguageTag(rule.language)
			? [whole(rule.language, { code: 'rule/bad-language' })]
			: [];
	if (!tag) return [unknownTag(rule.tag), ...language];
	if (tag.fact && tag.fact !== 'alt')
		return [whole(tag.name, { code: 'rule/facts-only', expected: `"${tag.parent}"` }), ...language];
	return [...language, ...checkBody(rule, tag, { site, fields })];
}

const whole = (seen: string, issue: Pick<Issue, 'code' | 'expected' | 'nearest'>): Issue => ({
	severity: 'error',
	start: 0,
	end: seen.length,
	seen,
	...issue
});

function unknownTag(name: string): Issue {
	const prefix = undeclaredPrefix(name);
	const nearest = nearestName(name, TAG_NAMES);
	if (prefix && !nearest) return whole(name, { code: 'rule/no-prefix', expected: prefix });
	return whole(name, { code: 'rule/unknown-tag', ...(nearest && { nearest }) });
}

function checkBody(rule: Rule, tag: TagDefinition, { site, fields }: RuleContext): Issue[] {
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
			const siteFields = Object.keys(site.fields);
			return [
				...checkTemplate(rule.template, { fields, siteFields, tagNames: TAG_NAMES }),
				...checkConstant(rule.template, tag)
			];
		}
	}
}

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
	const text = nodes
		.map((node) => (node.kind === 'text' ? node.text : ''))
		.join('')
		.trim();
	const legal =
		tag.kind === 'address' ? text.startsWith('/') || URL.canParse(text) : legalValue(tag, text) !== undefined;
	if (text === '' || legal) return [];
	const names = tag.kind === 'directives' ? ROBOTS_DIRECTIVES : (tag.choices ?? []);
	const expected = tag.choices ? `one of ${tag.choices.join(', ')}` : KIND_EXPECTED[tag.kind];
	const nearest = nearestName(text, names);
	return [
		{
			code: 'rule/bad-value',
			severity: 'error',
			start: 0,
			end: source.length,
			seen: text,
			expected,
			...(nearest && { nearest })
		}
	];
}

/** The tags whose outcome a rule asks for. */
function readsOf(rule: Rule): readonly string[] {
	if (rule.kind === 'borrow') return [rule.from];
	return rule.kind === 'template' ? compileTemplate(rule.template).reads : [];
}

/** The circle that rules of one set of layers make through this tag, or undefined (R7). */
export function loopThrough(tag: string, rules: readonly Rule[]): string[] | undefined {
	const reads = new Map<string, string[]>();
	for (const rule of rules) reads.set(rule.tag, [...(reads.get(rule.tag) ?? []), ...readsOf(rule)]);
	for (const from of reads.get(tag) ?? []) {
		const path = pathBetween(from, tag, reads);
		if (path) return [tag, ...path];
	}
	return undefined;
}

function loopIssues(rules: readonly Rule[], all: readonly Rule[], seen: Set<string>): { rule: Rule; issue: Issue }[] {
	return rules.flatMap((rule) => {
		const loop = loopThrough(rule.tag, all);
		const key = loop && [...new Set(loop)].sort().join();
		if (!loop || seen.has(key as string)) return [];
		seen.add(key as string);
		return [{ rule, issue: whole(loop.join(' → '), { code: 'rule/loop' }) }];
	});
}

/** Every rule and template of a site, checked. Issues come in the order site, types, pages. */
export function checkSite(site: Site, types: readonly ContentType[], pages: Iterable<Page>): RuleIssue[] {
	const seen = new Set<string>();
	const found = checkLayer({ layer: 'site' }, site, { site, fields: fieldsOfAll(types) }, [], seen);
	const byName = new Map(types.map((type) => [type.name, type]));
	for (const type of types) {
		const [place, context] = [{ layer: 'type', owner: type.name } as const, { site, fields: type.fields }];
		found.push(...checkLayer(place, type, context, site.rules, seen));
		for (const { part, ...told } of type.layout ? checkLayout(type.layout, context) : [])
			found.push({ ...place, tag: `share picture, ${part}`, ...told });
	}
	for (const page of pages) {
		if (page.rules.length === 0 && !page.extra) continue;
		const type = byName.get(page.type);
		found.push(
			...checkLayer(
				{ layer: 'page', owner: page.path },
				page,
				{ site, fields: type?.fields ?? [] },
				[...site.rules, ...(type?.rules ?? [])],
				seen
			)
		);
	}
	return found;
}

function checkLayer(
	place: Pick<RuleIssue, 'layer' | 'owner'>,
	{ rules, extra }: { readonly rules: readonly Rule[]; readonly extra?: ExtraMarkup },
	context: RuleContext,
	below: readonly Rule[],
	seen: Set<string>
): RuleIssue[] {
	const sourceOf = (rule: Rule) => (rule.kind === 'template' ? rule.template : '');
	const ofRules = rules.flatMap((rule) => checkRule(rule, context).map((issue) => ({ rule, issue })));
	const loops = loopIssues(rules, [...rules, ...below], seen);
	const ofExtra = [extra?.before, extra?.after].flatMap((markup) =>
		markup === undefined
			? []
			: limitExtraMarkup(markup).issues.map((issue) => ({
					...place,
					tag: 'extra markup',
					issue,
					message: formatIssue(issue, markup)
				}))
	);
	return [
		...[...ofRules, ...loops].map(({ rule, issue }) => ({
			...place,
			tag: rule.tag,
			...(rule.language && { language: rule.language }),
			issue,
			message: formatIssue(issue, sourceOf(rule))
		})),
		...ofExtra
	];
}
