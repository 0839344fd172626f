import type { PlaceholderNode, TemplateNode, VariableTerm } from './ast';

/** The nodes that stand directly in a node. */
export function nodesIn(node: TemplateNode): readonly TemplateNode[] {
	switch (node.kind) {
		case 'optional':
			return node.nodes;
		case 'choice':
			return node.options;
		case 'text':
		case 'separator':
		case 'placeholder':
		case 'fit':
		case 'goes':
			return [];
	}
}

/** Every placeholder in a template, in the order of their places. */
export const placeholdersIn = (nodes: readonly TemplateNode[]): PlaceholderNode[] =>
	nodes.flatMap((node) => (node.kind === 'placeholder' ? [node] : placeholdersIn(nodesIn(node))));

/** The variables that give a placeholder its value. */
export const termsOf = ({ terms }: PlaceholderNode): VariableTerm[] => terms.filter((term) => term.kind === 'variable');

/** Every variable in a template, in the order of their places: those that give values, and those that filters ask for. */
export const variablesIn = (nodes: readonly TemplateNode[]): VariableTerm[] =>
	placeholdersIn(nodes).flatMap((node) => [
		...termsOf(node),
		...node.filters.flatMap(({ args }) => args.filter((one) => one.kind === 'variable'))
	]);
