import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { expect, test } from 'vitest';
import schema from './site-file.schema.json';

/**
 * The JSON Schema and the TypeScript types say the same: which names there are, which of them must be there, and which
 * words a name can have. A field that is added to one and not to the other is told with its place.
 */

interface Node {
	readonly $ref?: string;
	readonly type?: string | readonly string[];
	readonly const?: unknown;
	readonly enum?: readonly unknown[];
	readonly items?: Node;
	readonly required?: readonly string[];
	readonly properties?: Readonly<Record<string, Node>>;
	readonly additionalProperties?: Node | boolean;
	readonly oneOf?: readonly Node[];
	readonly anyOf?: readonly Node[];
	readonly if?: unknown;
}

/** What is worked out and never stands in a file. */
const WORKED_OUT = new Set(['Page.reading']);
/** Said by a condition of the schema rather than by a choice among objects. */
const CONDITIONAL = new Set(['ContentType.layout.background']);

const modelFile = fileURLToPath(new URL('../../core/model.ts', import.meta.url));
const program = ts.createProgram([modelFile], {
	strict: true,
	noEmit: true,
	target: ts.ScriptTarget.ES2022,
	module: ts.ModuleKind.ESNext,
	moduleResolution: ts.ModuleResolutionKind.Bundler
});
const checker = program.getTypeChecker();
const source = program.getSourceFile(modelFile)!;

function typeNamed(name: string): ts.Type {
	const symbol = checker.getExportsOfModule(checker.getSymbolAtLocation(source)!).find((one) => one.name === name)!;
	return checker.getDeclaredTypeOfSymbol(symbol);
}

const resolved = (node: Node): Node =>
	node.$ref ? resolved((schema.definitions as Record<string, unknown>)[node.$ref.split('/').at(-1)!] as Node) : node;

const differences: string[] = [];
const tell = (place: string, what: string) => void differences.push(`${place}: ${what}`);

/** Sets of names as a text that can be compared. */
const sorted = (names: Iterable<string>) => [...names].sort().join(' ');
const isObject = (type: ts.Type) => (type.flags & (ts.TypeFlags.Object | ts.TypeFlags.Intersection)) !== 0;

function compare(place: string, declared: ts.Type, given: Node): void {
	const node = resolved(given);
	const type = checker.getNonNullableType(declared);
	const parts = type.isUnion() ? type.types : [type];
	if (parts.every((part) => part.isStringLiteral())) return compareWords(place, parts as ts.StringLiteralType[], node);
	const objects = parts.filter((part) => isObject(part) && !checker.isArrayLikeType(part));
	if (objects.length === parts.length && parts.length > 1) return compareChoices(place, objects, node);
	// A value of many kinds is held by its own tests; here, one that is one kind.
	if (parts.length > 1) return;
	if (checker.isArrayLikeType(type)) return compareList(place, type, node);
	if (isObject(type)) return compareObject(place, type, node);
	const kind = node.type === 'integer' ? 'number' : node.type;
	const named = checker.typeToString(checker.getBaseTypeOfLiteralType(type));
	if (kind !== named && !node.enum) tell(place, `${named} in the types, ${String(kind)} in the schema`);
}

function compareWords(place: string, parts: readonly ts.StringLiteralType[], node: Node) {
	const words = node.enum ?? (node.const === undefined ? [] : [node.const]);
	const [mine, theirs] = [sorted(parts.map(({ value }) => value)), sorted(words as string[])];
	if (mine !== theirs && node.type !== 'string') tell(place, `“${mine}” in the types, “${theirs}” in the schema`);
}

function compareList(place: string, type: ts.Type, node: Node) {
	if (node.type !== 'array') return tell(place, 'a list in the types alone');
	const item = checker.getIndexTypeOfType(type, ts.IndexKind.Number)!;
	compare(`${place}[]`, item, node.items ?? {});
}

function compareObject(place: string, type: ts.Type, node: Node): void {
	const value = checker.getIndexTypeOfType(type, ts.IndexKind.String);
	if (value) {
		if (typeof node.additionalProperties !== 'object') return tell(place, 'a record in the types alone');
		return compare(`${place}.*`, value, node.additionalProperties);
	}
	if (node.additionalProperties !== false) tell(place, 'the schema lets other names through');
	const properties = checker.getPropertiesOfType(type).filter(({ name }) => !WORKED_OUT.has(`${place}.${name}`));
	const isOptional = (one: ts.Symbol) => (one.flags & ts.SymbolFlags.Optional) !== 0;
	const names = sorted(properties.map(({ name }) => name));
	if (names !== sorted(Object.keys(node.properties ?? {})))
		tell(place, `“${names}” in the types, “${sorted(Object.keys(node.properties ?? {}))}” in the schema`);
	const needed = sorted(properties.filter((one) => !isOptional(one)).map(({ name }) => name));
	if (needed !== sorted(node.required ?? []))
		tell(place, `needs “${needed}” in the types, “${sorted(node.required ?? [])}” in the schema`);
	for (const property of properties) {
		const part = node.properties?.[property.name];
		if (part && Object.keys(part).length > 0)
			compare(`${place}.${property.name}`, checker.getTypeOfSymbolAtLocation(property, source), part);
	}
}

/** Each object of a choice has its like in the schema, told by its names. */
function compareChoices(place: string, objects: readonly ts.Type[], node: Node) {
	if (CONDITIONAL.has(place)) return;
	const choices = (node.oneOf ?? node.anyOf ?? []).map((choice) => ({
		...resolved(choice),
		// What all of them have is said once, above.
		required: [...(node.required ?? []), ...(resolved(choice).required ?? [])].filter(
			(name, at, all) => all.indexOf(name) === at
		)
	}));
	if (choices.length !== objects.length)
		return tell(place, `${objects.length} choices in the types, ${choices.length} in the schema`);
	for (const type of objects) {
		const names = sorted(checker.getPropertiesOfType(type).map(({ name }) => name));
		const twin = choices.find((choice) => sorted(Object.keys(choice.properties ?? {})) === names);
		if (twin) compareObject(`${place}(${names})`, type, twin);
		else tell(place, `nothing in the schema has “${names}”`);
	}
}

test('the schema and the types say the same', () => {
	const pairs = { Site: 'site', ContentType: 'contentType', Page: 'page', Picture: 'picture', Rule: 'rule' } as const;
	for (const [name, definition] of Object.entries(pairs))
		compare(name, typeNamed(name), (schema.definitions as Record<string, unknown>)[definition] as Node);
	expect(differences).toEqual([]);
});

test('a difference would be told', () => {
	const told = () => differences.splice(0);
	compare('Person', typeNamed('Person'), {
		type: 'object',
		required: ['name'],
		additionalProperties: false,
		properties: { name: { type: 'string' }, handle: { type: 'number' } }
	});
	expect(told()).toEqual([
		'Person: “address handle name picture” in the types, “handle name” in the schema',
		'Person.handle: string in the types, number in the schema'
	]);
	compare('Family', typeNamed('Families'), {
		type: 'object',
		required: ['og'],
		properties: { og: { type: 'boolean' }, twitter: { type: 'boolean' } }
	});
	expect(told()).toEqual([
		'Family: the schema lets other names through',
		'Family: needs “” in the types, “og” in the schema'
	]);
	compare('Layer', typeNamed('PageState'), { enum: ['live', 'draft'] });
	expect(told()).toEqual(['Layer: “draft live private” in the types, “draft live” in the schema']);
	compare('Source', typeNamed('PictureSource'), { oneOf: [] });
	expect(told()).toHaveLength(1);
});
