import type { Issue } from '../issue';
import type { Layer, Picture, RuleBody } from '../model';
import type { TagValue } from './value';

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
	| { readonly kind: 'broken'; readonly issue: Issue; readonly source: string }
	/** A filter of the template is unknown, or has arguments that it cannot take. */
	| { readonly kind: 'cannot-run'; readonly filter: string; readonly issue: Issue; readonly source: string }
	/** The rule is not of a form that is known: data that no check has seen. */
	| { readonly kind: 'failed' }
	| { readonly kind: 'no-picture'; readonly skipped: readonly SkippedSource[] }
	/** A found value that stands on so many pages that it is the frame's and not the page's (R13). */
	| { readonly kind: 'frame'; readonly pages: number }
	/** A found description that says the page's title and nothing more. */
	| { readonly kind: 'repeats-title' }
	/** A found value that a layer says is not to be taken (R13). */
	| { readonly kind: 'set-aside'; readonly layer: Layer }
	/** Something before it won or ended the search. */
	| { readonly kind: 'not-reached' };

/** What the built-in layer can say; each is worded in `describe.ts`. */
export type BuiltInName =
	| 'page-title'
	| 'site-name'
	| 'path'
	| 'page-summary'
	| 'body-opening'
	| 'page-author'
	| 'page-address'
	| 'hidden'
	| 'private-site'
	| 'other-versions'
	| 'site-icon'
	| 'square-icon'
	| 'icon-manifest'
	| 'borrow'
	| 'type-kind'
	| 'page-language'
	| 'other-languages'
	| 'page-pictures'
	| 'page-published'
	| 'page-modified'
	| 'author-address'
	| 'page-section'
	| 'page-tags'
	| 'picture-size'
	| 'site-handle'
	| 'author-handle'
	| 'picture-alt';

/** What a step of a trace would use: a rule, what was found in the page's own file, or a built-in. */
type Source =
	| RuleBody
	| { readonly kind: 'found'; readonly value: string }
	| { readonly kind: 'built-in'; readonly name: BuiltInName; readonly from?: string };

export interface TraceStep {
	readonly layer: Layer;
	readonly language?: string;
	readonly rule: Source;
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
