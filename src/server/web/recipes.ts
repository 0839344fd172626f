import type { Recipe } from '$core';
import { refuse } from '../errors';
import { checkFor, partOf, wrongIn, type SchemaName } from '../schemas/schemas';
import schema from '../schemas/site-file.schema.json';

const file = { type: 'string', pattern: '^[0-9a-f]{24}\\.(jpg|png)$' };
const box = { x: partOf('across'), y: partOf('down'), width: partOf('across'), height: partOf('down') };
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
				record({ kind: { const: 'colour' }, colour: partOf('hex') }),
				record({
					kind: { const: 'gradient' },
					from: partOf('hex'),
					to: partOf('hex'),
					angle: { type: 'number', minimum: 0, maximum: 360 }
				})
			]
		},
		picture: record({
			...{ ...box, file, focus: partOf('point'), zoom: { type: 'number', minimum: 1, maximum: 4 } },
			...{ tint: partOf('hex'), strength: partOf('share') }
		}),
		frame: record({
			...{ colour: partOf('hex'), width: { type: 'number', minimum: 0, maximum: 200 } },
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
						'$ref' in rule ? partOf(String(rule.$ref).split('/').at(-1) as SchemaName) : rule
					])
				),
				...{ text: { type: 'string', maxLength: 5000 }, font: partOf('font'), colour: partOf('hex') }
			})
		},
		play: { const: true }
	},
	['picture', 'frame', 'logo', 'play']
);
const isRecipe = checkFor<Recipe>(RECIPE_SCHEMA);

/** A recipe as a request gives it, checked for its form. Throws a `UserError`. */
export function readRecipe(data: unknown): Recipe {
	if (isRecipe(data)) return data;
	throw refuse('recipe-broken', { wrong: wrongIn(isRecipe, 'recipe') });
}
