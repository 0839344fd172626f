import Ajv from 'ajv';
import type { Recipe } from '$core';
import { UserError } from '../errors';
import schema from '../siteFile/site-file.schema.json';

const use = (name: string) => ({ $ref: `${schema.$id}#/definitions/${name}` });
const file = { type: 'string', pattern: '^[0-9a-f]{24}\\.(jpg|png)$' };
const box = { x: use('across'), y: use('down'), width: use('across'), height: use('down') };
const record = (properties: Record<string, unknown>, optional: readonly string[] = []) => ({
	type: 'object',
	additionalProperties: false,
	required: Object.keys(properties).filter((name) => !optional.includes(name)),
	properties
});
const { template: _template, font: _font, colour: _colour, ...textPart } = schema.definitions.textPart.properties;

const RECIPE_SCHEMA = record(
	{
		version: { type: 'integer' },
		language: { type: 'string', maxLength: 50 },
		background: {
			oneOf: [
				record({ kind: { const: 'colour' }, colour: use('hex') }),
				record({
					kind: { const: 'gradient' },
					from: use('hex'),
					to: use('hex'),
					angle: { type: 'number', minimum: 0, maximum: 360 }
				})
			]
		},
		picture: record({
			...{ ...box, file, focus: use('point'), zoom: { type: 'number', minimum: 1, maximum: 4 } },
			...{ tint: use('hex'), strength: use('share') }
		}),
		frame: record({
			...{ colour: use('hex'), width: { type: 'number', minimum: 0, maximum: 200 } },
			inset: { type: 'number', minimum: 0, maximum: 300 }
		}),
		logo: record({ ...box, file }),
		texts: {
			type: 'array',
			maxItems: 2,
			items: record({
				...Object.fromEntries(
					Object.entries(textPart).map(([name, rule]) => [
						name,
						'$ref' in rule ? use(String(rule.$ref).split('/').at(-1) as string) : rule
					])
				),
				...{ text: { type: 'string', maxLength: 5000 }, font: use('font'), colour: use('hex') }
			})
		},
		play: { const: true }
	},
	['picture', 'frame', 'logo', 'play']
);
const ajv = new Ajv({ allowUnionTypes: true }).addSchema(schema);
const isRecipe = ajv.compile<Recipe>(RECIPE_SCHEMA);

/** A recipe as a request gives it, checked for its form. Throws a `UserError`. */
export function readRecipe(data: unknown): Recipe {
	if (isRecipe(data)) return data;
	throw new UserError(
		`The share picture cannot be drawn: ${ajv.errorsText(isRecipe.errors, { dataVar: 'recipe' })}. Boxes lie within 1200 by 630.`
	);
}
