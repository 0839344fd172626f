import type { Pieces } from './pieces';
import { isBlank } from '../text/text';
import type { OptionalNode, PlaceholderNode, TemplateNode } from './ast';
import { compileTemplate, type Scope } from './compile';
import { nodesIn, termsOf } from './nodes';
import { parseTemplate } from './parse';

/** A part of a template with what it comes to on one page. `start` and `end` are its place in the source. */
export interface TemplatePart {
	readonly kind: 'text' | 'value' | 'gap' | 'separator' | 'sign';
	readonly start: number;
	readonly end: number;
	/** What it yields: words, a value, or nothing for a gap and for a sign of the language. */
	readonly text: string;
	/** The variables it asks for. */
	readonly names: readonly string[];
	/** It lies in an optional stretch that is gone, so that nothing of it is printed. */
	readonly gone: boolean;
}

/**
 * A template taken apart for the eye: its words, the values of its variables set apart, a gap where one is empty, and what is
 * asked as a value or a gap without words. What gave way for want of room, and what another stretch stands in for, is gone.
 * A template that cannot be read gives none.
 */
export function templateParts(source: string, scope: Scope, pieces?: Pieces): TemplatePart[] {
	const { nodes, issues } = parseTemplate(source);
	if (issues.some((issue) => issue.severity === 'error')) return [];
	const run = (template: string) => compileTemplate(template, pieces).run(scope);
	const value = ({ start, end }: TemplateNode) => run(source.slice(start, end));
	const isSo = ({ start, end, asks }: PlaceholderNode) =>
		!isBlank(asks ? run(`[[${source.slice(start, end)}yes]]`) : run(source.slice(start, end)));
	const gaveWay = new Set(
		nodes.some(({ kind }) => kind === 'fit')
			? compileTemplate(source, pieces)
					.gone(scope)
					.map(({ start }) => start)
			: []
	);
	const hasGap = (list: readonly TemplateNode[]) => list.some((node) => node.kind === 'placeholder' && !isSo(node));
	const visit = (list: readonly TemplateNode[], isGone: boolean): TemplatePart[] =>
		list.flatMap((node): TemplatePart[] => {
			const { start, end } = node;
			const shared = { start, end, names: [], gone: isGone };
			switch (node.kind) {
				case 'text':
					return [{ ...shared, kind: 'text', text: node.text }];
				case 'separator':
					return [{ ...shared, kind: 'separator', text: scope.separator }];
				case 'optional':
					return visit(node.nodes, isGone || gaveWay.has(start) || hasGap(node.nodes));
				case 'choice':
					return choice(node.options, isGone);
				case 'fit':
				case 'goes':
					return [{ ...shared, kind: 'sign', text: '' }];
				case 'placeholder': {
					const names = termsOf(node).map(({ name }) => name);
					const text = node.asks ? '' : value(node);
					return [{ ...shared, names, kind: isSo(node) ? 'value' : 'gap', text }];
				}
			}
		});
	/** The `{or}` between two stretches. */
	const signBetween = (before: OptionalNode, after: OptionalNode): TemplatePart => {
		const start = source.indexOf('{', before.end);
		return { kind: 'sign', text: '', start, end: source.lastIndexOf('}', after.start) + 1, names: [], gone: false };
	};
	/** The first that prints is there, of those that did not give way. */
	const choice = (options: readonly OptionalNode[], isGone: boolean): TemplatePart[] => {
		const taken = options.find((option) => !gaveWay.has(option.start) && !isBlank(value(option)));
		return options.flatMap((option, at) => [
			...(at > 0 ? [signBetween(options[at - 1] as OptionalNode, option)] : []),
			...visit(nodesIn(option), isGone || option !== taken)
		]);
	};
	const isAsked = nodes.every((node) => node.kind !== 'placeholder' || !node.asks || isSo(node));
	return visit(nodes, !isAsked);
}
