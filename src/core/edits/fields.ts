import type { ContentType, Page, Rule, Site } from '../model';
import type { ShareLayout, TextPart } from '../pictures/layout';
import { asksForField, renameFieldInTemplate } from '../template/variables';

/** A place that asks for a field: a rule of a layer, or a text of a type's layout for share pictures. */
export interface FieldUse {
	readonly layer: 'page' | 'type' | 'site';
	/** The type's name or the page's path; '' for the site. */
	readonly of: string;
	/** The tag of the rule, or `title` and `line` of a layout. */
	readonly tag: string;
	readonly language?: string;
	readonly isLayout?: true;
	/** The template; '' where the field is a source of pictures. */
	readonly template: string;
}

/** Whether a rule asks for a field of its page. */
export function ruleAsksFor(rule: Rule, field: string): boolean {
	switch (rule.kind) {
		case 'template':
			return asksForField(rule.template, field);
		case 'pictures':
			return rule.sources.some((source) => source.from === 'field' && source.name === field);
		case 'borrow':
		case 'leaveOut':
			return false;
	}
}

/** The rule with a field under another name; with `both`, beside the old one, which pages of other types have still. */
export function renameFieldInRule(rule: Rule, from: string, to: string, both = false): Rule {
	switch (rule.kind) {
		case 'template':
			return { ...rule, template: renameFieldInTemplate(rule.template, from, to, both) };
		case 'pictures': {
			const sources = rule.sources.flatMap((source) =>
				source.from === 'field' && source.name === from
					? [{ ...source, name: to }, ...(both ? [source] : [])]
					: [source]
			);
			return { ...rule, sources };
		}
		case 'borrow':
		case 'leaveOut':
			return rule;
	}
}

/** Where a field of a type is asked for: at the site, at the type and in its layout, and at those of its pages given. */
export function usesOfField(site: Site, type: ContentType, pages: Iterable<Page>, field: string): FieldUse[] {
	const uses: FieldUse[] = [];
	const look = (layer: FieldUse['layer'], of: string, rules: readonly Rule[]) => {
		for (const rule of rules)
			if (ruleAsksFor(rule, field))
				uses.push({
					...{ layer, of, tag: rule.tag },
					...(rule.language && { language: rule.language }),
					template: rule.kind === 'template' ? rule.template : ''
				});
	};
	look('site', '', site.rules);
	look('type', type.name, type.rules);
	for (const [tag, part] of textsOf(type.layout))
		if (asksForField(part.template, field))
			uses.push({ layer: 'type', of: type.name, tag, isLayout: true, template: part.template });
	const inPiecesOf = (layer: FieldUse['layer'], of: string, pieces: ContentType['pieces']) => {
		for (const [name, template] of Object.entries(pieces ?? {}))
			if (asksForField(template, field)) uses.push({ layer, of, tag: `piece.${name}`, template });
	};
	inPiecesOf('site', '', site.pieces);
	inPiecesOf('type', type.name, type.pieces);
	for (const page of pages) if (page.type === type.name) look('page', page.path, page.rules);
	return uses;
}

const textsOf = (layout: ShareLayout | undefined): (readonly [name: 'title' | 'line', part: TextPart])[] =>
	layout ? [['title', layout.title], ...(layout.line ? [['line', layout.line] as const] : [])] : [];

/** The type with a field under another name: in what it declares, its rules, its layout and its pictures by a field. */
export function renameFieldInType(type: ContentType, from: string, to: string): ContentType {
	const renamed = (part: TextPart) => ({ ...part, template: renameFieldInTemplate(part.template, from, to) });
	return {
		...type,
		fields: type.fields.map((field) => (field.name === from ? { ...field, name: to } : field)),
		rules: type.rules.map((rule) => renameFieldInRule(rule, from, to)),
		...(type.pieces && { pieces: inPieces(type.pieces, (template) => renameFieldInTemplate(template, from, to)) }),
		...(type.layout && {
			layout: {
				...type.layout,
				title: renamed(type.layout.title),
				...(type.layout.line && { line: renamed(type.layout.line) })
			}
		}),
		...(type.pictureBy && {
			pictureBy: { ...type.pictureBy, field: type.pictureBy.field === from ? to : type.pictureBy.field }
		})
	};
}

/** Pieces with each of their templates made another. */
export const inPieces = (pieces: NonNullable<ContentType['pieces']>, change: (template: string) => string) =>
	Object.fromEntries(Object.entries(pieces).map(([name, template]) => [name, change(template)]));
