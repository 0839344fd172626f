/** A rule of ESLint: no name from outside is looked up in a plain object, where `constructor` is always there. */
import { ESLintUtils } from '@typescript-eslint/utils';
import ts from 'typescript';

/** @param {ts.Type} type @returns {boolean} */
const isAnyText = (type) =>
	(type.flags & ts.TypeFlags.String) !== 0 || (type.isUnion() && type.types.some((one) => isAnyText(one)));

/** The text of the function that a node stands in. */
function functionText(/** @type {any} */ node, /** @type {any} */ source) {
	let at = node;
	while (at.parent && !/Function|Program/.test(at.type)) at = at.parent;
	return source.getText(at);
}

export const openLookups = {
	rules: {
		'no-open-lookup': ESLintUtils.RuleCreator.withoutDocs({
			meta: {
				type: 'problem',
				schema: [],
				messages: {
					open: 'A plain object answers `constructor` and its like. Use a Map, `ownOf` of the core, or ask Object.hasOwn first.'
				}
			},
			defaultOptions: [],
			create(context) {
				const services = ESLintUtils.getParserServices(context);
				const checker = services.program.getTypeChecker();
				const { sourceCode } = context;
				return {
					MemberExpression(node) {
						if (!node.computed) return;
						const object = services.getTypeAtLocation(node.object);
						if (!isAnyText(services.getTypeAtLocation(node.property))) return;
						if (!checker.getIndexInfoOfType(checker.getNonNullableType(object), ts.IndexKind.String)) return;
						if (checker.isArrayType(object) || checker.isTupleType(object)) return;
						const [record, name] = [node.object, node.property].map((one) => sourceCode.getText(one));
						if (functionText(node, sourceCode).includes(`Object.hasOwn(${record}, ${name})`)) return;
						context.report({ node, messageId: 'open' });
					}
				};
			}
		})
	}
};
