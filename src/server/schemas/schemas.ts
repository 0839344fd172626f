import Ajv, { type ErrorObject, type ValidateFunction } from 'ajv';
import schema from './site-file.schema.json';

/** A part of the site file's schema, by its name there. */
export type SchemaName = keyof typeof schema.definitions;

/** Says whether data has a form; `errors` is what the last question found wrong. */
export interface Check<T> {
	(data: unknown): data is T;
	errors?: readonly ErrorObject[] | null | undefined;
}

let made: Ajv | undefined;
const ajv = () => (made ??= new Ajv({ allErrors: true, verbose: true, allowUnionTypes: true }).addSchema(schema));
const addressOf = (name: SchemaName) => `${schema.$id}#/definitions/${name}`;

/** A check that is made when it is first asked: making them all takes longer than most of what a thread does. */
function later<T>(make: () => ValidateFunction<T>): Check<T> {
	let known: ValidateFunction<T> | undefined;
	const check: Check<T> = (data): data is T => {
		known ??= make();
		const isIt = known(data);
		check.errors = known.errors;
		return isIt;
	};
	return check;
}

/** The check of a whole site file. */
export const checkOfFile = <T>(): Check<T> => later(() => ajv().getSchema<T>(schema.$id)!);

/** The check of a named part. */
export const checkOf = <T>(name: SchemaName): Check<T> => later(() => ajv().getSchema<T>(addressOf(name))!);

/** The check of a form of a request's own, which may refer to named parts with `partOf`. */
export const checkFor = <T>(form: object): Check<T> => later(() => ajv().compile<T>(form));

export const partOf = (name: SchemaName) => ({ $ref: addressOf(name) });

/** The first thing that a check found wrong, in words; `name` is what the whole is called. */
export const wrongIn = ({ errors }: Pick<Check<unknown>, 'errors'>, name: string): string =>
	ajv().errorsText(errors?.slice(0, 1), { dataVar: name });
