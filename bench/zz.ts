import { Eta } from 'eta';
import Handlebars from 'handlebars';
import { Liquid } from 'liquidjs';
import { settleText, clipText, PageRenderer, Resolver, type Page, type Site } from '$core';
import * as escape from '../src/core/render/escape';
import { seeded } from '../demo/random';

/**
 * The same 12 tags for 50,000 pages, a third of the summaries missing, in one process: Kephalon with and without
 * trace, a function written by hand, three general template engines. All write the same bytes with the same escaping
 * and the same clipping, hostile pages included: what must not stand in markup at all (controls, lone surrogates, a
 * line end) is taken out before the rest is escaped. The engines' templates are compiled beforehand. The figures to
 * look at are the ratios.
 */
const PAGES = 50_000;
/** Each contender runs this often, in turns, and its fastest run counts: the machine is shared. */
const ROUNDS = Number(process.env.ROUNDS??5);

const site: Site = {
	name: 'Merrow Coast Reserves',
	base: 'https://merrowcoast.example/',
	languages: ['en-GB'],
	separator: '·',
	fields: {
		description:
			'Merrow Coast Reserves looks after eleven wild places on the Merrow shore, and opens them to everyone who comes on foot, by bus, by boat & in any weather at all, all year round.'
	},
	rules: [
		{ tag: 'title', kind: 'template', template: '{page.title} {separator} {site.name}' },
		{ tag: 'description', kind: 'template', template: '{page.summary ?? site.description | clip 155}' },
		{ tag: 'og:title', kind: 'template', template: '{page.title}' },
		{ tag: 'twitter:description', kind: 'leaveOut' },
		{ tag: 'twitter:image', kind: 'leaveOut' }
	]
};

const WORDS =
	'tide marsh heath gannet dune shingle creek oak seal petrel wader lichen "salt" & <sand> harbour skerry lantern drift thrift plover'.split(
		' '
	);

function makePages(): Page[] {
	const random = seeded('bench');
	const words = (count: number) =>
		Array.from({ length: count }, () => WORDS[Math.floor(random() * WORDS.length)]).join(' ');
	return Array.from({ length: PAGES }, (_, i) => ({
		path: `/reserves/place-${i}`,
		type: 'reserve',
		state: 'live' as const,
		fields: {
			title: words(4),
			picture: { src: `/pictures/place-${i % 500}.jpg` },
			...(i % 3 !== 0 && { summary: words(14 + (i % 20)) })
		},
		rules: []
	}));
}

/** The escaping of all contenders. */
const escapeText = (text: string) => escape.escapeText(settleText(text));
const escapeAttribute = (text: string) => escape.escapeAttribute(settleText(text));

/** What the contenders other than Kephalon are given. */
interface Facts {
	readonly title: string;
	readonly summary: string | undefined;
	readonly path: string;
	readonly picture: string;
}
const origin = 'https://merrowcoast.example';
const describe = (summary: string | undefined) => clipText(summary || (site.fields.description as string), 155);

/** Bare replacing of four signs, as most hand-written code has it: on a hostile page it writes other bytes. */
const replaceFour = (text: string) =>
	text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The function by hand, with the escaping of the others or with bare replacing. */
const handWith =
	(escapeText: (text: string) => string, escapeAttribute: (text: string) => string) =>
	({ title, summary, path, picture }: Facts): string => {
		const whole = escapeText(`${title} · ${site.name}`);
		const short = escapeAttribute(title);
		const description = escapeAttribute(describe(summary));
		const address = escapeAttribute(origin + path);
		return `<title>${whole}</title>
<meta name="description" content="${description}">
<link rel="canonical" href="${address}">
<meta property="og:title" content="${short}">
<meta property="og:description" content="${description}">
<meta property="og:type" content="website">
<meta property="og:url" content="${address}">
<meta property="og:site_name" content="${escapeAttribute(site.name)}">
<meta property="og:locale" content="en_GB">
<meta property="og:image" content="${escapeAttribute(origin + picture)}">
<meta name="twitter:card" content="summary">
<meta name="twitter:title" content="${short}">
`;
	};
