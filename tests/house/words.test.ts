import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse, type AST } from 'svelte/compiler';
import { expect, test } from 'vitest';

/** Words that people read stand in `src/ui/words/`, in each language, and in no component. */

/** Said as they are in every language: what is typed elsewhere, and marks. */
const AS_THEY_ARE =
	/^(--[\w-]+.*|https?:\S*|\/\S*|[\w.-]+\.(json|html)|[a-z]+:[a-z_]+|\{[^{}]*\}|px|kephalon .*|npm run .*|Kephalon|fr|fr, pt-BR|fr\/\*\*|UTC)$/;
const READ = new Set([
	...['aria-label', 'aria-description', 'aria-roledescription', 'aria-valuetext', 'placeholder', 'alt'],
	...['data-tip', 'label', 'says', 'words', 'heading', 'legend', 'hint', 'caption', 'called']
]);

interface Node {
	readonly type: string;
	readonly name?: string;
	readonly data?: string;
	readonly value?: unknown;
}

/** The words of a component that stand in it. */
function wordsIn(source: string): string[] {
	const found: string[] = [];
	const say = (text: string) => {
		const words = text.replace(/\s+/g, ' ').trim();
		if (/\p{L}{2,}/u.test(words) && !AS_THEY_ARE.test(words)) found.push(words);
	};
	const look = (node: unknown, inside: readonly Node[]): void => {
		if (Array.isArray(node)) return node.forEach((one) => look(one, inside));
		if (typeof node !== 'object' || node === null || !('type' in node)) return;
		const here = node as Node;
		if (here.type === 'StyleSheet' || (here.type === 'RegularElement' && ['code', 'kbd'].includes(here.name ?? '')))
			return;
		const parent = inside.at(-1);
		const isRead = parent?.type === 'Attribute' ? READ.has(parent.name ?? '') : parent?.type !== 'StyleDirective';
		if (here.type === 'Text' && isRead) say(here.data ?? '');
		// What is shown of an expression: its strings, but those that it compares and asks by.
		const isShown = inside.some(
			({ type, name }, at) =>
				type === 'ExpressionTag' &&
				(inside[at - 1]?.type !== 'Attribute' || READ.has(inside[at - 1]?.name ?? name ?? ''))
		);
		const chooses =
			parent?.type === 'ConditionalExpression' ||
			parent?.type === 'LogicalExpression' ||
			parent?.type === 'ExpressionTag';
		const isCompared = inside.some(({ type }) => type === 'BinaryExpression');
		if (here.type === 'Literal' && isShown && chooses && !isCompared && typeof here.value === 'string') say(here.value);
		for (const [key, value] of Object.entries(here)) if (key !== 'metadata') look(value, [...inside, here]);
	};
	const root: AST.Root = parse(source, { modern: true });
	look(root.fragment, []);
	return found;
}

test('no component says anything that is in no table of words', () => {
	const src = fileURLToPath(new URL('../../src', import.meta.url));
	const files = readdirSync(src, { recursive: true, encoding: 'utf8' }).filter(
		// The sheet of parts is seen by those who build it, and a form is shown by one of these.
		(file) => file.endsWith('.svelte') && !/PartsSheet|FieldInputAlone|routes\/parts/.test(file)
	);
	expect(files.length).toBeGreaterThan(100);
	const told = files.flatMap((file) =>
		wordsIn(readFileSync(join(src, file), 'utf8')).map((words) => `${file}: ${words}`)
	);
	expect(told).toEqual([]);
});

test.each([
	['<p>Keep it</p>', ['Keep it']],
	['<Button aria-label="Close the list">×</Button>', ['Close the list']],
	['<p>{is ? "Kept" : wording.keep}</p>', ['Kept']],
	['<p>{name || "nothing"}</p>', ['nothing']],
	['<input placeholder={is ? "A path" : ""} />', ['A path']],
	['<p class="font-mono text-sm">{wording.keep} · {count}</p>', []],
	['<p data-kind="chosen">{kind === "draft" ? wording.draft : ""}</p>', []],
	['<code>npm run demo</code>', []]
])('%j has %j', (source, words) => {
	expect(wordsIn(source)).toEqual(words);
});
