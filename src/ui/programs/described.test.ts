import { describe, expect, test } from 'vitest';
import { openApi } from '$server/http/openApi';
import { addressFor, fieldsOf, foundAmong, kindInWords, routesIn, type Description, type Schema } from './described';

const own = openApi() as unknown as Description;
const routes = routesIn(own);
const at = (id: string) => routes.find((one) => one.id === id)!;

test('every route of the description is there, with its right, its parts and an example that can be sent', () => {
	const all = Object.values(own.paths).reduce((sum, operations) => sum + Object.keys(operations).length, 0);
	expect(routes).toHaveLength(all);
	for (const { id, right, summary, body } of routes) {
		expect([id, right !== '', summary !== '']).toEqual([id, true, true]);
		if (body?.media === 'application/json') expect(() => JSON.parse(body.example) as unknown, id).not.toThrow();
	}
	expect(
		at('PUT /sites/{site}/pages/{path}').parts.map(({ name, where, isNeeded }) => [name, where, isNeeded])
	).toEqual([
		['site', 'path', true],
		['path', 'path', true],
		['source', 'query', false]
	]);
	expect(at('PUT /sites/{site}/pages/{path}').body?.fields.map(({ name }) => name)).toContain('fields');
	expect(JSON.parse(at('POST /sites/{site}/heads').body?.example ?? '')).toMatchObject({
		pages: [{ path: '/boats/7' }]
	});
	expect(at('POST /session').body?.example).toBe('{\n  "name": "",\n  "password": ""\n}');
	expect(at('GET /sites').answers[0]).toMatchObject({ status: '200' });
});

describe('forms', () => {
	const schemas: Record<string, Schema> = {
		Tree: {
			type: 'object',
			properties: { name: { type: 'string' }, below: { type: 'array', items: { $ref: '#/x/Tree' } } }
		},
		Colour: { enum: ['red', 'blue'], description: 'A colour.' }
	};
	test('are said in few words', () => {
		const said = (schema: Schema) => kindInWords(schema, schemas);
		expect(said({ $ref: '#/x/Colour' })).toBe('"red" or "blue"');
		expect(said({ type: ['string', 'null'] })).toBe('string or null');
		expect(said({ type: 'array', items: { $ref: '#/x/Tree' } })).toBe('list of Tree');
		expect(said({ anyOf: [{ type: 'string' }, { type: 'string' }, { const: true }] })).toBe('string or true');
		expect([said({}), said({ type: 'array' }), said({ type: 'object' })]).toEqual([
			'anything',
			'list of anything',
			'object'
		]);
	});
	test('that hold themselves come to an end', () => {
		expect(fieldsOf({ $ref: '#/x/Tree' }, schemas).map(({ name, depth }) => [name, depth])).toEqual([
			['name', 0],
			['below', 0]
		]);
		const form: Schema = { allOf: [{ type: 'object', required: ['a'], properties: { a: { $ref: '#/x/Colour' } } }] };
		expect(fieldsOf(form, schemas)).toEqual([
			{ name: 'a', kind: '"red" or "blue"', isNeeded: true, says: 'A colour.', depth: 0 }
		]);
	});
});

test('an address has each part in its place, a path with its slashes, nothing empty', () => {
	const put = at('PUT /sites/{site}/pages/{path}');
	expect(addressFor('/api/v1', put, { site: 'A/B & C', path: 'boats/7 ?', source: '' })).toBe(
		'/api/v1/sites/A%2FB%20%26%20C/pages/boats/7%20%3F'
	);
	expect(addressFor('', put, { site: 'S', path: 'a', source: 'x y' })).toBe('/sites/S/pages/a?source=x+y');
});

test('routes are found by all words that are typed', () => {
	expect(foundAmong(routes, 'PUSH lines').map(({ id }) => id)).toContain('POST /sites/{site}/pushes');
	expect(foundAmong(routes, 'put pages path').map(({ id }) => id)).toContain('PUT /sites/{site}/pages/{path}');
	expect(foundAmong(routes, '')).toHaveLength(routes.length);
	expect(foundAmong(routes, 'no such words')).toEqual([]);
});
