import Ajv, { type ErrorObject, type ValidateFunction } from 'ajv';
import { ownOf } from '$core';
import { refuse } from '../errors';
import type { RouteName } from './contract';
import forms from './forms.json';

/** What the contract says of a route, beside the forms of what is sent and answered. */
export interface RouteFacts {
	readonly about: string;
	readonly hasQuery: boolean;
	readonly hasBody: boolean;
	readonly takes: 'bytes' | 'record and bytes' | 'lines' | undefined;
	readonly hasLines: boolean;
	readonly media: string | undefined;
}
type Part = 'query' | 'body' | 'answer';

interface Written {
	readonly description?: string;
	readonly properties: Readonly<Record<string, { readonly const?: unknown } | undefined>>;
}
const WRITTEN = forms.definitions.Contract.properties as unknown as Readonly<Record<RouteName, Written>>;

/** Every route of the contract, in its order. */
export const ROUTE_NAMES = Object.keys(WRITTEN) as RouteName[];

export function factsOf(name: RouteName): RouteFacts {
	const { description = '', properties } = WRITTEN[name];
	return {
		...{ about: description, hasQuery: !!properties.query, hasBody: !!properties.body },
		takes: properties.takes?.const as RouteFacts['takes'],
		hasLines: properties.lines?.const === true,
		media: properties.media?.const as string | undefined
	};
}

/** The form of a part of a route, as it is written; undefined where it has none. */
export const partOf = (name: RouteName, part: Part): unknown => WRITTEN[name].properties[part];

/** The forms that a form refers to, by whatever way, under their names. */
function formsUsedBy(form: unknown): Readonly<Record<string, unknown>> {
	const all = forms.definitions as Readonly<Record<string, unknown>>;
	const used = new Map<string, unknown>();
	const follow = (part: unknown) => {
		for (const [, reference = ''] of JSON.stringify(part).matchAll(/"\$ref":"#\/definitions\/([^"]+)"/g)) {
			const name = decodeURIComponent(reference);
			if (used.has(name)) continue;
			used.set(name, ownOf(all, name));
			follow(ownOf(all, name));
		}
	};
	follow(form);
	return Object.fromEntries(used);
}

const made = new Map<string, ValidateFunction>();
/**
 * What stands behind a `?` is text: numbers are read out of it. What is sent is mostly right: only what is not is looked at for all
 * that is wrong. Nothing is made shorter: whoever asks first waits for that.
 */
const ajvs = { query: ajvFor(true), other: ajvFor(false), quick: ajvFor(false, true) };

function ajvFor(coerceTypes: boolean, isQuick = false): () => Ajv {
	let ajv: Ajv | undefined;
	// Annotations of other programs stand in it.
	const options = { allErrors: !isQuick, verbose: !isQuick, strict: false, coerceTypes, code: { optimize: false } };
	return () => (ajv ??= new Ajv(options));
}

/** The check of one part, made of what it refers to alone: the whole contract takes seconds. */
function formOf(name: RouteName, part: Part, isQuick = false): ValidateFunction {
	const key = `${name} ${part} ${isQuick}`;
	let known = made.get(key);
	if (!known) {
		const form = partOf(name, part) as object;
		const ajv = ajvs[part === 'query' ? 'query' : isQuick ? 'quick' : 'other']();
		known = ajv.compile({ ...form, definitions: formsUsedBy(form) });
		made.set(key, known);
	}
	return known;
}

/** What was sent, held to the form of its route. Throws a `UserError` that names the place and what is expected there. */
export function readPart(name: RouteName, part: 'query' | 'body', data: unknown): unknown {
	if (part === 'body' && formOf(name, part, true)(data)) return data;
	const form = formOf(name, part);
	if (form(data)) return data;
	throw refuse(part === 'query' ? 'query-broken' : 'body-broken', wrongIn(form.errors!));
}

/** Throws for an answer that is not as the contract says: a fault of ours. */
export function holdAnswer(name: RouteName, data: unknown) {
	const form = formOf(name, 'answer');
	const sent: unknown = JSON.parse(JSON.stringify(data));
	if (form(sent)) return;
	const { at, why } = wrongIn(form.errors!);
	throw new Error(`The answer of ${name} is not as the contract says: ${at} ${why}`);
}

/** Where what was sent first differs from its form, and how. */
function wrongIn(errors: readonly ErrorObject[]): { readonly at: string; readonly why: string } {
	const [worst] = fitting(errors).sort((a, b) => depthOf(b) - depthOf(a));
	const { instancePath, keyword, params, message = '', parentSchema } = worst!;
	const here = instancePath.slice(1);
	const within = (property: string) => (here ? `${here}/${property}` : property);
	if (keyword === 'required') return { at: within(params.missingProperty as string), why: 'is missing' };
	if (keyword === 'additionalProperties') {
		const known = Object.keys((parentSchema as { properties?: object }).properties ?? {});
		const names = known.length > 0 ? `; there is ${known.join(', ')}` : '';
		return { at: within(params.additionalProperty as string), why: `is not known here${names}` };
	}
	const values = errors.filter((error) => error.instancePath === instancePath).flatMap(valuesIn);
	const isOfValues = keyword === 'const' || keyword === 'enum';
	const why =
		keyword === 'anyOf'
			? 'is none of what it may be'
			: isOfValues
				? `is none of ${[...new Set(values)].join(', ')}`
				: message;
	const about = (parentSchema as { description?: string } | undefined)?.description;
	return { at: here || 'the whole', why: `${why}${about ? ` (${about})` : ''}` };
}

/** The values that stand where an error says that there is another. */
const valuesIn = ({ keyword, params }: ErrorObject): unknown[] =>
	keyword === 'const' ? [params.allowedValue] : keyword === 'enum' ? (params.allowedValues as unknown[]) : [];

const depthOf = ({ instancePath }: ErrorObject) => instancePath.split('/').length;

/**
 * Of forms of which one is to fit, only the one that is meant is told about: the one whose constants fit, or, where several
 * are left, the one with the fewest faults. What fits none from the start is told as that.
 */
function fitting(errors: readonly ErrorObject[]): ErrorObject[] {
	const branches = new Map<string, ErrorObject[]>();
	for (const error of errors) {
		const [branch] = /^.*?\/anyOf\/\d+/.exec(error.schemaPath) ?? [];
		if (branch) branches.set(branch, [...(branches.get(branch) ?? []), error]);
	}
	const choice = errors.find(({ keyword }) => keyword === 'anyOf');
	if (!choice || branches.size === 0) return [...errors];
	const isAtStart = ({ instancePath, keyword }: ErrorObject) =>
		instancePath === choice.instancePath && ['type', 'const', 'enum'].includes(keyword);
	if ([...branches.values()].flat().every(isAtStart)) return [choice];
	const weightOf = (branch: readonly ErrorObject[]) => branch.length + 1000 * Math.max(...branch.map(otherness));
	const [meant] = [...branches.values()].sort((a, b) => weightOf(a) - weightOf(b));
	return [...meant!];
}

/** How surely an error says that another form is meant: what tells forms apart has another value, or none in this one. */
function otherness({ keyword, instancePath, params }: ErrorObject): number {
	const tells = /(^|\/)(do|kind|layer)$/;
	if (keyword === 'additionalProperties') return tells.test(params.additionalProperty as string) ? 2 : 0;
	return (keyword === 'const' || keyword === 'enum') && tells.test(instancePath) ? 1 : 0;
}
