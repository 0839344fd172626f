/** What kind of value a tag carries; each kind has one function that makes a value legal or refuses it. */
export type TagKind =
	| 'text'
	| 'address'
	| 'picture'
	| 'date'
	| 'number'
	| 'choice'
	| 'language'
	| 'locale'
	| 'handle'
	| 'colour'
	| 'directives'
	| 'mediaType';

/** Where in the markup a tag's name stands. */
export type TagPlace = 'title' | 'name' | 'property' | 'rel';

export type TagFamily = 'plain' | 'og' | 'twitter';

/** One row of the catalogue. Every row has every key, in one order: the resolver reads them for each tag of each page. */
export interface TagDefinition {
	/** The markup's own name; where two rows share one, a colon and a word tell them apart. */
	readonly name: string;
	readonly place: TagPlace;
	/** What stands in the attribute, where it is not the name. */
	readonly key: string;
	readonly kind: TagKind;
	readonly family: TagFamily;
	readonly repeated: boolean;
	/** The tag it belongs to and stands directly after. */
	readonly parent: string | undefined;
	/** The Open Graph tag that says the same; readers fall back to it. */
	readonly twin: string | undefined;
	/** For pictures: which fact of the winning picture it carries. */
	readonly fact: ('secure' | 'type' | 'width' | 'height' | 'alt') | undefined;
	/** Attributes that are always the same. */
	readonly attributes: Readonly<Record<string, string>> | undefined;
	/** The markup up to the value: the same for all pages. */
	readonly markup: string;
	readonly purpose: string;
	/** How long a good value is, in characters as a reader sees them. */
	readonly aim: readonly [least: number, most: number] | undefined;
	/** Why it is kept but no longer of use. */
	readonly legacy: string | undefined;
	readonly choices: readonly string[] | undefined;
	/** The choices are suggestions: other values are legal too. */
	readonly open: boolean | undefined;
}
