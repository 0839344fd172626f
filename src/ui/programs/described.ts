import { wording } from '$ui/words/en/programs';
import { hasTyped } from '$ui/parts/shown/typed';

/** What the room of programs reads of the description of all routes (OpenAPI 3.1), and makes of it. */
export interface Schema {
	readonly $ref?: string;
	readonly type?: string | readonly string[];
	readonly description?: string;
	readonly enum?: readonly unknown[];
	readonly const?: unknown;
	readonly properties?: Readonly<Record<string, Schema>>;
	readonly required?: readonly string[];
	readonly items?: Schema;
	readonly anyOf?: readonly Schema[];
	readonly oneOf?: readonly Schema[];
	readonly allOf?: readonly Schema[];
	readonly additionalProperties?: Schema | boolean;
}
interface Media {
	readonly schema?: Schema;
	readonly examples?: Readonly<Record<string, { readonly value: unknown }>>;
}
interface Operation {
	readonly summary: string;
	readonly description?: string;
	readonly tags?: readonly string[];
	readonly 'x-right'?: string;
	readonly parameters?: readonly {
		readonly name: string;
		readonly in: string;
		readonly required?: boolean;
		readonly description?: string;
		readonly example?: unknown;
		readonly schema?: Schema;
	}[];
	readonly requestBody?: { readonly content: Readonly<Record<string, Media>> };
	readonly responses: Readonly<
		Record<string, { readonly description: string; readonly content?: Readonly<Record<string, Media>> }>
	>;
}
export interface Description {
	readonly info: { readonly description?: string };
	readonly servers: readonly { readonly url: string }[];
	readonly tags: readonly { readonly name: string; readonly description?: string }[];
	readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
	readonly components: { readonly schemas: Readonly<Record<string, Schema>> };
}

/** A part of an address or a query. */
interface Part {
	readonly name: string;
	readonly where: 'path' | 'query';
	readonly isNeeded: boolean;
	readonly says: string;
	readonly example: string;
}
/** A field of a body or an answer, with what is in it further in. */
export interface FieldRow {
	readonly name: string;
	readonly kind: string;
	readonly isNeeded: boolean;
	readonly says: string;
	readonly depth: number;
}
export interface Route {
	readonly id: string;
	readonly method: string;
	readonly path: string;
	readonly tag: string;
	readonly summary: string;
	readonly says: string;
	readonly right: string;
	readonly parts: readonly Part[];
	/** What is sent: its media type, an example as text, and its fields. */
	readonly body?: { readonly media: string; readonly example: string; readonly fields: readonly FieldRow[] };
	readonly answers: readonly { readonly status: string; readonly says: string; readonly fields: readonly FieldRow[] }[];
}

/** Forms within forms are told so deep. */
const DEEPEST = 3;

const METHODS = ['get', 'post', 'put', 'patch', 'delete'];

/** All routes of a description, in its order. */
export function routesIn(description: Description): Route[] {
	const { schemas } = description.components;
	return Object.entries(description.paths).flatMap(([path, operations]) =>
		METHODS.flatMap((method) => {
			const one = new Map(Object.entries(operations)).get(method);
			return one ? [routeOf(method, path, one, schemas)] : [];
		})
	);
}

function routeOf(method: string, path: string, one: Operation, schemas: Description['components']['schemas']): Route {
	const [sent] = Object.entries(one.requestBody?.content ?? {});
	return {
		id: `${method.toUpperCase()} ${path}`,
		...{ method: method.toUpperCase(), path, tag: one.tags?.[0] ?? '', summary: one.summary },
		says: one.description ?? one.summary,
		right: one['x-right'] ?? '',
		parts: (one.parameters ?? []).flatMap((part): Part[] =>
			part.in === 'path' || part.in === 'query'
				? [
						{
							...{ name: part.name, where: part.in, isNeeded: part.required === true },
							says: part.description ?? (part.schema ? kindInWords(part.schema, schemas) : ''),
							example: part.example === undefined ? '' : inText(part.example)
						}
					]
				: []
		),
		...(sent && {
			body: {
				media: sent[0],
				example: exampleOf(sent[1], schemas),
				fields: sent[1].schema ? fieldsOf(sent[1].schema, schemas) : []
			}
		}),
		answers: Object.entries(one.responses).map(([status, { description, content }]) => {
			const schema = Object.values(content ?? {})[0]?.schema;
			return { status, says: description, fields: schema ? fieldsOf(schema, schemas) : [] };
		})
	};
}

