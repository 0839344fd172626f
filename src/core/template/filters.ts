import { ownOf } from '../own';
import type { FieldKind } from '../model';
import { LIST_FILTERS } from './filters/lists';
import { DATE_FILTERS } from './filters/moments';
import { NUMBER_FILTERS } from './filters/numbers';
import { QUESTIONS } from './filters/questions';
import type { ArgumentValue, FilterContext, FilterSpec, ValueKind } from './filters/spec';
import { TEXT_FILTERS } from './filters/texts';
import { isEmpty, MAX_TEXT, type Value } from './values';

/** The filters by name. The order is the order in which they are offered. */
export const FILTERS: Readonly<Record<string, FilterSpec>> = {
	...TEXT_FILTERS,
	...DATE_FILTERS,
	...NUMBER_FILTERS,
	...LIST_FILTERS,
	...QUESTIONS
};

export const filterOf = (name: string): FilterSpec | undefined => ownOf(FILTERS, name);

/** A filter as it is offered, with arguments that work; all can be changed. */
export const callOffered = (name: string): string => {
	const { offered, example } = filterOf(name) as FilterSpec;
	return `${name} ${offered ?? example[1].split(' | ')[0]!.slice(name.length).trim()}`.trim();
};

/** The kinds of field a filter can be fed with, as the check sees them. */
export function kindOfField(kind: FieldKind): ValueKind {
	if (kind === 'number' || kind === 'date' || kind === 'list' || kind === 'rich' || kind === 'flag') return kind;
	return kind === 'pictures' || kind === 'people' || kind === 'pages' ? 'list' : 'text';
}

/** Runs one filter on a value; texts are cut to `MAX_TEXT` on the way in, so that work stays bounded. */
export function runFilter(
	spec: FilterSpec,
	value: Value,
	args: readonly ArgumentValue[],
	context: FilterContext
): Value {
	if (isEmpty(value) && !spec.takesNothing) return undefined;
	return spec.run(typeof value === 'string' ? value.slice(0, MAX_TEXT) : value, args, context);
}
