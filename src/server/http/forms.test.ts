import { readFileSync, writeFileSync } from 'node:fs';
import { createGenerator } from 'ts-json-schema-generator';
import { expect, test } from 'vitest';
import { factsOf, ROUTE_NAMES } from './forms';
import forms from './forms.json';

/** What is made from the contract: the forms that requests and answers are held to, and the list of routes for people. */

/** Holds a file to what it is made of; `npm run forms` writes it anew. */
function hold(file: string, written: string) {
	if (process.env.KEPHALON_WRITE) writeFileSync(file, written);
	expect(readFileSync(file, 'utf8') === written, `${file} is of another contract: npm run forms`).toBe(true);
}

test('the forms are those of the contract', { timeout: 120_000 }, () => {
	const path = 'src/server/http/contract.ts';
	const generator = createGenerator({
		...{ path, tsconfig: 'tsconfig.json', skipTypeCheck: true, jsDoc: 'extended', expose: 'export' },
		...{ type: 'Contract', topRef: true, additionalProperties: false, functions: 'hide' }
	});
	hold('src/server/http/forms.json', `${JSON.stringify(generator.createSchema('Contract'))}\n`);
});

interface Form {
	readonly $ref?: string;
	readonly const?: unknown;
	readonly enum?: readonly unknown[];
	readonly type?: string;
	readonly anyOf?: readonly Form[];
	readonly items?: Form;
	readonly properties?: Readonly<Record<string, Form>>;
	readonly required?: readonly string[];
}
const nameOf = (form: Form): string => {
	if (form.$ref) return decodeURIComponent(form.$ref.split('/').at(-1)!);
	if (form.items) return `list of ${nameOf(form.items)}`;
	if (form.anyOf) return form.anyOf.map(nameOf).join(' or ');
	const { properties = {}, required = [] } = form;
	const names = Object.keys(properties).map((name) => (required.includes(name) ? name : `${name}?`));
	return names.length > 0 ? `{ ${names.join(', ')} }` : (form.type ?? 'anything');
};

test('the list of routes in the documents is that of the contract', () => {
	const routes = forms.definitions.Contract.properties as unknown as Readonly<Record<string, Form>>;
	const told = ROUTE_NAMES.map((name) => {
		const { about, takes, hasLines, media } = factsOf(name);
		const { query, body, answer } = routes[name]!.properties!;
		const sent = [
			body && nameOf(body),
			takes === 'bytes' && 'bytes',
			takes === 'record and bytes' && 'bytes behind it',
			takes === 'lines' && 'lines of JSON'
		];
		return [
			`### \`${name}\`\n\n${about}\n`,
			query && `- asked with \`${nameOf(query)}\``,
			body || takes ? `- sent \`${sent.filter(Boolean).join('` and `')}\`` : '',
			`- answers \`${media ?? nameOf(answer!)}\`${hasLines ? ', or lines that say how far it is' : ''}\n`
		];
	});
	const lines = told.flat().filter((line) => line !== '' && line !== undefined);
	hold('docs/http.md', `${readFileSync('src/server/http/http.md', 'utf8')}\n${lines.join('\n')}`);
});
