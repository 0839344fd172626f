import {
	defaultTreeAdapter,
	InsertionMode,
	Parser,
	Token,
	Tokenizer,
	TokenizerMode,
	type DefaultTreeAdapterMap,
	type ParserOptions,
	type TokenizerOptions
} from 'parse5';
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

/** Letters from here on may be halves of pairs (UTF-16). */
const PAIRS = 0xd800;
const [SPACE, QUOTE, AMPERSAND, APOSTROPHE] = [0x20, 0x22, 0x26, 0x27];
const [LESS, EQUALS, GREATER, BACKTICK] = [0x3c, 0x3d, 0x3e, 0x60];
const isPlain = (code: number) => code > SPACE && code < PAIRS && code !== LESS && code !== AMPERSAND;
const isPlainInValue = (code: number) =>
	isPlain(code) && code !== QUOTE && code !== APOSTROPHE && code !== EQUALS && code !== GREATER && code !== BACKTICK;

/** Where letters that mean nothing to markup are text, and nothing else. */
const TEXT_STATES: ReadonlySet<number> = new Set([
	TokenizerMode.DATA,
	TokenizerMode.RCDATA,
	TokenizerMode.RAWTEXT,
	TokenizerMode.SCRIPT_DATA
]);
/** Where white space after a letter goes where the letter went (HTML standard, 13.2.6.4.7, 8, 11 and 15). */
const SPACED_MODES: ReadonlySet<InsertionMode> = new Set([
	InsertionMode.IN_BODY,
	InsertionMode.TEXT,
	InsertionMode.IN_CAPTION,
	InsertionMode.IN_CELL
]);

/** Takes runs of letters in one step: they are most of a page, and each is a step of its own else. */
class RunningTokenizer extends Tokenizer {
	constructor(
		options: TokenizerOptions,
		private readonly parser: Parser<DefaultTreeAdapterMap>
	) {
		super(options, parser);
	}

	protected override _emitCodePoint(code: number) {
		super._emitCodePoint(code);
		if (!TEXT_STATES.has(this.state)) return;
		const { preprocessor, parser, currentCharacterToken: token } = this;
		const { html } = preprocessor;
		let at = preprocessor.pos + 1;
		if (token?.type === Token.TokenType.WHITESPACE_CHARACTER) {
			// What follows the end of a line is told of a new one.
			if (code === SPACE) while (at < html.length && html.charCodeAt(at) === SPACE) at++;
		} else if (token?.type === Token.TokenType.CHARACTER) {
			const takesSpaces = SPACED_MODES.has(parser.insertionMode) || this.inForeignNode;
			for (; at < html.length; at++) {
				const next = html.charCodeAt(at);
				if (!isPlain(next) && !(takesSpaces && next === SPACE)) break;
			}
		} else return;
		this.runTo(at);
	}

	protected override _extendRun(code: number) {
		super._extendRun(code);
		if (this.currentToken?.type !== Token.TokenType.START_TAG) return;
		const { html, pos } = this.preprocessor;
		let at = pos + 1;
		while (at < html.length && isPlainInValue(html.charCodeAt(at))) at++;
		this.runTo(at);
	}

	/** Takes all before a place in the text to what is being built, which ends with the letter that was taken last. */
	private runTo(at: number) {
		this.consumedAfterSnapshot += at - 1 - this.preprocessor.pos;
		this.preprocessor.pos = at - 1;
		this.runEnd = at;
	}
}

class BoundedParser extends Parser<DefaultTreeAdapterMap> {
	override tokenizer: Tokenizer = new RunningTokenizer(this.options, this);
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
