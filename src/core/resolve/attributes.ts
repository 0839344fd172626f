import { LINK_ATTRIBUTES, type LinkAttribute } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { FoundTag } from '../model';
import { ownOf } from '../own';
import { toText } from '../template/values';
import { canonicalLanguage, settleText } from '../text/text';
import { legalMediaType } from './legal';

/** What a link may say beside where it leads: a closed list of names, each with its legal form (R9, R10). */

/** The legal form of a settled value, or undefined when it has none. */
const LEGAL: Readonly<Record<LinkAttribute, (text: string) => string | undefined>> = {
	hreflang: (text) => (text.toLowerCase() === 'x-default' ? 'x-default' : canonicalLanguage(text)),
	type: legalMediaType,
	// HTML standard, section 4.2.4.4: `any`, or sizes parted by spaces.
	sizes: (text) =>
		/^(any|[1-9]\d{0,4}x[1-9]\d{0,4})( (any|[1-9]\d{0,4}x[1-9]\d{0,4})){0,30}$/i.test(text)
			? text.toLowerCase()
			: undefined,
	media: (text) => text || undefined,
	title: (text) => text || undefined,
	crossorigin: (text) => (/^(anonymous|use-credentials)?$/i.test(text) ? text.toLowerCase() : undefined)
};

/** Whether a tag's value can have attributes of its own: links do, but the one that names the page itself. */
export const carriesAttributes = ({ place, name }: TagDefinition): boolean => place === 'rel' && name !== 'canonical';

/**
 * Of attributes from outside those that a tag may carry, in the order of `LINK_ATTRIBUTES`, legal and settled. Undefined
 * for none. What the tag always says, such as the type of a feed, stays as it is.
 */
export function legalAttributes(
	tag: TagDefinition,
	attributes: FoundTag['attributes']
): Readonly<Record<string, string>> | undefined {
	if (!attributes || typeof attributes !== 'object' || !carriesAttributes(tag)) return undefined;
	const legal: Record<string, string> = {};
	for (const name of LINK_ATTRIBUTES) {
		if (!Object.hasOwn(attributes, name) || tag.attributes?.[name] !== undefined) continue;
		const value = LEGAL[name](settleText(toText(attributes[name])));
		if (value !== undefined) legal[name] = value;
	}
	return Object.keys(legal).length > 0 ? legal : undefined;
}

/** The names of attributes from outside that a tag does not carry as they are: unknown ones, and those without a legal form. */
export function droppedAttributes(tag: TagDefinition, attributes: FoundTag['attributes']): readonly string[] {
	if (!attributes || typeof attributes !== 'object') return [];
	const kept = legalAttributes(tag, attributes) ?? {};
	return Object.keys(attributes).filter(
		(name) => !Object.hasOwn(kept, name) && ownOf(tag.attributes, name) === undefined
	);
}
