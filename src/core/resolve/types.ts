import type { TagDefinition } from '../catalogue/types';
import type { Recipe } from '../pictures/layout';
import type { ExtraMarkup, Layer, Picture, RuleBody } from '../model';

/** A picture that won, with the facts that travel with it (R6). */
export interface ChosenPicture {
	/** Absolute address. */
	readonly address: string;
	readonly secure: string | undefined;
	readonly type: string | undefined;
	/** Pixels; both or neither are known. */
	readonly width: number | undefined;
	readonly height: number | undefined;
	readonly alt: string | undefined;
	/** The key it is known by in the site's pictures. */
	readonly src: string;
	/** What a share picture is drawn from. */
	readonly recipe?: Recipe;
}

/** A value with attributes of its own, such as the language of an alternate. */
export interface Attributed {
	readonly value: string;
	readonly attributes: Readonly<Record<string, string>>;
}

/** What a tag came to. One text in the common case; a list for repeated tags, pictures and links with attributes. */
export type TagValue = string | readonly (string | ChosenPicture | Attributed)[];

/** One tag of a head, ready to be written. */
export interface HeadTag {
	readonly tag: TagDefinition;
	readonly value: string;
	readonly attributes: Readonly<Record<string, string>> | undefined;
}

/** A tag on its way out, with what is asked of it for every page. */
export interface Step {
	/** Its place in the plan. */
	readonly index: number;
	readonly tag: TagDefinition;
	/** The place of the tag it belongs to; negative: see `NO_PARENT`. */
	readonly parent: number;
	/** The place of the tag whose text it mostly repeats, or its own. */
	readonly kin: number;
	/** Its text, where that is the same on all pages. */
	readonly same: string | undefined;
	readonly isOg: boolean;
	readonly isTwitter: boolean;
	/** It is written with its picture, not by itself. */
	readonly goesWithPicture: boolean;
}

/** Takes a head's tags as they come, in the order of output. */
export interface TagSink {
	/** Extra markup of the page's own, one element each. */
	markup(where: keyof ExtraMarkup, elements: readonly string[]): void;
	tag(tag: TagDefinition, value: string, attributes: HeadTag['attributes']): void;
	/** A tag of one text without attributes, as nearly all are. */
	text(step: Step, value: string): void;
}

/** The head of one page. */
export interface Head {
	/** What the html element itself should say. */
	readonly html: { readonly lang: string; readonly prefix?: string };
	/** In the order of output. */
	readonly tags: readonly HeadTag[];
	/** Raw markup of the page's own, parsed and limited to what a head may hold. */
	readonly before: readonly string[];
	readonly after: readonly string[];
}

/** Why a picture source was passed over. */
export type PictureMiss =
	| { readonly why: 'missing' }
	| { readonly why: 'no-layout' }
	| {
			readonly why: 'not-http' | 'drawing' | 'repeated' | 'mark' | 'too-narrow' | 'too-low' | 'wrong-shape';
			readonly picture: Picture;
			readonly limit?: number;
	  };

export type SkippedSource = PictureMiss & { readonly source: string };

/** What became of one candidate. */
export type Outcome =
	| { readonly kind: 'won'; readonly skipped?: readonly SkippedSource[] }
	/** It rendered to nothing; these variables were empty. */
	| { readonly kind: 'empty'; readonly variables: readonly string[] }
	| { readonly kind: 'borrowed-nothing'; readonly from: string }
	| { readonly kind: 'left-out' }
	/** It borrows in a circle of these tags. */
	| { readonly kind: 'loop'; readonly tags: readonly string[] }
	/** It came to something that the tag cannot carry. */
	| { readonly kind: 'illegal'; readonly value: string; readonly expected: string }
	| { readonly kind: 'too-long'; readonly length: number }
	/** The template cannot be read. */
	| { readonly kind: 'broken'; readonly message: string }
	| { readonly kind: 'no-picture'; readonly skipped: readonly SkippedSource[] }
	/** Something before it won or ended the search. */
	| { readonly kind: 'not-reached' };

export interface TraceStep {
	readonly layer: Layer;
	readonly language?: string;
	readonly rule: RuleBody | { readonly kind: 'built-in'; readonly says: string };
	readonly outcome: Outcome;
}

/** Why a tag that came to something is not in the head. */
export type Withheld =
	| { readonly kind: 'family-off'; readonly layer: Layer }
	| { readonly kind: 'no-parent'; readonly parent: string }
	| { readonly kind: 'same-as-twin'; readonly twin: string };

/** For one tag of one page: every candidate, in order, and what became of it (R12). */
export interface Trace {
	readonly tag: string;
	/** What it came to; undefined for nothing. */
	readonly value: TagValue | undefined;
	readonly steps: readonly TraceStep[];
	/** The index of the step that won, or -1. */
	readonly winner: number;
	/** A value set in a more specific layer for the tag that the built-in would have borrowed from (R3). */
	readonly passedOver?: { readonly tag: string; readonly layer: Layer };
	readonly withheld?: Withheld;
}
