import { expect, test } from 'vitest';
import { finding } from '$core';
import { answeredIn } from '../speaking';
import { triedInWords, wayInWords, type Way } from './mendWords';

const site = { of: 'site' } as const;
const walk = { of: 'type', called: 'Walk' } as const;
const page = { of: 'page', path: '/a' } as const;
const template = '{page.title}';
const first = finding('redirect-nowhere', { of: 'site' }, undefined, { path: '/old', to: '/gone' });
/** Each way, and each place of those that have one. */
const WAYS: Readonly<Record<Way['do'], readonly Way[]>> = {
	write: [site, walk, page].map((at) => ({ do: 'write', tag: 'title', at, template })),
	'take-away': [{ do: 'take-away', tag: 'canonical', at: page }],
	begin: [{ do: 'begin', language: 'fr', at: walk, template }],
	'own-first': [{ do: 'own-first', at: walk }],
	'least-width': [{ do: 'least-width', pixels: 600, at: site }],
	'picture-of-site': [{ do: 'picture-of-site', name: 'Shore.jpg' }],
	draw: [{ do: 'draw', called: 'Walk' }],
	link: [{ do: 'link', path: '/a', to: '/fr/a' }],
	unlink: [{ do: 'unlink', path: '/a', to: '/fr/a' }],
	forget: [{ do: 'forget', path: '/a' }],
	together: [{ do: 'together', count: 12, first }]
};

test('each way to mend is said in both languages', () => {
	const all = () => Object.values(WAYS).flat().map(wayInWords);
	const [english, french] = [all(), answeredIn('fr', all)];
	expect(english).toMatchInlineSnapshot(`
		[
		  "title for the whole site: write {page.title}",
		  "title for every walk: write {page.title}",
		  "title at /a: write {page.title}",
		  "canonical at /a: take its rule away",
		  "Begin a rule for fr with the words to translate, for every walk: {page.title}",
		  "Put the page’s own pictures before the logo for every walk",
		  "Pass over pictures under 600 pixels for the whole site",
		  "Make Shore.jpg the share picture of the site",
		  "Draw share pictures for every walk that has none",
		  "Let /fr/a name /a",
		  "Take the version /fr/a away from /a",
		  "Let /a lead nowhere",
		  "All 12 at once: Let it lead to a page that is there.",
		]
	`);
	expect(french).toMatchInlineSnapshot(`
		[
		  "title, pour tout le site : écrire {page.title}",
		  "title, pour chaque page du type « Walk » : écrire {page.title}",
		  "title, sur /a : écrire {page.title}",
		  "canonical, sur /a : ôter sa règle",
		  "Commencer une règle pour fr avec les mots à traduire, pour chaque page du type « Walk » : {page.title}",
		  "Mettre les images de la page avant le logo, pour chaque page du type « Walk »",
		  "Passer les images de moins de 600 pixels, pour tout le site",
		  "Faire de Shore.jpg l’image de partage du site",
		  "Dessiner une image de partage pour chaque page du type « Walk » qui n’en a pas",
		  "Faire que /fr/a nomme /a",
		  "Ôter la version /fr/a de /a",
		  "Faire que /a ne mène plus nulle part",
		  "Les 12 en une fois : Faites-le mener à une page qui est là.",
		]
	`);
	expect(french.filter((one, at) => one === english[at])).toEqual([]);
});

test('what came of trying one, with what it leaves', () => {
	const gap = finding('gap', page, 'title', { tag: 'title', variables: ['page.region'] });
	const tried = { on: 7, mended: 6, leaves: gap };
	expect(triedInWords(tried)).toEqual({ on: 7, mended: 6, leaves: 'page.region left a gap in the title' });
	expect(answeredIn('fr', () => triedInWords(tried)).leaves).toBe('page.region a laissé un trou dans le titre');
	expect(triedInWords({ on: 1, mended: 1 })).toEqual({ on: 1, mended: 1 });
});