const byHand = handWith(escapeText, escapeAttribute);
const byHandBarely = handWith((text) => replaceFour(text).replaceAll('&quot;', '"'), replaceFour);

/** The template of the engines, by how each writes a value. */
const template = (
	value: (expression: string) => string,
	text: (expression: string) => string
) => `<title>${text('whole')}</title>
<meta name="description" content="${value('description')}">
<link rel="canonical" href="${value('address')}">
<meta property="og:title" content="${value('title')}">
<meta property="og:description" content="${value('description')}">
<meta property="og:type" content="website">
<meta property="og:url" content="${value('address')}">
<meta property="og:site_name" content="${value('name')}">
<meta property="og:locale" content="en_GB">
<meta property="og:image" content="${value('image')}">
<meta name="twitter:card" content="summary">
<meta name="twitter:title" content="${value('title')}">
`;
const dataOf = ({ title, summary, path, picture }: Facts) => ({
	whole: `${title} · ${site.name}`,
	title,
	description: describe(summary),
	address: origin + path,
	name: site.name,
	image: origin + picture
});


import { escapeAttribute as esc, escapeText as escT } from '../src/core/render/escape';
function fastOf(resolver: any) {
	const raw: string[] = [], escaped: string[] = [];
	const escapeAt = (index: number, borrowed: number, text: string): string => {
		const mine = raw[index], theirs = raw[borrowed];
		if (mine !== undefined && mine.length === text.length && mine === text) return escaped[index] as string;
		raw[index] = text;
		if (theirs !== undefined && theirs.length === text.length && theirs === text) return (escaped[index] = escaped[borrowed] as string);
		return (escaped[index] = esc(text));
	};
	return (page: Page): string => {
		const ev = resolver.evaluate(page);
		const steps = ev.plan.steps;
		let out = '';
		let open = false;
		for (let at = 0; at < steps.length; at++) {
			const step = steps[at];
			const parent = step.parent;
			if (parent !== -2 && (parent < 0 || ev.valueAt(parent) === null)) continue;
			let value = step.constant;
			if (value !== undefined) {
				if (step.tag.place === 'title') { out += '<title>' + escT(value) + '</title>\n'; continue; }
				out += step.whole ??= step.tag.markup + esc(value) + '">\n';
				continue;
			}
			if (step.goesWithPicture) continue;
			value = ev.valueAt(step.index);
			if (value === null) continue;
			if (typeof value === 'string') {
				if (step.tag.place === 'title') { out += '<title>' + escT(value) + '</title>\n'; continue; }
				out += step.tag.markup + escapeAt(step.index, step.borrowed, value) + '">\n';
				continue;
			}
			const items: any = value;
			for (const item of items) out += step.tag.markup + esc(item.address) + '">\n';
		}
		return out;
	};
}
function contenders(): Record<string, (page: Page, facts: Facts) => string> {
	const resolver = new Resolver(
		{ site, types: [{ name: 'reserve', kind: 'website', fields: [], rules: [] }], pictures: [] },
		'2026-05-03T10:00:00Z'
	);
	const renderer = new PageRenderer(resolver);
	const eta = new Eta({
		autoEscape: true,
		escapeFunction: (text: unknown) => escapeAttribute(String(text)),
		autoTrim: false
	});
	const etaTemplate = eta.compile(
		template(
			(name) => `<%= it.${name} %>`,
			(name) => `<%~ it.text(it.${name}) %>`
		)
	);
	Handlebars.registerHelper('attribute', (text: string) => new Handlebars.SafeString(escapeAttribute(text)));
	Handlebars.registerHelper('text', (text: string) => new Handlebars.SafeString(escapeText(text)));
	const handlebars = Handlebars.compile(
		template(
			(name) => `{{attribute ${name}}}`,
			(name) => `{{text ${name}}}`
		)
	);
	const liquid = new Liquid();
	liquid.registerFilter('attribute', escapeAttribute);
	liquid.registerFilter('text', escapeText);
	const liquidTemplate = liquid.parse(
		template(
			(name) => `{{ ${name} | attribute }}`,
			(name) => `{{ ${name} | text }}`
		)
	);
	return {
		'Kephalon, without trace': (page) => renderer.render(page),
		'fast': fastOf(resolver),
		'Kephalon, with trace': (page) => renderer.renderWithTrace(page).markup,
		'by hand': (_, facts) => byHand(facts),
		'by hand, four signs': (_, facts) => byHandBarely(facts),
		eta: (_, facts) => eta.render(etaTemplate, { ...dataOf(facts), text: escapeText }),
		handlebars: (_, facts) => handlebars(dataOf(facts)),
		liquidjs: (_, facts) => liquid.renderSync(liquidTemplate, dataOf(facts)) as string
	};
}

