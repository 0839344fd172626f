import { ownOf } from '../own';
import { nearestName, type Issue } from '../issue';
import type { FilterCall } from './ast';
import { FILTERS, type FilterSpec } from './filters';

/**
 * What is wrong with one filter as it is written: a name that is none, too few or too many arguments, one of the wrong
 * kind, one out of its range. The check tells all of it; at run time such a filter takes its template out (see
 * `compileTemplate`), so that no filter ever runs on arguments it does not know.
 */
export function issuesOfCall(call: FilterCall): Issue[] {
	if (!Object.hasOwn(FILTERS, call.name)) {
		const names = Object.keys(FILTERS);
		return [issue('template/unknown-filter', call, call.name, names.join(', '), nearestName(call.name, names))];
	}
	const spec = ownOf(FILTERS, call.name) as FilterSpec;
	const least = spec.parameters.filter((parameter) => !parameter.optional).length;
	const misfit = call.args.find(({ value }, index) => {
		const parameter = parameterAt(spec, index);
		return !parameter || (parameter.kind === 'number') !== (typeof value === 'number');
	});
	if (misfit || call.args.length < least)
		return [issue('template/wrong-arguments', misfit ?? call, call.name, describeParameters(spec))];
	return call.args.flatMap((arg, index) => {
		const wanted = parameterAt(spec, index)?.refuse?.(arg.value);
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

const parameterAt = ({ parameters }: FilterSpec, index: number) =>
	parameters[index] ?? (parameters.at(-1)?.many ? parameters.at(-1) : undefined);

function describeParameters({ parameters }: FilterSpec): string {
	if (parameters.length === 0) return 'nothing after its name';
	const words = parameters.map((parameter) => {
		const kind = parameter.kind === 'number' ? 'a number' : 'a text in quotation marks';
		return `${parameter.many ? 'one or more: ' : ''}${kind} (${parameter.name}${parameter.optional ? ', may be left out' : ''})`;
	});
	return words.join(', then ');
}
