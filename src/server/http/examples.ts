import type { Recipe } from '$core';
import type { PartOf, RouteName } from './contract';

/** How a route is asked, by tests. */
export interface Asked {
	readonly site?: string;
	/** The path of a page. */
	readonly path?: string;
	readonly query?: object;
	readonly body?: unknown;
	readonly bytes?: Uint8Array;
	readonly headers?: Readonly<Record<string, string>>;
	readonly method?: string;
}

type Examples = {
	readonly [K in RouteName]: Asked & {
		readonly query?: PartOf<K, 'query'>;
		readonly body?: PartOf<K, 'body'>;
		/** Where the example is one of being refused. */
		readonly status?: number;
	};
};
const page = { place: { layer: 'page', path: '/2' } } as const;
export const ruled = { ...page, tag: 'title', body: { kind: 'template', template: 'Mine' } } as const;
export const action = { do: 'text', tag: 'title', text: 'All at once' } as const;
const csv = new TextEncoder().encode('path,page says: title\n/2,Two\n');
const recipe: Recipe = {
	...{ version: 1, language: 'en', texts: [] },
	background: { kind: 'colour', colour: '#224466' }
};
/** One for each: a route without one is an error of types. */
export const EXAMPLES: Examples = {
	'GET /openapi.json': {},
	'GET /sites': {},
	'GET /sites/{site}': {},
	'GET /sites/{site}/trace': { query: { path: '/1' } },
	'POST /sites/{site}/heads': {
		body: { pages: [{ path: '/boats/7', type: 'note', fields: { title: 'A boat', summary: 'Seen at low tide.' } }] }
	},
	'GET /sites/{site}/works': {},
	'GET /sites/{site}/works/one': { query: { id: '5e0c9a4e-6d0b-4c2f-9d8e-1f7a2b3c4d5e' }, status: 404 },
	'DELETE /sites/{site}/works/one': { query: { id: '5e0c9a4e-6d0b-4c2f-9d8e-1f7a2b3c4d5e' }, status: 404 },
	'GET /sites/{site}/sources': {},
	'POST /sites/{site}/records': { body: { type: 'note', path: '/live/7' }, status: 404 },
	'GET /sites/{site}/pages/{path}': { path: '/1' },
	'PUT /sites/{site}/pages/{path}': {
		...{ path: '/boats/7', query: { source: 'boats' } },
		body: { type: 'note', fields: { title: 'A boat', summary: 'Seen at low tide.' } }
	},
	'PATCH /sites/{site}/pages/{path}': { path: '/1', query: {}, body: { fields: { summary: 'Seen at low tide.' } } },
	'DELETE /sites/{site}/pages/{path}': { path: '/4', query: { to: '/1' } },
	'POST /sites/{site}/pushes': {
		query: { source: 'boats' },
		bytes: new TextEncoder().encode(
			'{"path":"/boats/7","type":"note","fields":{"title":"A boat"}}\n{"path":"/1","fields":{"title":"The first"}}\n'
		)
	},
	'GET /me': {},
	'POST /session': { body: { name: 'Nobody', password: 'seven slow gannets' }, status: 401 },
	'DELETE /session': { body: {} },
	'GET /me/sessions': {},
	'DELETE /me/sessions': { body: {} },
	'POST /session/sign-on': { body: {}, status: 404 },
	'GET /session/sign-on/back': { query: { state: 'none' }, status: 303 },
	'POST /session/recovery': { body: { name: 'Nobody', code: 'none' }, status: 401 },
	'GET /me/recovery': {},
	'POST /me/recovery': { body: {}, status: 401 },
	'GET /me/passkeys': {},
	// There are no people.
	'POST /me/passkeys/begun': { body: {}, status: 401 },
	'POST /me/passkeys': { body: { token: 'none', name: 'A', answer: {} }, status: 401 },
	'PATCH /me/passkeys': { body: { id: 'none' }, status: 401 },
	'POST /session/passkey/begun': { body: {} },
	'POST /session/passkey': { body: { token: 'none', answer: {} }, status: 401 },
	'PUT /me/password': { body: { old: 'seven slow gannets', password: 'nine quick herons' }, status: 401 },
	'POST /invitations': { body: { token: 'none' }, status: 404 },
	'GET /people': {},
	'POST /people': { body: { name: 'Ada' } },
	'PATCH /people': { body: { name: 'Nobody', do: 'lock' }, status: 404 },
	'GET /trail': { query: { limit: 5 } },
	'GET /sites/{site}/people': {},
	'PUT /sites/{site}/people': { body: { name: 'Nobody', role: 'editor', area: { paths: ['/a*'] } }, status: 404 },
	'GET /sites/{site}/keys': {},
	'POST /sites/{site}/keys': { body: { name: 'build', scopes: ['read'] } },
	'DELETE /sites/{site}/keys': { body: { id: 7 }, status: 404 },
	'GET /sites/{site}/webhooks': {},
	'POST /sites/{site}/webhooks': { body: { address: 'https://hooks.example/kephalon', events: ['release.made'] } },
	'PATCH /sites/{site}/webhooks': { body: { id: 7, on: false }, status: 404 },
	'DELETE /sites/{site}/webhooks': { body: { id: 7 }, status: 404 },
	'GET /sites/{site}/webhooks/messages': { query: { webhook: 7 } },
	'POST /sites/{site}/webhooks/messages': { body: { webhook: 7 }, status: 404 },
	'GET /sites/{site}/panel': {},
	'PUT /sites/{site}/panel': { body: { origins: ['https://editor.example'] } },
	'POST /sites/{site}/panel/tokens': { body: { page: '/1', person: 'Ada' }, status: 409 },
	'GET /sites/{site}/trail': { query: { before: 9 } },
	'POST /sites': { body: { name: 'New', base: 'https://new.invalid/', source: { kind: 'hand' } } },
	'POST /table': { body: { base: 'https://new.invalid/' }, bytes: new TextEncoder().encode('path,title\n/a,Ada\n') },
	'GET /sites/{site}/grid': { query: { q: 'page', sort: 'title', down: '1', limit: 3, row: 1, count: '1' } },
	'POST /sites/{site}/cells': { body: { cells: [{ path: '/3', tag: 'title', text: 'Three' }] } },
	'POST /sites/{site}/batch': { body: { pages: { filter: { type: 'other' } }, action } },
	'POST /sites/{site}/batch/sample': { body: { pages: { paths: ['/1', '/2'] }, action } },
	'GET /sites/{site}/csv': { query: { columns: 'path,title', mark: '1', type: 'note' } },
	'GET /sites/{site}/workbook': { query: { columns: 'path,title', type: 'note' } },
	'POST /sites/{site}/csv': { query: { rewritten: '1' }, bytes: csv },
	'POST /sites/{site}/csv/comparison': { query: {}, bytes: csv },
	'GET /sites/{site}/filters': {},
	'POST /sites/{site}/filters': { body: { name: 'Notes', query: 'type=note' } },
	'GET /sites/{site}/pages': { query: { find: 'Page' } },
	'POST /sites/{site}/pages': { body: { do: 'add', path: '/new', type: 'note', title: 'New' } },
	'GET /sites/{site}/bench': { query: { path: '/3' } },
	'GET /sites/{site}/page': { query: { path: '/1' } },
	'GET /sites/{site}/page/leading': { query: { path: '/1' } },
	'GET /sites/{site}/page/linking': { query: { path: '/1' } },
	'GET /sites/{site}/hard': { query: { type: 'note' } },
	'GET /sites/{site}/worst': {},
	'PUT /sites/{site}/rules': { body: { ...ruled, expected: null } },
	'PATCH /sites/{site}/settings': { body: { ...page, changes: { state: 'draft' }, expected: { state: 'live' } } },
	'POST /sites/{site}/types': { body: { do: 'add', name: 'third' } },
	'GET /sites/{site}/types/uses': { query: { type: 'other', field: 'region' } },
	'POST /sites/{site}/reach': { body: ruled },
	'POST /sites/{site}/tries': { body: { edits: [ruled, { ...ruled, body: null }] } },
	'POST /sites/{site}/given-way': { body: ruled },
	'GET /sites/{site}/proposal': { query: { type: 'note', tag: 'title' } },
	'GET /sites/{site}/edits': { query: { limit: 2 } },
	'POST /sites/{site}/edits': { body: { takeBack: 'last' } },
	'GET /sites/{site}/findings': { query: { wait: '1' } },
	'POST /sites/{site}/findings': { body: { code: 'no-description', tag: 'description', reason: 'On purpose' } },
	'GET /sites/{site}/pending': {},
	'GET /sites/{site}/sheet': { query: { q: '' } },
	'POST /sites/{site}/release': { body: { note: 'Third' } },
	'GET /sites/{site}/releases': {},
	'POST /sites/{site}/releases': { body: { backTo: 1 } },
	'GET /sites/{site}/releases/between': { query: { from: 1, to: 2 } },
	'GET /sites/{site}/releases/page': { query: { path: '/1' } },
	'GET /sites/{site}/sitemap': {},
	'GET /sites/{site}/robots': {},
	'GET /sites/{site}/cards': {},
	// No readers are named.
	'POST /sites/{site}/cards': { body: { do: 'look' }, status: 422 },
	'POST /sites/{site}/probe': { body: { address: '/1' } },
	'GET /sites/{site}/drift': {},
	'POST /sites/{site}/drift': { body: {} },
	'PUT /sites/{site}/drift': { body: { every: 'night' } },
	'POST /sites/{site}/launch': { body: { id: 'icons', on: true } },
	'GET /sites/{site}/pictures': {},
	'POST /sites/{site}/pictures': { headers: { 'x-file-name': 'A%20picture.png' } },
	// No such server.
	'POST /sites/{site}/pictures/fetched': { body: { address: 'https://s.invalid/a.png' }, status: 422 },
	'DELETE /sites/{site}/pictures': { body: { src: '/none.png' }, status: 404 },
	'GET /sites/{site}/pictures/uses': {},
	'POST /sites/{site}/share': { body: recipe },
	// Types have no layout for pictures of their own.
	'POST /sites/{site}/compose': { body: { type: 'note' }, status: 422 }
};
