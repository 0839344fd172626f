import type { Issue, IssueCode } from '../issue';
import { isSpace } from '../text/text';
import type { Argument, FilterCall, OptionalNode, TemplateNode, Term, VariableTerm } from './ast';

/** The most characters (UTF-16 code units) a template may have. */
const MAX_LENGTH = 2000;
/** How deep optional stretches may nest. */
const MAX_DEPTH = 8;

export interface ParsedTemplate {
	readonly source: string;
	readonly nodes: readonly TemplateNode[];
	/** In the order of their places. A template with an error among them does not run. */
	readonly issues: readonly Issue[];
}

/**
 * Reads a template. Never throws: what is wrong is collected, and reading goes on behind it.
 * The grammar stands in docs/template-language.md.
 */
export function parseTemplate(source: string): ParsedTemplate {
	const cursor = new Cursor(source);
	if (source.length > MAX_LENGTH) {
		cursor.report('template/too-long', 0, source.length, { seen: String(source.length), expected: String(MAX_LENGTH) });
		return { source, nodes: [], issues: cursor.issues };
	}
	const nodes = parseNodes(cursor, 0);
	return { source, nodes, issues: cursor.issues };
}

/** A place in the source, and the few moves that everything else is made of. */
class Cursor {
	at = 0;
	/** How many escaped braces are open. */
	plainBraces = 0;
	readonly issues: Issue[] = [];
	constructor(readonly source: string) {}

	get done() {
		return this.at >= this.source.length;
	}
	get char() {
		return this.source[this.at] ?? '';
	}
	match(text: string) {
		return this.source.startsWith(text, this.at);
	}
	eat(text: string) {
		if (!this.match(text)) return false;
		this.at += text.length;
		return true;
	}
	readWhile(test: (char: string) => boolean) {
		const start = this.at;
		while (!this.done && test(this.char)) this.at++;
		return this.source.slice(start, this.at);
	}
	skipSpace() {
		this.readWhile((char) => isSpace(char.charCodeAt(0)));
	}
	report(code: IssueCode, start: number, end: number, more: Partial<Issue> = {}) {
		const severity = code === 'template/stray-close' || code === 'template/trailing-escape' ? 'warning' : 'error';
		this.issues.push({ code, severity, start, end, ...more });
	}
}

function parseNodes(cursor: Cursor, depth: number): TemplateNode[] {
	const nodes: TemplateNode[] = [];
	while (!cursor.done) {
		if (cursor.match(']]') && depth > 0) return nodes;
		if (cursor.match('[[')) nodes.push(parseStretches(cursor, depth + 1));
		else if (cursor.match('{')) nodes.push(...parsePlaceholder(cursor));
		else nodes.push(parseText(cursor, depth));
	}
	return nodes;
}

function parseText(cursor: Cursor, depth: number): TemplateNode {
	const start = cursor.at;
	let text = '';
	while (!cursor.done && !cursor.match('{') && !cursor.match('[[')) {
		if (cursor.match(']]')) {
			if (depth > 0) break;
			cursor.report('template/stray-close', cursor.at, cursor.at + 2, { seen: ']]' });
			text += ']]';
			cursor.at += 2;
			continue;
		}
		if (cursor.char === '}') {
			// A brace that was opened as plain text is closed as plain text.
			if (cursor.plainBraces > 0) cursor.plainBraces--;
			else cursor.report('template/stray-close', cursor.at, cursor.at + 1, { seen: '}' });
		} else if (cursor.eat('\\') && cursor.match('{')) cursor.plainBraces++;
		else if (cursor.done) {
			cursor.report('template/trailing-escape', cursor.at - 1, cursor.at);
			text += '\\';
			break;
		}
		text += cursor.char;
		cursor.at++;
	}
	return { kind: 'text', text, start, end: cursor.at };
}

/** A stretch, or several of which the first that prints is taken. */
function parseStretches(cursor: Cursor, depth: number): TemplateNode {
	const first = parseOptional(cursor, depth);
	const options = [first];
	while (eatOr(cursor)) options.push(parseOptional(cursor, depth));
	return options.length === 1 ? first : { kind: 'choice', options, start: first.start, end: cursor.at };
}

/** `{or}` with another stretch behind it; white space on either side is not printed. */
function eatOr(cursor: Cursor): boolean {
	const start = cursor.at;
	cursor.skipSpace();
	if (cursor.eat('{')) {
		cursor.skipSpace();
		const isOr = cursor.readWhile(isNameChar) === 'or';
		cursor.skipSpace();
		if (isOr && cursor.eat('}')) {
			cursor.skipSpace();
			if (cursor.match('[[')) return true;
		}
	}
	cursor.at = start;
	return false;
}

function parseOptional(cursor: Cursor, depth: number): OptionalNode {
	const start = cursor.at;
	cursor.eat('[[');
	if (depth === MAX_DEPTH + 1) cursor.report('template/too-deep', start, start + 2, { expected: String(MAX_DEPTH) });
	const nodes = parseNodes(cursor, depth);
	if (!cursor.eat(']]')) cursor.report('template/unclosed-optional', start, start + 2);
	return { kind: 'optional', nodes, start, end: cursor.at };
}

const isNameStart = (char: string) => /[a-z_]/i.test(char);
const isNameChar = (char: string) => /[\w.:-]/.test(char);

