import { fileURLToPath } from 'node:url';
import { ESLint } from 'eslint';
import { expect, test } from 'vitest';

/** The gates that lint keeps: each is shut to what it is for, and open to what stands beside it. */
const root = fileURLToPath(new URL('../..', import.meta.url));
const eslint = new ESLint({ cwd: root });

/** What is told of a text that stands in the place of a file, by the names of the rules. */
async function told(file: string, text: string): Promise<readonly (string | null)[]> {
	const [result] = await eslint.lintText(text, { filePath: `${root}/${file}` });
	return result!.messages.map(({ ruleId }) => ruleId);
}

test.each([
	[
		'a name from outside looked up in a plain object',
		'src/core/own.ts',
		'export const f = (all: Record<string, number>, name: string) => all[name];',
		'kephalon/no-open-lookup',
		'export const f = (all: ReadonlyMap<string, number>, name: string) => all.get(name);'
	],
	[
		'an expression that takes more than linear time',
		'src/core/own.ts',
		"export const f = (text: string) => text.replace(/\\s+$/, '');",
		'regexp/no-super-linear-move',
		"export const f = (text: string) => text.replace(/\\s/g, '');"
	],
	[
		'the core that reaches for Node',
		'src/core/own.ts',
		"export { readFileSync } from 'node:fs';",
		'no-restricted-imports',
		"export { formatIssue } from './issue';"
	],
	[
		'the server that reaches up to a screen',
		'src/server/log.ts',
		"export { ask } from '$ui/api';",
		'no-restricted-imports',
		"export { findTag } from '$core';"
	],
	[
		'the core by another door',
		'src/server/log.ts',
		"export { findTag } from '../core/catalogue/catalogue';",
		'no-restricted-imports',
		"export { findTag } from '$core';"
	],
	[
		'a promise that nobody waits for',
		'src/server/log.ts',
		'const work = async () => 1;\nexport function f() {\n\twork();\n}',
		'@typescript-eslint/no-floating-promises',
		'const work = async () => 1;\nexport function f() {\n\tvoid work();\n}'
	],
	[
		'a switch that leaves a case out',
		'src/server/log.ts',
		"export function f(of: 'a' | 'b') {\n\tswitch (of) {\n\t\tcase 'a':\n\t\t\treturn 1;\n\t}\n\treturn 2;\n}",
		'@typescript-eslint/switch-exhaustiveness-check',
		"export function f(of: 'a' | 'b') {\n\tswitch (of) {\n\t\tcase 'a':\n\t\t\treturn 1;\n\t\tdefault:\n\t\t\treturn 2;\n\t}\n}"
	],
	[
		'a value of which nothing is known',
		'src/server/log.ts',
		'export const f = (text: string): number => JSON.parse(text);',
		'@typescript-eslint/no-unsafe-return',
		'export const f = (text: string) => JSON.parse(text) as number;'
	]
])('%s is told', async (_what, file, wrong, rule, right) => {
	expect(await told(file, wrong)).toContain(rule);
	expect(await told(file, right)).toEqual([]);
});
