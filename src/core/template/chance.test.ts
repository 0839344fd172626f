import { expect, test } from 'vitest';
import { compileTemplate, piecesFor, Resolver, type ContentType, type Site } from '../index';
import { Chance, visible } from '../../../conformance/chance';
import { recordBy, TEMPLATE_LANGUAGES, templateBy, TEMPLATE_WORLD } from '../../../conformance/templates';

const { site, type, now } = TEMPLATE_WORLD as unknown as { site: Site; type: ContentType; now: string };
const resolver = new Resolver({ site, types: [type], pictures: [] }, now);
const pieces = piecesFor(site, type);

/** What a template made by chance comes to, and for whom. */
function madeBy(chance: Chance, language: string) {
	const template = templateBy(chance);
	const fields = recordBy(chance);
	const page = { path: '/x', type: 't', state: 'live' as const, language, fields, rules: [] };
	const compiled = compileTemplate(template, pieces);
	return { template, fields, language, compiled, scope: resolver.evaluate(page) };
}

test('templates made by chance come to what is written down', async () => {
	const chance = new Chance(2026);
	const vectors: string[] = [];
	for (let at = 0; vectors.length < 240; at++) {
		const { template, fields, language, compiled, scope } = madeBy(chance, TEMPLATE_LANGUAGES[at % 32]!);
		const gives = compiled.run(scope);
		// Those that cannot run, and most that come to nothing, tell little.
		if (compiled.fault || template.length > 300 || (gives === '' && at % 9 !== 0)) continue;
		vectors.push(visible(JSON.stringify({ template, language, fields, gives })));
	}
	const about = `Templates made by chance, what they print for a record; site and type are those of conformance/templates.ts.`;
	await expect(`{ "about": "${about}", "vectors": [\n${vectors.join(',\n')}\n] }\n`).toMatchFileSnapshot(
		'../../../conformance/language/chance.json'
	);
	expect(JSON.parse(`[${vectors.join(',')}]`)).toHaveLength(240);
});

test('none throws, whatever it holds, and none is longer than it says', () => {
	const chance = new Chance(7);
	for (let at = 0; at < 4000; at++) {
		const { template, compiled, scope } = madeBy(chance, TEMPLATE_LANGUAGES[at % 32]!);
		const told = `${template} ${JSON.stringify(scope.fields)}`;
		const text = compiled.run(scope);
		expect(compiled.run(scope), told).toBe(text);
		expect(compiled.emptyNames(scope), told).toBeInstanceOf(Array);
		expect(compiled.gapNames(scope), told).toBeInstanceOf(Array);
	}
});
