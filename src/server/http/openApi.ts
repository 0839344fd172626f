import { ownOf } from '$core';
import type { RouteName } from './contract';
import { factsOf, partOf, ROUTE_NAMES } from './forms';
import forms from './forms.json';
import { EXAMPLES } from './examples';
import { DELIVERED } from './delivered';
import { isDoneOnce } from './once';
import { RIGHT_OF } from './rights';

/** A schema of JSON, as the forms hold it. */
type Schema = boolean | { readonly [keyword: string]: unknown };

/** A description of all routes (OpenAPI 3.1.1), made from the forms that requests and answers are held to. */
export interface OpenApi {
	readonly openapi: '3.1.1';
	readonly info: Readonly<Record<string, unknown>>;
	readonly servers: readonly { readonly url: string; readonly description: string }[];
	readonly tags: readonly { readonly name: string; readonly description: string }[];
	readonly security: readonly Readonly<Record<string, readonly string[]>>[];
	readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
	readonly components: Readonly<Record<string, unknown>>;
}

/** One method of one path. */
export interface Operation {
	readonly operationId: string;
	readonly summary: string;
	readonly description: string;
	readonly tags: readonly string[];
	readonly parameters: readonly Parameter[];
	readonly requestBody?: { readonly required: boolean; readonly content: Readonly<Record<string, Media>> };
	readonly responses: Readonly<Record<string, unknown>>;
	/** The right that it asks for. */
	readonly 'x-right': string;
}
interface Parameter {
	readonly name: string;
	readonly in: 'path' | 'query' | 'header';
	readonly required: boolean;
	readonly description?: string;
	readonly schema: Schema;
	readonly example?: unknown;
}
interface Media {
	readonly schema?: Schema;
	readonly examples?: Readonly<Record<string, { readonly value: unknown }>>;
}

/** What routes are about, by the part of their path that tells. */
const SUBJECTS: readonly (readonly [part: RegExp, name: string, description: string])[] = [
	[/^\/(?:me|session|invitations)\b/, 'You', 'Who asks: sessions, passwords, passkeys.'],
	[
		/^\/(?:people|trail)\b|^\/sites\/\{site\}\/(?:people|keys|trail|webhooks|panel)\b/,
		'People',
		'Who may do what, and who did.'
	],
	[/\/(?:head|manifest|sitemap|robots)\b/, 'Delivery', 'What is released, as sites ask for it.'],
	[/\/(?:pictures|share|compose)\b/, 'Pictures', 'The library, and pictures that are drawn.'],
	[/\/(?:release|releases|pending|sheet)\b/, 'Releases', 'What visitors see, and what waits to be seen.'],
	[/\/(?:cards|probe|drift|launch)\b/, 'Readers', 'What readers of links really see.'],
	[
		/\/(?:rules|settings|types|reach|tries|given-way|proposal|edits|findings)\b/,
		'Rules',
		'What layers say, and what follows.'
	],
	[/\/works\b/, 'Works', 'Long works that go on by themselves.'],
	[/\/(?:heads|records|sources)\b/, 'Live data', 'Heads of pages that stand nowhere, and where their records are.'],
	[/./, 'Pages', 'Sites and their pages.']
];
const subjectOf = (path: string) => SUBJECTS.find(([part]) => part.test(path))!;

/** Names of schemas hold letters, digits, dots, lines and underscores (OpenAPI 3.1, 4.8.7). */
function schemaNames(): ReadonlyMap<string, string> {
	const names = new Map<string, string>();
	const taken = new Set<string>();
	for (const name of Object.keys(forms.definitions)) {
		const plain = plainName(name);
		let free = plain;
		for (let at = 2; taken.has(free); at++) free = `${plain}-${at}`;
		names.set(name, free);
		taken.add(free);
	}
	return names;
}

/** `Changes<…,"rules">` is told as what it leaves out. */
function plainName(name: string): string {
	const [own = ''] = name.split('<', 1);
	const without = own === name ? undefined : name.split('"')[1];
	return `${own}${without === undefined ? '' : `-without-${without}`}`.replace(/[^\w.-]/g, '');
}