/** A placeholder, or nothing when it could not be read: then the cursor stands behind its closing brace. */
function parsePlaceholder(cursor: Cursor): TemplateNode[] {
	const start = cursor.at;
	cursor.eat('{');
	cursor.skipSpace();
	if (cursor.match('}')) {
		cursor.at++;
		cursor.report('template/empty-placeholder', start, cursor.at);
		return [];
	}
	const word = parseWord(cursor, start);
	if (word) return [word];
	const terms = parseTerms(cursor);
	const filters = terms && parseFilters(cursor);
	const asks = terms !== undefined && filters !== undefined && cursor.eat('?');
	if (asks) cursor.skipSpace();
	if (!terms || !filters || !cursor.eat('}')) {
		if (terms && filters) unexpected(cursor, start, asks ? '"}"' : '"??", "|", "?" or "}"');
		skipToClose(cursor);
		return [];
	}
	return [{ kind: 'placeholder', terms, filters, asks, start, end: cursor.at }];
}

/** The words of the language that stand alone in braces: `separator`, `fit 60`, `fit 580 px`, `goes 1`. A longer name is a variable's. */
function parseWord(cursor: Cursor, start: number): TemplateNode | undefined {
	const before = cursor.at;
	const word = cursor.readWhile(isNameChar);
	cursor.skipSpace();
	if (word === 'separator' && cursor.eat('}')) return { kind: 'separator', start, end: cursor.at };
	if (word === 'fit' || word === 'goes') {
		const count = Number(cursor.readWhile(isDigit));
		cursor.skipSpace();
		const isPixels = word === 'fit' && cursor.eat('px');
		cursor.skipSpace();
		if (count > 0 && cursor.eat('}'))
			return word === 'fit'
				? { kind: 'fit', limit: count, by: isPixels ? 'pixels' : 'characters', start, end: cursor.at }
				: { kind: 'goes', turn: count, start, end: cursor.at };
	}
	cursor.at = before;
	return undefined;
}

const isDigit = (char: string) => /[0-9]/.test(char);

function unexpected(cursor: Cursor, open: number, expected: string): undefined {
	if (cursor.done || cursor.match('{')) cursor.report('template/unclosed-placeholder', open, open + 1);
	else {
		const word = /^([\w.:-]+|[\s\S])/.exec(cursor.source.slice(cursor.at, cursor.at + 60))?.[0] ?? '';
		cursor.report('template/unexpected', cursor.at, cursor.at + word.length, { seen: word, expected });
	}
}

/** Moves behind the brace that closes this placeholder, so that what follows is still read. */
function skipToClose(cursor: Cursor) {
	cursor.readWhile((char) => char !== '}' && char !== '{');
	cursor.eat('}');
}

function parseTerms(cursor: Cursor): Term[] | undefined {
	const open = cursor.source.lastIndexOf('{', cursor.at);
	const terms: Term[] = [];
	do {
		cursor.skipSpace();
		const term = parseTerm(cursor);
		if (term === 'unclosed') return undefined;
		if (!term) return unexpected(cursor, open, 'a variable or a text in quotation marks');
		terms.push(term);
		cursor.skipSpace();
	} while (cursor.eat('??'));
	return terms;
}

function parseTerm(cursor: Cursor): Term | 'unclosed' | undefined {
	const start = cursor.at;
	if (cursor.char === '"') {
		const value = parseString(cursor);
		return value === undefined ? 'unclosed' : { kind: 'string', value, start, end: cursor.at };
	}
	return isNameStart(cursor.char) ? parseVariable(cursor) : undefined;
}

function parseVariable(cursor: Cursor): VariableTerm {
	const start = cursor.at;
	const name = cursor.readWhile(isNameChar);
	const [root = '', ...path] = name.split('.');
	// A tag's own name may hold colons and is one step, whatever stands in it.
	return {
		kind: 'variable',
		name,
		root,
		path: root === 'head' ? [path.join('.')] : path,
		start,
		end: cursor.at
	};
}

/** The text between quotation marks, or undefined when the second one is missing (reported). */
function parseString(cursor: Cursor): string | undefined {
	const start = cursor.at;
	cursor.eat('"');
	let value = '';
	while (!cursor.done && cursor.char !== '"') {
		cursor.eat('\\');
		value += cursor.char;
		cursor.at++;
	}
	if (cursor.eat('"')) return value;
	cursor.report('template/unclosed-string', start, start + 1);
	return undefined;
}

function parseFilters(cursor: Cursor): FilterCall[] | undefined {
	const open = cursor.source.lastIndexOf('{', cursor.at);
	const filters: FilterCall[] = [];
	cursor.skipSpace();
	while (cursor.eat('|')) {
		cursor.skipSpace();
		const start = cursor.at;
		const name = isNameStart(cursor.char) ? cursor.readWhile((char) => /[\w-]/.test(char)) : '';
		if (!name) return unexpected(cursor, open, 'the name of a filter');
		const end = cursor.at;
		const args = parseArguments(cursor);
		if (!args) return undefined;
		filters.push({ name, args, start, end });
	}
	return filters;
}

function parseArguments(cursor: Cursor): Argument[] | undefined {
	const args: Argument[] = [];
	for (;;) {
		cursor.skipSpace();
		const start = cursor.at;
		if (cursor.char === '"') {
			const value = parseString(cursor);
			if (value === undefined) return undefined;
			args.push({ kind: 'literal', value, start, end: cursor.at });
		} else if (isDigit(cursor.char)) {
			const digits = cursor.readWhile(isDigit);
			args.push({ kind: 'literal', value: Number(digits), start, end: cursor.at });
		} else if (isNameStart(cursor.char)) args.push(parseVariable(cursor));
		else return args;
	}
}
