import { Spectral, type Ruleset } from '@stoplight/spectral-core';
import { oas } from '@stoplight/spectral-rulesets';
import Ajv2020 from 'ajv/dist/2020';
import { describe, expect, test } from 'vitest';
import { DELIVERED } from './delivered';
import { EXAMPLES } from './examples';
import { ROUTE_NAMES } from './forms';
import forms from './forms.json';
import { openApi, type Operation } from './openApi';

/** The description of all routes: whole, right by its own rules, and nothing in it that the forms do not hold to. */

const api = openApi();
const operations = Object.entries(api.paths).flatMap(([path, methods]) =>
	Object.entries(methods).map(([method, operation]) => ({ name: `${method.toUpperCase()} ${path}`, operation }))
);
const ajv = new Ajv2020({ strict: false });
ajv.addSchema({ $id: 'api', components: api.components } as object);
/** A schema of it, with references that are found. */
const checkOf = (schema: unknown) =>
	ajv.compile(JSON.parse(JSON.stringify(schema).replaceAll('"#/components', '"api#/components')) as object);

test('every route has a line, and no line is of none', () => {
	const delivered = DELIVERED.map(({ path }) => `GET ${path}`);
	expect(operations.map(({ name }) => name).sort()).toEqual([...ROUTE_NAMES, ...delivered].sort());
});

test('a linter finds nothing in it', { timeout: 60_000 }, async () => {
	const spectral = new Spectral();
	spectral.setRuleset({ extends: [oas] } as unknown as Ruleset);
	const found = await spectral.run(JSON.parse(JSON.stringify(api)) as Record<string, unknown>);
	expect(found.map(({ code, path, message }) => `${code} ${path.join('/')}: ${message}`)).toEqual([]);
});

test('operations have names of their own, and each says what it does and which right it asks for', () => {
	const ids = operations.map(({ operation }) => operation.operationId);
	expect(new Set(ids).size).toBe(ids.length);
	for (const { name, operation } of operations) {
		expect(operation.summary, name).toMatch(/^[A-Z].{4,}[^.]$/s);
		expect(operation['x-right'], name).toMatch(/^[a-z]+$/);
	}
});

test('no form leaves open what it is: members that are not named are refused, and anything is said to be so on purpose', () => {
	const open: string[] = [];
	const walk = (form: unknown, at: string): void => {
		if (typeof form !== 'object' || form === null) return;
		const { type, properties, additionalProperties, anyOf } = form as Record<string, unknown>;
		if (type === 'object' && properties && additionalProperties === undefined && !anyOf) open.push(at);
		const { description: _, ...said } = form as Record<string, unknown>;
		if (Object.keys(said).length === 0) open.push(`${at}: anything`);
		for (const [name, part] of Object.entries(form)) walk(part, `${at}/${name}`);
	};
	walk({ ...forms.definitions, Contract: undefined }, '');
	expect([...new Set(open.map((at) => at.replace(/\d+/g, 'N')))]).toMatchInlineSnapshot(`
		[
		  "/TrailLine/properties/data/additionalProperties: anything",
		  "/Finding/anyOf/N/properties/data: anything",
		  "/RecordedEdit/properties/what: anything",
		  "/LivePage/properties/record: anything",
		  "/WorkTold/properties/result: anything",
		]
	`);
});

describe('what it says of', () => {
	const bodyOf = ({ requestBody }: Operation) => requestBody?.content['application/json'];
	const withBody = operations.filter(({ operation }) => bodyOf(operation)?.examples);
	test.each(withBody)('the example of $name fits', ({ operation }) => {
		const { schema, examples } = bodyOf(operation)!;
		const check = checkOf(schema);
		for (const { value } of Object.values(examples!)) expect(check(value), JSON.stringify(check.errors)).toBe(true);
	});
	test('what is behind the ? is all that its example asks', () => {
		for (const { name, operation } of operations) {
			const { query = {} } = EXAMPLES[name as keyof typeof EXAMPLES] ?? {};
			const known = operation.parameters.map((one) => one.name);
			if (!known.includes('any')) expect(known, name).toEqual(expect.arrayContaining(Object.keys(query)));
		}
	});
});
