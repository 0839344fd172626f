import { expect, expectTypeOf, test } from 'vitest';
import { kephalon } from './client';

const asked: Request[] = [];
const client = (answer: () => Response, key?: string) =>
	kephalon({
		...{ server: 'http://127.0.0.1:4870/', ...(key && { key }) },
		fetch: (request) => {
			asked.push(request as Request);
			return Promise.resolve(answer());
		}
	});

test('asks a route by its path, with what it takes and the key', async () => {
	const { data, error } = await client(() => Response.json({ pages: [{ path: '/a', title: 'A' }] }), 'kephalon_x').GET(
		'/sites/{site}/pages',
		{ params: { path: { site: 'A site' }, query: { find: 'fox', limit: 2 } } }
	);
	expect(asked.at(-1)!.url).toBe('http://127.0.0.1:4870/api/v1/sites/A%20site/pages?find=fox&limit=2');
	expect(asked.at(-1)!.headers.get('authorization')).toBe('Bearer kephalon_x');
	expect([data?.pages[0]?.path, error]).toEqual(['/a', undefined]);
	expectTypeOf(data!.pages[0]!.path).toEqualTypeOf<string>();
});

test('a refusal is data, with its code', async () => {
	const { data, error } = await client(() =>
		Response.json(
			{ code: 'page-missing', status: 404 },
			{ status: 404, headers: { 'content-type': 'application/problem+json' } }
		)
	).PUT('/sites/{site}/pages/{path}', {
		params: { path: { site: 'S', path: 'boats/7' }, query: { source: 'boats' } },
		body: { type: 'boat', fields: { title: 'Tern' } }
	});
	expect(await asked.at(-1)!.json()).toEqual({ type: 'boat', fields: { title: 'Tern' } });
	expect([data, error?.code]).toEqual([undefined, 'page-missing']);
	expect(asked.at(-1)!.headers.get('authorization')).toBeNull();
});

test.each([
	['boats/7', 'boats/7'],
	['/boats/7', 'boats/7'],
	['caf%C3%A9/a b', 'caf%C3%A9/a%20b'],
	['café/x?y#z', 'caf%C3%A9/x%3Fy%23z'],
	['50%/a', '50%25/a'],
	['$&/a', '$&/a']
])('the path %s stands in the address as %s', async (path, address) => {
	await client(() => Response.json({})).GET('/sites/{site}/pages/{path}', { params: { path: { site: '$&', path } } });
	expect(asked.at(-1)!.url).toBe(`http://127.0.0.1:4870/api/v1/sites/%24%26/pages/${address}`);
});
