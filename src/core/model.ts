/** The words of the product as data: a site, its content types, its pages, and the rules that stand in each layer. */

import { labelled } from './words/labels';
import type { Look, ShareLayout } from './pictures/layout';

/** Where a rule can stand, most specific first. The resolver walks them in this order (R1). */
export const LAYERS = ['page', 'type', 'site', 'built-in'] as const;
export type Layer = (typeof LAYERS)[number];

/** The shapes that pictures are cut to. */
export const SHAPE_NAMES = ['wide', 'double', 'square', 'tall'] as const;
export type Shape = (typeof SHAPE_NAMES)[number];

/** How one shape is cut from a picture: round a point, as shares (0 to 1) of its sides, and how near (1: as much as fits). */
export interface CutSetting {
	readonly focus: readonly [x: number, y: number];
	readonly zoom?: number;
}

/** A copy of a picture that the library holds. Width and height in pixels. */
export interface KeptCopy {
	/** The name of its file: 24 hexadecimal digits of its hash, and `.jpg` or `.png`. */
	readonly file: string;
	readonly width: number;
	readonly height: number;
}

/** A picture known by its facts. Widths and heights in pixels, `bytes` the size of the file. */
export interface Picture {
	/** A path under the site (`/pictures/heath.jpg`) or an absolute address. The key pictures are known by. */
	readonly src: string;
	readonly width?: number;
	readonly height?: number;
	readonly bytes?: number;
	/** The media type read from the file, such as `image/jpeg`. */
	readonly type?: string;
	readonly alt?: string;
	/** The same in other languages, by language tag. */
	readonly alts?: Readonly<Record<string, string>>;
	/** What its file was called when it came; it is found by it. */
	readonly name?: string;
	/** The library's copy of it, where it stands at another address itself. */
	readonly kept?: KeptCopy;
	/** The same picture over https, where `src` is an http address. */
	readonly secure?: string;
	/** The point that must stay in view, as shares (0 to 1) of the width and height. */
	readonly focus?: readonly [x: number, y: number];
	/** Shapes that are not cut round that point alone. */
	readonly cuts?: Readonly<Partial<Record<Shape, CutSetting>>>;
	/** Where it seems to hold text, and faces: boxes as shares of its width and height, left, top, width and height. */
	readonly text?: readonly Area[];
	readonly faces?: readonly Area[];
	/** How light it is, in eight by eight cells row by row: two hexadecimal digits each, a grey of sRGB. */
	readonly light?: string;
	/** It looks like a logo: small, of few colours. */
	readonly plain?: boolean;
	/** On how many pages it stands as part of the page's frame. A picture that nearly every page has is a logo. */
	readonly repeated?: number;
	/** It is a logo or an icon rather than a picture of something. */
	readonly mark?: boolean;
	/** Parts of it are transparent. */
	readonly alpha?: boolean;
	/** It came as an animation; its first frame is kept. */
	readonly animated?: boolean;
}

export type Area = readonly [left: number, top: number, width: number, height: number];

/** A mention of a picture on a page. Its own alt text goes before the picture's. */
export interface PictureMention {
	readonly src: string;
	readonly alt?: string;
}

export interface Person {
	readonly name: string;
	readonly handle?: string;
	readonly address?: string;
	readonly picture?: string;
}

export type FieldValue =
	string | number | boolean | null | PictureMention | Person | readonly (string | number | PictureMention | Person)[];

