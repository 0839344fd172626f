import { expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { FILTERS } from '../filters';
import { SIGNS } from '../signs';

const cell = (text: string) => text.replaceAll('|', '\\|');
const shown = (value: unknown) =>
	typeof value === 'string' ? value.replaceAll('\n', '⏎') : value === '' ? 'nothing' : JSON.stringify(value);

test('docs/filters.md shows every sign and filter with one record, in the words of the editor', async () => {
	const rows = Object.entries(FILTERS).map(
		([
			,
			{
				purpose,
				example: [value, call, gives],
				takes
			}
		]) =>
			[
				`\`${cell(call)}\``,
				takes.includes('any') ? 'anything' : takes.join(', '),
				purpose,
				cell(shown(value) || 'nothing'),
				gives || 'nothing'
			]
				.map((one) => one.replaceAll('<', '&lt;'))
				.join(' | ')
	);
	const signs = SIGNS.map(({ sign, purpose, template, fields, gives }) =>
		[
			`\`${cell(sign)}\``,
			cell(purpose),
			`\`${cell(template)}\``,
			cell(Object.keys(fields).length > 0 ? JSON.stringify(fields) : 'nothing'),
			cell(gives)
		].join(' | ')
	);
	const text = `# The signs and filters, each with one record

## Signs

Written from the same rows that the editor tells them from (\`src/core/template/signs.ts\`). The site is called Merrow Coast, has words
“Book now” and a piece for the price; the page \`/people/ada\` is called Ada Marrow.

| written | what it is | in | of | gives |
|---|---|---|---|---|
${signs.map((row) => `| ${row} |`).join('\n')}

## Filters

Written from the same rows that the editor offers them from (\`src/core/template/filters/\`); the moment is 1 May 2026, the language
English. How each is told exactly stands in [template-language.md](template-language.md).

| written | for | what it makes | of | gives |
|---|---|---|---|---|
${rows.map((row) => `| ${row} |`).join('\n')}
`;
	await expect(text).toMatchFileSnapshot('../../../../docs/filters.md');
});

test('docs/filters.json holds the same as data', async () => {
	const filters = Object.entries(FILTERS).map(
		([name, { takes, gives, parameters, purpose, example, isTimed, takesNothing }]) => ({
			...{ name, takes, gives, purpose },
			parameters: parameters.map(({ refuse: _refuse, ...parameter }) => parameter),
			...(isTimed && { dependsOnTheMoment: true }),
			...(takesNothing && { takesNothing: true }),
			example: { value: example[0], call: example[1], gives: example[2] }
		})
	);
	await expect(`${JSON.stringify(filters, null, 1)}\n`).toMatchFileSnapshot('../../../../docs/filters.json');
});

test('what is told exactly names no filter that is not there, and leaves none of the new out', () => {
	const docs = readFileSync(new URL('../../../../docs/template-language.md', import.meta.url), 'utf8');
	for (const name of Object.keys(FILTERS)) expect(docs, name).toMatch(new RegExp('[`{|] ?' + name + '[` ]'));
});
