import { nearestName, type Issue } from '../issue';
import type { Argument, FilterCall } from './ast';
import { FILTERS, filterOf } from './filters';
import type { ArgumentValue, FilterSpec, ParameterSpec } from './filters/spec';
import { asNumber } from './filters/spec';
import { isEmpty, toText, type Value } from './values';

/**
 * What is wrong with one filter as it is written: a name that is none, too few or too many arguments, one of the wrong
 * kind, one out of its range. The check tells all of it; at run time such a filter takes its template out (see
 * `compileTemplate`), so that no filter ever runs on arguments it does not know.
 */
export function issuesOfCall(call: FilterCall): Issue[] {
	const spec = filterOf(call.name);
	if (!spec) {
		const names = Object.keys(FILTERS);
		return [issue('template/unknown-filter', call, call.name, shortListOf(names), nearestName(call.name, names))];
	}
	const least = spec.parameters.filter((parameter) => !parameter.optional).length;
	const misfit = call.args.find((arg, index) => !fits(arg, parameterAt(spec, index)));
	if (misfit || call.args.length < least)
		return [issue('template/wrong-arguments', misfit ?? call, call.name, describeParameters(spec))];
	return call.args.flatMap((arg, index) => {
		const wanted = arg.kind === 'literal' ? parameterAt(spec, index)?.refuse?.(arg.value) : undefined;
		return wanted ? [issue('template/wrong-arguments', arg, call.name, wanted)] : [];
	});
}

const issue = (
	code: 'template/unknown-filter' | 'template/wrong-arguments',
	{ start, end }: { readonly start: number; readonly end: number },
	seen: string,
	expected: string,
	nearest?: string
): Issue => ({ code, severity: 'error', start, end, seen, expected, ...(nearest && { nearest }) });

/** What a variable gives is seen when it is there. */
function fits(arg: Argument, parameter: ParameterSpec | undefined): boolean {
	if (!parameter) return false;
	return (
		arg.kind === 'variable' ||
		parameter.kind === 'value' ||
		(parameter.kind === 'number') === (typeof arg.value === 'number')
	);
}

/** What a variable gave, as the argument that a filter takes; undefined for one that it cannot take. */
export function asArgument(
	spec: FilterSpec,
	index: number,
	given: Value
): { readonly value: ArgumentValue } | undefined {
	const parameter = parameterAt(spec, index) as ParameterSpec;
	if (parameter.kind === 'value') return { value: given };
	if (isEmpty(given)) return parameter.optional ? { value: undefined } : undefined;
	const value = parameter.kind === 'number' ? asNumber(given) : toText(given);
	if (parameter.kind === 'number' && !(Number.isSafeInteger(value) && Number(value) >= 0)) return undefined;
	return parameter.refuse?.(value) === undefined ? { value } : undefined;
}

const parameterAt = ({ parameters }: FilterSpec, index: number) =>
	parameters[index] ?? (parameters.at(-1)?.many ? parameters.at(-1) : undefined);

function describeParameters({ parameters }: FilterSpec): string {
	if (parameters.length === 0) return 'nothing after its name';
	const words = parameters.map((parameter) => {
		const kind = NAMES[parameter.kind];
		return `${parameter.many ? 'one or more: ' : ''}${kind} (${parameter.name}${parameter.optional ? ', may be left out' : ''})`;
	});
	return words.join(', then ');
}

const NAMES = {
	number: 'a number',
	text: 'a text in quotation marks',
	value: 'a number, a text in quotation marks or a variable'
} as const;

/** So many names are told; there are others. */
const MOST_TOLD = 12;
const shortListOf = (names: readonly string[]) =>
	[...names.slice(0, MOST_TOLD), ...(names.length > MOST_TOLD ? [`and ${names.length - MOST_TOLD} more`] : [])].join(
		', '
	);
