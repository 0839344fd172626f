import type { TemplateNode, VariableTerm } from './ast';
import { parseTemplate } from './parse';

/** The variables of a template, in their order. None where it cannot be read. */
export function variablesOf(source: string): VariableTerm[] {
	const { nodes, issues } = parseTemplate(source);
	return issues.some(({ severity }) => severity === 'error') ? [] : nodes.flatMap(variablesIn);
}

function variablesIn(node: TemplateNode): VariableTerm[] {
	switch (node.kind) {
		case 'placeholder':
			return node.terms.filter((term) => term.kind === 'variable');
		case 'optional':
			return node.nodes.flatMap(variablesIn);
		case 'text':
		case 'separator':
			return [];
	}
}

/** Whether a template asks for a field of its page, by itself or for a part of it. */
export const asksForField = (source: string, field: string): boolean =>
	variablesOf(source).some(({ root, path }) => root === 'page' && path[0] === field);

/**
 * A template with a field of its page under another name; all else stays as it was written. `both`: pages of other types
 * have it under the old name still, so that stands in where the new one is empty.
 */
export function renameFieldInTemplate(source: string, from: string, to: string, both = false): string {
	let out = '';
	let last = 0;
	for (const { root, path, start, end } of variablesOf(source)) {
		if (root !== 'page' || path[0] !== from) continue;
		const name = ['page', to, ...path.slice(1)].join('.');
		out += source.slice(last, start) + (both ? `${name} ?? ${source.slice(start, end)}` : name);
		last = end;
	}
	return out + source.slice(last);
}
