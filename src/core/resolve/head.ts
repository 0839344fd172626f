import type { TagDefinition } from '../catalogue/types';
import type { ExtraMarkup } from '../model';
import type { Step } from './plan';

/** One tag of a head, ready to be written. */
export interface HeadTag {
	readonly tag: TagDefinition;
	readonly value: string;
	readonly attributes: Readonly<Record<string, string>> | undefined;
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

/**
 * Takes a head's tags as they come, in the order of output. One that writes gives what it writes for each, to be put
 * together by the one who hands them on; one that gathers gives ''.
 */
export interface TagSink {
	/** Extra markup of the page's own, one element each. */
	markup(where: keyof ExtraMarkup, elements: readonly string[]): string;
	tag(tag: TagDefinition, value: string, attributes: HeadTag['attributes']): string;
	/** A tag of one text without attributes, as nearly all are. */
	text(step: Step, value: string): string;
	/** The same for one that comes to the same on all pages of the plan. */
	constant(step: Step, value: string): string;
}

/** Gathers tags to a head. */
export class CollectedHead implements Head, TagSink {
	readonly tags: HeadTag[] = [];
	readonly before: string[] = [];
	readonly after: string[] = [];

	constructor(readonly html: Head['html']) {}

	markup(where: keyof ExtraMarkup, elements: readonly string[]) {
		this[where].push(...elements);
		return '';
	}

	text({ tag }: Step, value: string) {
		return this.tag(tag, value, undefined);
	}

	constant({ tag }: Step, value: string) {
		return this.tag(tag, value, undefined);
	}

	tag(tag: TagDefinition, value: string, attributes: HeadTag['attributes']) {
		this.tags.push({ tag, value, attributes });
		return '';
	}
}