/** A form with its references pointing into the description. */
function referring(form: unknown, names: ReadonlyMap<string, string>): unknown {
	if (Array.isArray(form)) return form.map((one) => referring(one, names));
	if (typeof form !== 'object' || form === null) return form;
	// A list of forms, one for each place, is written in another way since draft 7: of one form and so many places it needs none.
	const { items } = form as { readonly items?: unknown };
	const tuple = Array.isArray(items) ? { ...form, items: items[0] as unknown } : form;
	return Object.fromEntries(
		Object.entries(tuple).map(([key, value]) => {
			if (key !== '$ref' || typeof value !== 'string') return [key, referring(value, names)];
			const name = decodeURIComponent(value.replace('#/definitions/', ''));
			return [key, `#/components/schemas/${names.get(name) ?? name}`];
		})
	);
}

const PROBLEM = { $ref: '#/components/schemas/Problem' };
/** What is refused, whatever was asked (RFC 9457). */
const REFUSED = {
	description: 'Refused, with what, where and what to do.',
	content: { 'application/problem+json': { schema: PROBLEM } }
};

/** `GET /sites/{site}/releases/page` as one word: `getSiteReleasesPage`. */
const idOf = (method: string, path: string) =>
	method.toLowerCase() +
	path
		.replace('/sites/{site}', '/site')
		.split(/[^a-zA-Z]+/)
		.filter(Boolean)
		.map((word) => word.charAt(0).toUpperCase() + word.slice(1))
		.join('');

let made: OpenApi | undefined;

/** The description of all routes. */
export function openApi(): OpenApi {
	return (made ??= describe());
}

function describe(): OpenApi {
	const names = schemaNames();
	const { Contract: _contract, ...definitions } = forms.definitions;
	const schemas = Object.fromEntries(
		Object.entries(definitions).map(([name, form]) => [names.get(name)!, referring(form, names)])
	);
	const paths = new Map<string, Map<string, Operation>>();
	const put = (path: string, method: string, operation: Operation) => {
		const known = paths.get(path) ?? new Map<string, Operation>();
		paths.set(path, known.set(method, operation));
	};
	for (const name of ROUTE_NAMES) {
		const [method, path] = name.split(' ') as [string, string];
		put(path, method.toLowerCase(), operationOf(name, method, path, names));
	}
	for (const { path, ...operation } of DELIVERED)
		put(path, 'get', {
			...operation,
			...{ operationId: idOf('GET', path), tags: [subjectOf(path)[1]], 'x-right': 'everyone' },
			responses: { ...operation.responses, default: REFUSED }
		});
	const written = Object.fromEntries([...paths].map(([path, methods]) => [path, Object.fromEntries(methods)]));
	return {
		openapi: '3.1.1',
		info: {
			title: 'Kephalon',
			version: '1',
			summary: 'What every address of a website says in its head.',
			description:
				'All that the rooms of Kephalon do is done by these routes. Bodies are JSON; refusals are problems in JSON (RFC 9457) with a code; times are RFC 3339. Where an answer can come in lines, whoever accepts `application/x-ndjson` or `text/event-stream` is told how far the work is, and stops it by going away; with `Prefer: respond-async` it goes on by itself, and is looked at and stopped by the `id` that is answered.',
			license: { name: 'MIT', identifier: 'MIT' },
			contact: { name: 'Whoever runs this Kephalon' }
		},
		servers: [{ url: '/api/v1', description: 'This Kephalon' }],
		tags: [...SUBJECTS].map(([, name, description]) => ({ name, description })),
		// Without people, whoever works on the machine needs neither.
		security: [{ key: [] }, { session: [] }, {}],
		paths: written,
		components: {
			schemas: {
				...usedOf(schemas, written),
				Problem: {
					type: 'object',
					description: 'A refusal (RFC 9457); what its sentence names stands beside these.',
					required: ['type', 'title', 'status', 'code', 'detail'],
					properties: {
						type: { type: 'string' },
						title: { type: 'string' },
						status: { type: 'integer' },
						code: { type: 'string', description: 'For programs: it stays, whatever the sentence says.' },
						detail: { type: 'string', description: 'For people: what is wrong, where, and what to do.' }
					}
				}
			},
			securitySchemes: {
				key: { type: 'http', scheme: 'bearer', description: 'A key of a site: `Authorization: Bearer kephalon_…`.' },
				session: { type: 'apiKey', in: 'cookie', name: 'kephalon', description: 'What signing in gives a browser.' }
			}
		}
	};
}

