import { createHash } from 'node:crypto';
import { compileTemplate, piecesFor, Resolver, type ContentType, type Site } from '$core';
import { Chance } from '../conformance/chance';
import { recordBy, TEMPLATE_LANGUAGES, templateBy, TEMPLATE_WORLD } from '../conformance/templates';

/**
 * Templates made by chance, in every language: none throws, and wherever it runs the texts are the same. Prints how many, how
 * long, and a digest of all texts; run it with other LANG and TZ and compare. `node build/cli/templates.js [count]`
 */
const COUNT = Number(process.argv[2] ?? 100_000);

const { site, type, now } = TEMPLATE_WORLD as unknown as { site: Site; type: ContentType; now: string };
const resolver = new Resolver({ site, types: [type], pictures: [] }, now);
const pieces = piecesFor(site, type);
const chance = new Chance(33);
const digest = createHash('sha256');
let [broken, empty] = [0, 0];
const start = performance.now();
for (let at = 0; at < COUNT; at++) {
	const template = templateBy(chance);
	const language = TEMPLATE_LANGUAGES[at % TEMPLATE_LANGUAGES.length]!;
	const page = { path: '/x', type: 't', state: 'live' as const, language, fields: recordBy(chance), rules: [] };
	const compiled = compileTemplate(template, pieces);
	const text = compiled.run(resolver.evaluate(page));
	if (compiled.fault) broken++;
	else if (text === '') empty++;
	digest.update(`${text}\n`);
}
const seconds = (performance.now() - start) / 1000;
console.log(
	`${COUNT} templates in ${TEMPLATE_LANGUAGES.length} languages, ${seconds.toFixed(1)} s: ${broken} cannot run, ${empty} come to nothing; ${digest.digest('hex').slice(0, 16)}`
);
