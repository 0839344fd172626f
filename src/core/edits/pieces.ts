import type { ContentType, Rule, Site } from '../model';
import type { TextPart } from '../pictures/layout';
import { renamePieceInTemplate } from '../template/variables';

/** Where a piece stands: at the site, or at a type. */
type Owner = Pick<Site | ContentType, 'rules' | 'pieces'> & Partial<Pick<ContentType, 'layout'>>;

/** A rule with a piece under another name. */
export const renamePieceInRule = (rule: Rule, from: string, to: string): Rule =>
	rule.kind === 'template' ? { ...rule, template: renamePieceInTemplate(rule.template, from, to) } : rule;

/**
 * A site or a type with a piece under another name wherever its templates use it; with `declares`, the piece itself stands
 * there under the old name, and has its place under the new one.
 */
export function renamePieceIn<T extends Owner>(owner: T, from: string, to: string, declares: boolean): T {
	const renamed = (template: string) => renamePieceInTemplate(template, from, to);
	const part = (one: TextPart) => ({ ...one, template: renamed(one.template) });
	const pieces =
		owner.pieces &&
		Object.fromEntries(
			Object.entries(owner.pieces).map(([name, text]) => [declares && name === from ? to : name, renamed(text)])
		);
	return {
		...owner,
		rules: owner.rules.map((rule) => renamePieceInRule(rule, from, to)),
		...(pieces && { pieces }),
		...(owner.layout && {
			layout: {
				...owner.layout,
				title: part(owner.layout.title),
				...(owner.layout.line && { line: part(owner.layout.line) })
			}
		})
	};
}