export const FIELD_KINDS = [
	'text',
	'rich',
	'number',
	'date',
	'flag',
	'choice',
	'link',
	'list',
	'picture',
	'pictures',
	'person',
	'people',
	'page',
	'pages'
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** A field that a content type declares for its pages. */
export interface Field {
	readonly name: string;
	readonly kind: FieldKind;
	readonly label?: string;
	/** What its values are called in words; of a choice, all that it can be. */
	readonly words?: readonly ValueWords[];
}

/** Words by language tag (BCP 47). */
export type Words = Readonly<Record<string, string>>;

/** What a value of a field is called: an option of a choice, yes or no, a number or all between two of them. */
export interface ValueWords {
	readonly is?: string | number | boolean;
	/** Numbers, both included; without one of them there is no end there. */
	readonly from?: number;
	readonly to?: number;
	/** `{n}` in them stands for the number. */
	readonly words: Words;
}

/** One source in a picture rule, tried in the order given (R6). */
export type PictureSource =
	| { readonly from: 'file'; readonly src: string; readonly alt?: string }
	| { readonly from: 'field'; readonly name: string }
	/** `composed` is the share picture made from the page by its type's layout. */
	| { readonly from: 'lead' | 'body' | 'author' | 'type' | 'site' | 'composed' };

/** The limits a picture has to meet. Widths and heights in pixels; shapes as width divided by height. */
export interface PictureLimits {
	readonly minWidth?: number;
	readonly minHeight?: number;
	readonly minShape?: number;
	readonly maxShape?: number;
}

/** What a layer says about one tag. No rule at all is the fourth answer: nothing. */
export type RuleBody =
	| { readonly kind: 'template'; readonly template: string }
	| { readonly kind: 'borrow'; readonly from: string; readonly shapes?: readonly Shape[] }
	| { readonly kind: 'leaveOut' }
	| {
			readonly kind: 'pictures';
			readonly sources: readonly PictureSource[];
			readonly count?: number;
			readonly limits?: PictureLimits;
			/** What each is cut to, in this order, where the library holds it; whole without any. */
			readonly shapes?: readonly Shape[];
	  };

export type Rule = RuleBody & {
	readonly tag: string;
	/** The language tag the rule is for (BCP 47); without it, the rule is for any language. */
	readonly language?: string;
};

/** Which families of tags a layer switches on or off; a family not named is left to the next layer (R8). */
export interface Families {
	readonly og?: boolean;
	readonly twitter?: boolean;
}

export type Fields = Readonly<Record<string, FieldValue>>;

/** Raw markup put before or after the tags that the rules make. */
export interface ExtraMarkup {
	readonly before?: string;
	readonly after?: string;
}

/** A path, with all that stands under it, that robots are to leave alone: all of them, or one by its name. */
export interface ClosedPath {
	readonly robot?: string;
	readonly path: string;
}

export interface Site {
	readonly name: string;
	/** The public base address: absolute, http or https. Paths of pages and pictures stand under it. */
	readonly base: string;
	/** Language tags, the default first. */
	readonly languages: readonly string[];
	readonly separator: string;
	/** What `{site.…}` gives: tagline, description, picture, logo, publisher, handle, … */
	readonly fields: Fields;
	/** The same fields in other languages, by language tag. */
	readonly translations?: Readonly<Record<string, Fields>>;
	/** Words of its own by name: what templates in all languages say alike, such as “Book now”. */
	readonly words?: Readonly<Record<string, Words>>;
	/** Templates with a name, that others use. */
	readonly pieces?: Readonly<Record<string, string>>;
	readonly families?: Families;
	readonly rules: readonly Rule[];
	/** Leave out Twitter card tags that say the same as their Open Graph twin. */
	readonly lean?: boolean;
	/** What robots.txt closes (RFC 9309). */
	readonly robots?: readonly ClosedPath[];
	/** Where dates without an offset are meant: a name of the IANA time zone database. UTC without one. */
	readonly timeZone?: string;
	/** So many of the newest releases are kept, at least two; all without it. */
	readonly keepReleases?: number;
	/** Shown to nobody without a right to it: what is delivered asks for one, and every head says noindex. */
	readonly private?: boolean;
	/** Whether editors may release, too; only where there are people. */
	readonly editorsRelease?: boolean;
	/** Prefixes of custom tags and the namespace each stands for. */
	readonly prefixes?: Readonly<Record<string, string>>;
	readonly extra?: ExtraMarkup;
	/** Its colours and type, for share pictures. */
	readonly look?: Look;
	readonly foundPolicy?: FoundPolicies;
	/** Counted when content comes in; see `countFrames`. */
	readonly frames?: readonly FrameValue[];
}

export const SPECIAL_KINDS = ['home', 'listing', 'not-found'] as const;

export interface ContentType {
	readonly name: string;
	readonly label?: string;
	/** What one of its pages is called, and several. */
	readonly names?: { readonly one?: Words; readonly many?: Words };
	/** Templates with a name, that others of the type use; they go before the site's. */
	readonly pieces?: Readonly<Record<string, string>>;
	/** What `og:type` says for its pages. */
	readonly kind?: string;
	readonly special?: (typeof SPECIAL_KINDS)[number];
	/** Switched off: its pages are left out of releases, and nothing is written into them. */
	readonly off?: boolean;
	readonly fields: readonly Field[];
	/** The type's default picture. */
	readonly picture?: PictureMention;
	/** Other defaults for some of its pages: by what a field of theirs says, such as the category of a listing. */
	readonly pictureBy?: { readonly field: string; readonly pictures: Readonly<Record<string, PictureMention>> };
	/** How its share pictures are made. */
	readonly layout?: ShareLayout;
	/** The mark for video is laid over its pictures. */
	readonly playMark?: boolean;
	/** Where its fields stand in records of live data: each by a JSON Pointer (RFC 6901) or a JSONPath (RFC 9535). */
	readonly mapping?: Readonly<Record<string, string>>;
	/** Where records of pages are that stand nowhere: their heads are made when they are asked for. */
	readonly source?: DataSource;
	readonly families?: Families;
	readonly foundPolicy?: FoundPolicies;
	readonly rules: readonly Rule[];
	readonly extra?: ExtraMarkup;
}

/** A source of live data: which pages it has, and where the record of each is. */
export interface DataSource {
	/** The paths of its pages, such as `/boats/{id}`: each name stands for something without a slash. */
	readonly path: string;
	/** The address of a page's record in JSON, with the same names, such as `https://data.example/boats/{id}.json`. */
	readonly address: string;
	/** Paths of some of them, for trying templates on. */
	readonly samples?: readonly string[];
}

/** A tag found in the head of a page as it was before Kephalon; a candidate of its own, below the page's rules (R13). */
export interface FoundTag {
	readonly name: string;
	readonly value: string;
	/** Attributes beside the name and the value, such as the `hreflang` of an alternate. */
	readonly attributes?: Readonly<Record<string, string>>;
}

/**
 * Whether what a page's own file said of a tag is taken (R13): before its type's rules, only where no rule speaks, or
 * not at all.
 */
export const FOUND_POLICIES = ['keep', 'last', 'never'] as const;
export type FoundPolicy = (typeof FOUND_POLICIES)[number];

/** What a layer says of found values: of all tags, or of one by name, which goes before. */
export interface FoundPolicies {
	readonly all?: FoundPolicy;
	readonly tags?: Readonly<Record<string, FoundPolicy>>;
}

/** A found value that stands on so many pages in a language that it is the frame's and no page's own (R13). */
export interface FrameValue {
	readonly tag: string;
	readonly value: string;
	/** The language of the pages it stands on. */
	readonly language: string;
	/** On how many of them it stood when they were counted. */
	readonly pages: number;
	/** The value is a formula: `*` stands for one word or more. */
	readonly formula?: boolean;
}

export const PAGE_STATES = ['live', 'draft', 'private'] as const;
export type PageState = (typeof PAGE_STATES)[number];

/** What a listing page lists: its name, which of its pages this is, and how many there are. */
export interface Listing {
	readonly title?: string;
	readonly number?: number;
	readonly pages?: number;
	readonly count?: number;
}

export interface Page {
	/** Begins with a slash; unique in its site. */
	readonly path: string;
	readonly type: string;
	readonly language?: string;
	readonly state: PageState;
	/** When the content last changed, ISO 8601. */
	readonly modified?: string;
	/** Hidden from search: the built-in robots rule says `noindex`. */
	readonly hidden?: boolean;
	/** Whether the mark for video is laid over its pictures; else its type says. */
	readonly playMark?: boolean;
	/** A page that matters most: it is checked first. */
	readonly key?: boolean;
	/** What tags came to when they were pinned, by tag: another value is told. */
	readonly pinned?: Readonly<Record<string, string>>;
	/** The phrase that people should find it by; title and description are checked for it. */
	readonly target?: string;
	readonly fields: Fields;
	/** Names of fields that somebody wrote here: a later reading of what the page came from leaves them as they are. */
	readonly held?: readonly string[];
	readonly listing?: Listing;
	/** Paths of the same page in other languages, by language tag. */
	readonly alternates?: Readonly<Record<string, string>>;
	readonly families?: Families;
	readonly foundPolicy?: FoundPolicies;
	readonly rules: readonly Rule[];
	readonly extra?: ExtraMarkup;
	readonly found?: readonly FoundTag[];
	/** What was read out of the body before, in which language: so long as that is the page's, the body is not read. */
	readonly reading?: BodyReading;
}

export interface BodyReading {
	readonly opening: string;
	readonly language: string;
}

/** A field whose label is said in the language that is spoken when it is asked for. */
const builtIn = (name: string, kind: FieldKind, label: string): Field => ({
	...{ name, kind },
	get label() {
		return labelled(label);
	}
});

/** Fields that every page has, whatever its type declares. */
export const PAGE_FIELDS: readonly Field[] = [
	builtIn('title', 'text', 'Title'),
	builtIn('heading', 'text', 'First heading'),
	builtIn('short', 'text', 'Short name, as in a navigation'),
	builtIn('summary', 'text', 'Summary'),
	builtIn('body', 'rich', 'Body'),
	builtIn('picture', 'picture', 'Lead picture'),
	builtIn('pictures', 'pictures', 'Pictures in the body'),
	builtIn('author', 'person', 'Author'),
	builtIn('tags', 'list', 'Tags'),
	builtIn('section', 'text', 'Section'),
	builtIn('published', 'date', 'Published')
];

/** What else `{page.…}` offers, worked out from the page itself. */
export const PAGE_FACTS: readonly Field[] = [
	builtIn('path', 'text', 'Path'),
	builtIn('address', 'link', 'Public address'),
	builtIn('language', 'text', 'Language'),
	builtIn('modified', 'date', 'Last changed'),
	builtIn('minutes', 'number', 'Minutes to read the body'),
	builtIn('parent', 'page', 'The page above it'),
	builtIn('original', 'page', 'The same page in the first language'),
	builtIn('top', 'page', 'The page at the top of its section'),
	builtIn('way', 'pages', 'The pages above it, from the top down'),
	builtIn('below', 'pages', 'The pages directly below it'),
	builtIn('profile', 'page', 'The page of its author')
];

export const SITE_FIELDS: readonly Field[] = [
	{ name: 'name', kind: 'text', label: 'Name of the site' },
	{ name: 'base', kind: 'link', label: 'Public base address' },
	{ name: 'language', kind: 'text', label: 'First language' },
	{ name: 'tagline', kind: 'text', label: 'Tagline' },
	{ name: 'description', kind: 'text', label: 'One-line description' },
	{ name: 'publisher', kind: 'text', label: 'Publisher' },
	{ name: 'handle', kind: 'text', label: 'Account' },
	{ name: 'picture', kind: 'picture', label: 'Share picture' },
	{ name: 'logo', kind: 'picture', label: 'Logo' },
	{ name: 'icon', kind: 'picture', label: 'Icon' }
];

export const TYPE_FIELDS: readonly Field[] = [
	{ name: 'name', kind: 'text', label: 'Type, as files and addresses name it' },
	{ name: 'label', kind: 'text', label: 'What one of them is called' },
	{ name: 'kind', kind: 'text', label: 'Kind (og:type)' },
	{ name: 'one', kind: 'text', label: 'One of them, in the page’s language' },
	{ name: 'many', kind: 'text', label: 'Several of them, in the page’s language' }
];

export const LISTING_FIELDS: readonly Field[] = [
	{ name: 'title', kind: 'text', label: 'What the listing lists' },
	{ name: 'number', kind: 'number', label: 'Which page of the listing' },
	{ name: 'pages', kind: 'number', label: 'How many pages the listing has' },
	{ name: 'count', kind: 'number', label: 'How many it lists in all' }
];

/** Sub-names of fields that hold a record, each with its name in words. */
export const RECORD_PARTS: Readonly<Partial<Record<FieldKind, Readonly<Record<string, string>>>>> = {
	picture: { src: 'its path or address', alt: 'its words (alt text)' },
	person: { name: 'name', handle: 'account', address: 'address', picture: 'picture' },
	page: {
		title: 'title',
		short: 'short name',
		summary: 'summary',
		section: 'section',
		address: 'address',
		picture: 'picture'
	}
};
