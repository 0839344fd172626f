/** What kind of value a tag carries; each kind has one function that makes a value legal or refuses it. */
export const TAG_KINDS = [
	'text',
	'address',
	'picture',
	'date',
	'number',
	'choice',
	'language',
	'locale',
	'handle',
	'colour',
	'directives',
	'mediaType'
] as const;
export type TagKind = (typeof TAG_KINDS)[number];

/** Where in the markup a tag's name stands. */
export type TagPlace = 'title' | 'name' | 'property' | 'rel';

export type TagFamily = 'plain' | 'og' | 'twitter';

/** One row of the catalogue. */
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
	readonly parent?: string;
	/** The Open Graph tag that says the same; readers fall back to it. */
	readonly twin?: string;
	/** For pictures: which fact of the winning picture it carries. */
	readonly fact?: 'secure' | 'type' | 'width' | 'height' | 'alt';
	/** Attributes that are always the same. */
	readonly attributes?: Readonly<Record<string, string>>;
	readonly purpose: string;
	/** How long a good value is, in characters as a reader sees them. */
	readonly aim?: readonly [least: number, most: number];
	/** Why it is kept but no longer of use. */
	readonly legacy?: string;
	readonly choices?: readonly string[];
	/** The choices are suggestions: other values are legal too. */
	readonly open?: boolean;
}
