import type { VariableTerm } from './ast';
import { placeholdersIn, termsOf, variablesIn } from './nodes';
import { parseTemplate } from './parse';
import { nameOfPiece } from './pieces';

function nodesOf(source: string) {
	const { nodes, issues } = parseTemplate(source);
	return issues.some(({ severity }) => severity === 'error') ? [] : nodes;
}

/** The variables of a template, in their order. None where it cannot be read. */
export const variablesOf = (source: string): VariableTerm[] => variablesIn(nodesOf(source));

/** Whether a template asks for a field of its page, by itself or for a part of it. */
export const asksForField = (source: string, field: string): boolean =>
	variablesOf(source).some(({ root, path }) => root === 'page' && path[0] === field);

/** A template with variables written otherwise; all else stays as it was. `isTerm` says that it gives a value itself. */
function rewritten(source: string, change: (variable: VariableTerm, isTerm: boolean) => string | undefined): string {
	const nodes = nodesOf(source);
	const terms = new Set(placeholdersIn(nodes).flatMap(termsOf));
	let out = '';
	let last = 0;
	for (const variable of variablesIn(nodes)) {
		const name = change(variable, terms.has(variable));
		if (name === undefined) continue;
		out += source.slice(last, variable.start) + name;
		last = variable.end;
	}
	return out + source.slice(last);
}

/** A template with a piece under another name. */
export const renamePieceInTemplate = (source: string, from: string, to: string): string =>
	rewritten(source, (variable) =>
		variable.root === 'piece' && nameOfPiece(variable) === from ? `piece.${to}` : undefined
	);

/**
 * A template with a field of its page under another name. `both`: pages of other types have it under the old name still, so
 * that stands in where the new one is empty; what a filter asks for can have nothing that stands in, and has the new name.
 */
export const renameFieldInTemplate = (source: string, from: string, to: string, both = false): string =>
	rewritten(source, ({ root, path, name }, isTerm) => {
		if (root !== 'page' || path[0] !== from) return undefined;
		const renamed = ['page', to, ...path.slice(1)].join('.');
		return both && isTerm ? `${renamed} ?? ${name}` : renamed;
	});
