import { defaultTreeAdapter, Parser, type DefaultTreeAdapterMap, type ParserOptions } from 'parse5';
import type { DefaultTreeAdapterTypes as Tree } from 'parse5';

/**
 * Markup from outside, read as a browser would build it, in time and memory that grow with its length alone: a few
 * thousand letters can ask for millions of elements, or nest deeper than anything that walks them. What lies beyond the
 * limits is not built; what was read until then stands.
 */

/** Elements that are built of one document. */
export const MOST_ELEMENTS = 100_000;
/** How deep they stand in each other, as in browsers. */
export const MOST_DEPTH = 512;

/** Thrown to end the reading. */
const ENOUGH = new Error('A page of more elements than are read.');

class BoundedParser extends Parser<DefaultTreeAdapterMap> {
	/** The elements whose places are noted, where only some are asked for: places take more memory than all else. */
	placed: ReadonlySet<string> | undefined;

	override onStartTag(token: Parameters<Parser<DefaultTreeAdapterMap>['onStartTag']>[0]) {
		if (this.placed && !this.placed.has(token.tagName)) token.location = null;
		// Deeper ones are left out, and what they hold stands in the deepest.
		if (this.openElements.stackTop < MOST_DEPTH) super.onStartTag(token);
	}

	/** Where text stands is not noted: nobody asks, and it is most of a page. */
	override _insertCharacters(token: Parameters<Parser<DefaultTreeAdapterMap>['_insertCharacters']>[0]) {
		token.location = null;
		super._insertCharacters(token);
	}

	read(html: string): this {
		try {
			this.tokenizer.write(html, true);
		} catch (error) {
			if (error !== ENOUGH) throw error;
		}
		return this;
	}
}

function optionsWith(more: ParserOptions<DefaultTreeAdapterMap>): ParserOptions<DefaultTreeAdapterMap> {
	let count = 0;
	const createElement: typeof defaultTreeAdapter.createElement = (...said) => {
		if (++count > MOST_ELEMENTS) throw ENOUGH;
		return defaultTreeAdapter.createElement(...said);
	};
	return { ...more, treeAdapter: { ...defaultTreeAdapter, createElement } };
}

/** A whole document. Accepts any string. `placed`: the elements whose places are noted, where places are asked for. */
export function parseDocument(
	html: string,
	options: ParserOptions<DefaultTreeAdapterMap> = {},
	placed?: ReadonlySet<string>
): Tree.Document {
	const parser = new BoundedParser(optionsWith(options));
	parser.placed = placed;
	return parser.read(html).document;
}

/** A piece of one. Accepts any string. */
export function parsePiece(html: string): Tree.DocumentFragment {
	const parser = BoundedParser.getFragmentParser<DefaultTreeAdapterMap>(null, optionsWith({})) as BoundedParser;
	return parser.read(html).getFragment();
}