const pages = makePages();
const facts = pages.map(({ path, fields }): Facts => ({
	title: fields.title as string,
	summary: fields.summary as string | undefined,
	path,
	picture: (fields.picture as { src: string }).src
}));
const only=(process.env.ONLY??'').split('|'); const all = Object.fromEntries(Object.entries(contenders()).filter(([n])=>!process.env.ONLY||only.includes(n)));

const hostile = { title: ' Tide\u0000 </title><script>\ud800"\n& ', summary: '\u200b<b>\tmarsh\u2028"' };
const hostilePage: Page = { ...pages[1]!, fields: { ...pages[1]!.fields, ...hostile } };
const samples: [Page, Facts][] = [0, 1, 2, 777].map((at) => [pages[at]!, facts[at]!]);
for (const [name, render] of Object.entries(all))
	for (const [page, given] of [...samples, [hostilePage, { ...facts[1]!, ...hostile }] as const]) {
		const [seen, wanted] = [render(page, given), byHand(given)];
		// Bare replacing cannot write a hostile page.
		if (name === 'by hand, four signs' && page === hostilePage) continue;
		if (seen !== wanted) throw new Error(`${name} writes other bytes than the function by hand:\n${seen}\n${wanted}`);
	}

const best = new Map<string, number>();
let written = 0;
for (let round = 0; round < ROUNDS; round++)
	for (const [name, render] of Object.entries(all)) {
		const began = performance.now();
		for (let i = 0; i < PAGES; i++) written += render(pages[i]!, facts[i]!).length;
		best.set(name, Math.max(best.get(name) ?? 0, (PAGES / (performance.now() - began)) * 1000));
	}

const speed = (name: string) => best.get(name) as number;
console.log(
	`${PAGES.toLocaleString('en')} pages, 12 tags each, the fastest of ${ROUNDS} runs (${written.toLocaleString('en')} characters written)\n`
);
for (const [name, pagesPerSecond] of best)
	console.log(`${name.padEnd(26)}${Math.round(pagesPerSecond).toLocaleString('en').padStart(10)} pages a second`);
const ratios: [string, number, number][] = [
	['without trace to by hand', speed('Kephalon, without trace') / speed('by hand'), 0.8],
	['with trace to by hand', speed('Kephalon, with trace') / speed('by hand'), 0.6],
	['without trace to four signs', speed('Kephalon, without trace') / speed('by hand, four signs'), 0],
	['with trace to four signs', speed('Kephalon, with trace') / speed('by hand, four signs'), 0],
	['without trace to eta', speed('Kephalon, without trace') / speed('eta'), 1],
	['with trace to handlebars', speed('Kephalon, with trace') / speed('handlebars'), 1]
];
console.log();
for (const [name, ratio, wanted] of ratios)
	console.log(
		`${name.padEnd(28)}${ratio.toFixed(2).padStart(8)}${wanted > 0 ? `  (to reach: ${wanted.toFixed(1)})` : ''}${ratio < wanted ? '  missed' : ''}`
	);
