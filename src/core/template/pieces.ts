import type { PlaceholderNode, TemplateNode } from './ast';
import { isBlank } from '../text/text';
import { compileTemplate, type Scope } from './compile';
import { parseTemplate } from './parse';

/** A part of a template with what it comes to on one page. `start` and `end` are its place in the source. */
export interface Piece {
	readonly kind: 'text' | 'value' | 'gap' | 'separator';
	readonly start: number;
	readonly end: number;
	/** What it yields: words, a value, or nothing for a gap. */
	readonly text: string;
	/** The variables it asks for. */
	readonly names: readonly string[];
	/** It lies in an optional stretch that is gone, so that nothing of it is printed. */
	readonly gone: boolean;
}

/**
 * A template taken apart for the eye: its words, the values of its variables set apart, and a gap where one is empty.
 * A template that cannot be read gives none.
 */
export function piecesOf(source: string, scope: Scope): Piece[] {
	const { nodes, issues } = parseTemplate(source);
	if (issues.some((issue) => issue.severity === 'error')) return [];
	const value = (node: PlaceholderNode) => compileTemplate(source.slice(node.start, node.end)).run(scope);
	const visit = (list: readonly TemplateNode[], isGone: boolean): Piece[] =>
		list.flatMap((node): Piece[] => {
			const { start, end } = node;
			const shared = { start, end, names: [], gone: isGone };
			switch (node.kind) {
				case 'text':
					return [{ ...shared, kind: 'text', text: node.text }];
				case 'separator':
					return [{ ...shared, kind: 'separator', text: scope.separator }];
				case 'optional': {
					const hasGap = node.nodes.some((inner) => inner.kind === 'placeholder' && isBlank(value(inner)));
					return visit(node.nodes, isGone || hasGap);
				}
				case 'placeholder': {
					const text = value(node);
					const names = node.terms.flatMap((term) => (term.kind === 'variable' ? [term.name] : []));
					return [{ ...shared, names, kind: isBlank(text) ? 'gap' : 'value', text }];
				}
			}
		});
	return visit(nodes, false);
}