/** The schemas that something refers to, by whatever way. */
function usedOf(schemas: Readonly<Record<string, unknown>>, paths: unknown): Readonly<Record<string, unknown>> {
	const used = new Set<string>();
	const follow = (part: unknown) => {
		for (const [, name = ''] of JSON.stringify(part).matchAll(/#\/components\/schemas\/([\w.-]+)/g)) {
			const schema = ownOf(schemas, name);
			if (used.has(name) || schema === undefined) continue;
			used.add(name);
			follow(schema);
		}
	};
	follow(paths);
	return Object.fromEntries(Object.entries(schemas).filter(([name]) => used.has(name)));
}

function operationOf(name: RouteName, method: string, path: string, names: ReadonlyMap<string, string>): Operation {
	const { about, hasBody, takes, hasLines, media } = factsOf(name);
	const part = (which: 'query' | 'body' | 'answer') => referring(partOf(name, which), names) as Schema;
	const { query, body, status = 200 } = EXAMPLES[name];
	const isAnswered = status < 400;
	const summary = about.split(/(?<=[.;:])\s/, 1)[0]!.replace(/[.;:]$/, '');
	const answers: Record<string, Media> = media
		? { [media]: {} }
		: {
				'application/json': { schema: part('answer') },
				...(hasLines && { 'application/x-ndjson': {}, 'text/event-stream': {} })
			};
	return {
		...{ operationId: idOf(method, path), summary, description: about, tags: [subjectOf(path)[1]] },
		parameters: [
			...pathParameters(path),
			...queryParameters(partOf(name, 'query'), names, query),
			...(method === 'GET' && !media ? [FIELDS] : []),
			...(isDoneOnce(method, RIGHT_OF[name]) ? [DONE_ONCE] : [])
		],
		...((hasBody || takes) && {
			requestBody: {
				required: true,
				content: takes
					? { 'application/octet-stream': {} }
					: {
							'application/json': {
								schema: part('body'),
								...(body !== undefined && isAnswered && { examples: { example: { value: body } } })
							}
						}
			}
		}),
		responses: {
			[isAnswered ? status : 200]: { description: 'What was asked for.', content: answers },
			...(method === 'GET' && path.endsWith('{path}') && { '304': { description: 'It is as the asker has it.' } }),
			default: REFUSED
		},
		'x-right': RIGHT_OF[name]
	};
}

/** What holds of many routes. */
const FIELDS: Parameter = {
	...{ name: 'fields', in: 'query', required: false, schema: { type: 'string' } },
	description: 'Only these members, with commas between; within others with dots, such as `pages.path,next`.'
};
const DONE_ONCE: Parameter = {
	...{
		name: 'Idempotency-Key',
		in: 'header',
		required: false,
		schema: { type: 'string', minLength: 1, maxLength: 200 }
	},
	description: 'Sent again with it, it is done once, and answered as the first time, for 24 hours.'
};

const pathParameters = (path: string): Parameter[] =>
	[...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => ({
		...{ name, in: 'path', required: true, schema: { type: 'string' } },
		description:
			name === 'site' ? 'The name of a site.' : 'The path of a page, without its first slash, as its address has it.'
	}));

/** What may stand behind the `?`, each by itself. */
function queryParameters(form: unknown, names: ReadonlyMap<string, string>, example: object | undefined): Parameter[] {
	const { properties = {}, required = [], additionalProperties: others } = wholeForm(form);
	// Whatever somebody else adds to an address.
	if (typeof others === 'object')
		return [{ name: 'any', in: 'query', required: false, schema: { type: 'object', additionalProperties: others } }];
	return Object.entries(properties).map(([name, schema]) => ({
		...{ name, in: 'query' as const, required: required.includes(name), schema: referring(schema, names) as Schema },
		...(typeof schema === 'object' && schema.description !== undefined && { description: schema.description }),
		...(example &&
			Object.hasOwn(example, name) && { example: ownOf(example as Readonly<Record<string, unknown>>, name) })
	}));
}

interface ObjectForm {
	readonly properties?: Readonly<Record<string, { readonly description?: string } | boolean>>;
	readonly required?: readonly string[];
	readonly additionalProperties?: unknown;
}
/** A form of an object, found where it refers to another. */
function wholeForm(form: unknown): ObjectForm {
	const { $ref } = (form ?? {}) as { readonly $ref?: string };
	if ($ref === undefined) return form ?? {};
	return wholeForm(
		ownOf(
			forms.definitions as Readonly<Record<string, unknown>>,
			decodeURIComponent($ref.replace('#/definitions/', ''))
		)
	);
}