const inText = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** Something that can be sent: the example, or the fields that must be there. */
function exampleOf({ examples, schema }: Media, schemas: Schemas): string {
	const [example] = Object.values(examples ?? {});
	if (typeof example?.value === 'string') return example.value;
	const needed = () => (schema ? meant(schema, schemas).required : undefined) ?? [];
	return JSON.stringify(example?.value ?? Object.fromEntries(needed().map((name) => [name, ''])), null, 2);
}

type Schemas = Description['components']['schemas'];
const named = ({ $ref }: Schema) => $ref?.split('/').at(-1);
function meant(schema: Schema, schemas: Schemas): Schema {
	const name = named(schema);
	const found = name === undefined ? undefined : new Map(Object.entries(schemas)).get(name);
	return found ? { ...found, ...(schema.description && { description: schema.description }) } : schema;
}

/** What a value can be, as short as it can be said. */
export function kindInWords(schema: Schema, schemas: Schemas): string {
	const one = meant(schema, schemas);
	if (one.const !== undefined) return JSON.stringify(one.const);
	if (one.enum) return one.enum.map((value) => JSON.stringify(value)).join(' or ');
	const several = one.anyOf ?? one.oneOf;
	if (several) return [...new Set(several.map((other) => kindInWords(other, schemas)))].join(' or ');
	if (one.type === 'array') return wording.listOf(one.items ? kindInWords(one.items, schemas) : wording.anything);
	if (typeof one.type === 'string') return one.type === 'object' ? (named(schema) ?? 'object') : one.type;
	return one.type ? one.type.join(' or ') : (named(schema) ?? 'anything');
}

/** The fields of a form, those further in behind their own; a form that holds itself is told once. */
export function fieldsOf(schema: Schema, schemas: Schemas, depth = 0, seen: readonly string[] = []): FieldRow[] {
	const name = named(schema);
	if (depth >= DEEPEST || (name !== undefined && seen.includes(name))) return [];
	const within = name === undefined ? seen : [...seen, name];
	const one = meant(schema, schemas);
	if (one.type === 'array' && one.items) return fieldsOf(one.items, schemas, depth, within);
	const several = one.allOf ?? one.anyOf ?? one.oneOf;
	const own = Object.entries(one.properties ?? {}).flatMap(([field, form]): FieldRow[] => [
		{
			...{ name: field, kind: kindInWords(form, schemas), isNeeded: one.required?.includes(field) === true },
			says: meant(form, schemas).description ?? '',
			depth
		},
		...fieldsOf(form, schemas, depth + 1, within)
	]);
	return [...own, ...(several ?? []).flatMap((other) => fieldsOf(other, schemas, depth, within))];
}

/** The address that a route is asked at, with what its parts are; those of the query that are empty are left out. */
export function addressFor(base: string, { path, parts }: Route, values: Readonly<Record<string, string>>): string {
	const all = new Map(Object.entries(values));
	const filled = path.replaceAll(/\{([^{}]+)\}/g, (_, name: string) =>
		// A page's path keeps its slashes.
		(all.get(name) ?? '')
			.split('/')
			.map(encodeURIComponent)
			.join(name === 'path' ? '/' : '%2F')
	);
	const query = new URLSearchParams();
	for (const { name, where } of parts) if (where === 'query' && all.get(name)) query.set(name, all.get(name) ?? '');
	return `${base}${filled}${query.size > 0 ? `?${query}` : ''}`;
}

/** The routes that have all the words that were typed. */
export function foundAmong(routes: readonly Route[], typed: string): Route[] {
	return routes.filter(({ id, summary, says, tag }) => hasTyped(typed, id, tag, summary, says));
}
