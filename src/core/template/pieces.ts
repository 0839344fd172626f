import type { VariableTerm } from './ast';
import { variablesIn } from './nodes';
import { parseTemplate } from './parse';

/** Templates with a name, that others use by it. A list of them is never changed in place. */
export type Pieces = ReadonlyMap<string, string>;
export const NO_PIECES: Pieces = new Map();

/** So many pieces, each as often as it is used, with those that they use, stand in one template at the most. */
export const MOST_PIECES = 200;

/** The uses of pieces in a template, in their order. */
const piecesIn = (source: string): VariableTerm[] =>
	variablesIn(parseTemplate(source).nodes).filter(({ root }) => root === 'piece');
export const nameOfPiece = ({ path }: VariableTerm) => path.join('.');

/** What is known of a list of pieces. */
interface Book {
	readonly uses: ReadonlyMap<string, readonly string[]>;
	/** How many pieces stand in one, itself counted; undefined for one that leads back to itself. */
	readonly sizes: Map<string, number | undefined>;
}
const books = new WeakMap<Pieces, Book>();

function bookOf(pieces: Pieces): Book {
	let book = books.get(pieces);
	if (!book) {
		const uses = new Map([...pieces].map(([name, source]) => [name, piecesIn(source).map(nameOfPiece)]));
		books.set(pieces, (book = { uses, sizes: new Map<string, number | undefined>() }));
	}
	return book;
}

/**
 * How many pieces one comes to, itself counted, at most one more than may stand in a template. Undefined where there is none of
 * the name, and for one that leads back to itself: it comes to nothing, wherever it is used.
 */
export function sizeOfPiece(pieces: Pieces, name: string): number | undefined {
	const { uses, sizes } = bookOf(pieces);
	if (!uses.has(name)) return undefined;
	if (!sizes.has(name)) {
		sizes.set(name, undefined);
		if (!leadsTo(uses, name, name)) {
			const inner = uses.get(name)!.reduce((sum, one) => sum + (sizeOfPiece(pieces, one) ?? 0), 1);
			sizes.set(name, Math.min(inner, MOST_PIECES + 1));
		}
	}
	return sizes.get(name);
}

/** The variables that a piece asks for, by itself and in the pieces that it uses. */
export function variablesBehind(pieces: Pieces, name: string): ReadonlySet<string> {
	const found = new Set<string>();
	const seen = new Set<string>();
	const waiting = [name];
	for (let one = waiting.pop(); one !== undefined; one = waiting.pop()) {
		if (seen.has(one)) continue;
		seen.add(one);
		for (const variable of variablesIn(parseTemplate(pieces.get(one) ?? '').nodes))
			if (variable.root === 'piece') waiting.push(nameOfPiece(variable));
			else found.add(variable.name);
	}
	return found;
}

/** Whether one piece uses another, by itself or through others. */
function leadsTo(uses: Book['uses'], from: string, to: string): boolean {
	const seen = new Set<string>();
	const waiting = [...(uses.get(from) ?? [])];
	for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
		if (name === to) return true;
		if (seen.has(name)) continue;
		seen.add(name);
		waiting.push(...(uses.get(name) ?? []));
	}
	return false;
}
