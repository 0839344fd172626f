import { formatIssue, type Issue } from '../issue';
import type { ShareLayout } from '../pictures/layout';
import { TAG_NAMES } from '../catalogue/catalogue';
import { checkTemplate } from '../template/check';
import type { RuleContext } from './checkSite';

/** What is wrong with a template of a layout. */
export interface LayoutIssue {
	readonly part: 'title' | 'line';
	readonly issue: Issue;
	/** The sentence for people. */
	readonly message: string;
}

/** Everything wrong or doubtful with the texts of a layout, checked as rules are. */
export function checkLayout(layout: ShareLayout, { site, fields }: RuleContext): LayoutIssue[] {
	const context = { fields, siteFields: Object.keys(site.fields), tagNames: TAG_NAMES };
	return (['title', 'line'] as const).flatMap((part) => {
		const template = layout[part]?.template;
		if (template === undefined) return [];
		return checkTemplate(template, context).map((issue) => ({ part, issue, message: formatIssue(issue, template) }));
	});
}
