import Ajv, { type ErrorObject, type ValidateFunction } from 'ajv';
import schema from './site-file.schema.json';

/** A part of the site file's schema, by its name there. */
export type SchemaName = keyof typeof schema.definitions;

const ajv = new Ajv({ allErrors: true, verbose: true, allowUnionTypes: true }).addSchema(schema);
const addressOf = (name: SchemaName) => `${schema.$id}#/definitions/${name}`;

/** The check of a whole site file. */
export const isSiteFile = ajv.getSchema(schema.$id) as ValidateFunction;

/** The check of a named part. */
export const checkOf = <T>(name: SchemaName): ValidateFunction<T> => ajv.getSchema<T>(addressOf(name))!;

/** The check of a form of a request's own, which may refer to named parts with `partOf`. */
export const checkFor = <T>(form: object): ValidateFunction<T> => ajv.compile<T>(form);

export const partOf = (name: SchemaName) => ({ $ref: addressOf(name) });

/** The first thing that a check found wrong, in words; `name` is what the whole is called. */
export const wrongIn = ({ errors }: { errors?: readonly ErrorObject[] | null }, name: string): string =>
	ajv.errorsText(errors?.slice(0, 1), { dataVar: name });
