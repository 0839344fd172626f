import { afterEach, expect, test } from 'vitest';
import { learnFrench } from '../french';
import { speakBy } from '../words/speaking';
import {
	ENGLISH_REASONS,
	reasonWords,
	type DriftWhy,
	type NoPage,
	type NoPicture,
	type NoPlace,
	type SmallCard
} from './reasons';

afterEach(() => speakBy(() => 'en-GB'));

const PAGES: readonly NoPage[] = [
	{ is: 'ended', end: 'timeout', more: 'nothing for 10 seconds' },
	{ is: 'ended', end: 'an-end-of-its-own' },
	{ is: 'ended', end: 'an-end-of-its-own', more: 'said so' },
	{ is: 'answers', status: 503 },
	{ is: 'answers', status: 308, isUnfollowed: true },
	{ is: 'other', what: 'download' },
	{ is: 'other', what: 'application/pdf' }
];
const PICTURES: readonly NoPicture[] = [
	{ is: 'ended', end: 'unknown-name' },
	{ is: 'ended', end: 'x', more: 'y' },
	{ is: 'answers', status: 404 },
	...(['shut', 'empty', 'cut-short', 'moves'] as const).map((is) => ({ is })),
	{ is: 'no-picture' },
	{ is: 'no-picture', but: 'text/html' },
	{ is: 'no-picture', but: 'no-picture' },
	{ is: 'scheme', scheme: 'data' },
	{ is: 'too-large', megabytes: 20 },
	{ is: 'form', form: 'AVIF' },
	{ is: 'heavy', bytes: 9_004_768, most: 5_000_000 },
	{ is: 'mark', width: 1, height: 1 }
];
const SMALL: readonly SmallCard[] = [
	{ is: 'chooses', by: 'twitter:card', says: undefined },
	{ is: 'chooses', by: 'twitter:card', says: 'summary' },
	{ is: 'narrow', width: 300, least: 600 }
];
const PLACES: readonly NoPlace[] = [
	{ is: 'no-page' },
	{ is: 'no-page', of: 'site' },
	{ is: 'no-page', of: 'folder' },
	...(['not-public', 'type-off', 'itself'] as const).map((is) => ({ is })),
	{ is: 'state', state: 'draft' },
	{ is: 'elsewhere', at: 'https://s.example/' }
];
const DRIFTS: readonly DriftWhy[] = [
	{ is: 'page', why: { is: 'answers', status: 404 } },
	{ is: 'shut' },
	{ is: 'shut', robots: { is: 'late' } },
	{ is: 'none' },
	{ is: 'tags', tags: ['title', 'og:image'] },
	{ is: 'tags', tags: ['title'], since: 3 },
	{ is: 'says', said: 'robots: noindex' },
	{ is: 'picture', tag: 'og:image', address: 'https://s.example/p.jpg', why: { is: 'answers', status: 404 } }
];
function all() {
	const words = reasonWords();
	return [
		...PAGES.map(words.noPage),
		...PICTURES.map(words.noPicture),
		...SMALL.map(words.smallCard),
		...PLACES.map(words.noPlace),
		...DRIFTS.map((why) => words.drift(why)),
		words.drift({ is: 'none' }, 'Bottle'),
		words.robotsFailed({ is: 'answers', status: 500 }),
		...(['late', 'broken-off', 'no-answer'] as const).map((is) => words.robotsFailed({ is }))
	];
}

test('reasons in words', () => {
	expect(reasonWords()).toBe(ENGLISH_REASONS);
	expect(all()).toMatchInlineSnapshot(`
		[
		  "it does not answer in time (nothing for 10 seconds)",
		  "an-end-of-its-own",
		  "said so",
		  "its server answers with 503",
		  "its server answers with 308, which it does not follow",
		  "a download",
		  "application/pdf",
		  "cannot be fetched: there is no such host",
		  "cannot be fetched: y",
		  "cannot be fetched: its server answers with 404",
		  "is shut by the robots.txt of its host",
		  "is empty",
		  "ends in the middle",
		  "moves, and it shows none that does",
		  "is no picture",
		  "is no picture but text/html",
		  "is no picture but no picture",
		  "is an address of data:, which nobody fetches",
		  "has more than 20 MB",
		  "is AVIF, which it cannot read",
		  "has 9.0 MB, and it fetches 5.0 MB at the most",
		  "is 1 × 1, a mark and no picture",
		  "twitter:card says nothing",
		  "twitter:card says summary",
		  "the picture is 300 pixels wide; from 600 it would fill the card",
		  "is no page",
		  "is no page of the site",
		  "is no page of the folder",
		  "is not public",
		  "is of a type that is switched off",
		  "is the page itself",
		  "is set to draft",
		  "says itself that it stands at https://s.example/",
		  "its server answers with 404",
		  "robots.txt forbids it",
		  "robots.txt does not come in time",
		  "none of its tags is served",
		  "title, og:image",
		  "title: as from release 3",
		  "robots: noindex",
		  "og:image: https://s.example/p.jpg cannot be fetched: its server answers with 404",
		  "none of its tags is served, as Bottle reads it",
		  "answers with 500",
		  "does not come in time",
		  "breaks off on its way",
		  "cannot be reached",
		]
	`);
});

test('and in French, none as in English', () => {
	const english = all();
	learnFrench();
	speakBy(() => 'fr');
	expect(all()).toMatchInlineSnapshot(`
		[
		  "elle ne répond pas à temps (nothing for 10 seconds)",
		  "an-end-of-its-own",
		  "said so",
		  "son serveur répond 503",
		  "son serveur répond 308, ce qu’il ne suit pas",
		  "un fichier à télécharger",
		  "application/pdf",
		  "ne peut pas être obtenue : il n’y a pas de tel hôte",
		  "ne peut pas être obtenue : y",
		  "ne peut pas être obtenue : son serveur répond 404",
		  "est interdite par le robots.txt de son hôte",
		  "est vide",
		  "finit au milieu",
		  "bouge, et il n’en montre aucune qui bouge",
		  "n’est pas une image",
		  "n’est pas une image, mais text/html",
		  "n’est pas une image, mais autre chose qu’une image",
		  "est une adresse en data:, que personne ne va chercher",
		  "pèse plus de 20 Mo",
		  "est en AVIF, qu’il ne sait pas lire",
		  "pèse 9,0 Mo, et il en prend 5,0 Mo au plus",
		  "fait 1 × 1 : une marque, et non une image",
		  "twitter:card ne dit rien",
		  "twitter:card dit summary",
		  "l’image a 300 pixels de large ; à partir de 600, elle remplirait la carte",
		  "n’est pas une page",
		  "n’est pas une page du site",
		  "n’est pas une page du dossier",
		  "n’est pas publique",
		  "est d’un type qui est coupé",
		  "est la page même",
		  "est un brouillon",
		  "dit elle-même qu’elle se trouve à https://s.example/",
		  "son serveur répond 404",
		  "robots.txt l’interdit",
		  "robots.txt n’arrive pas à temps",
		  "aucune de ses balises n’est servie",
		  "title, og:image",
		  "title : comme à partir de la version 3",
		  "robots: noindex",
		  "og:image : https://s.example/p.jpg ne peut pas être obtenue : son serveur répond 404",
		  "aucune de ses balises n’est servie, telle que Bottle la lit",
		  "répond 500",
		  "n’arrive pas à temps",
		  "s’interrompt en chemin",
		  "ne peut pas être atteint",
		]
	`);
	const alike = all().filter((one, at) => one === english[at]);
	// Names, and what others say.
	expect(alike).toEqual(['an-end-of-its-own', 'said so', 'application/pdf', 'title, og:image', 'robots: noindex']);
});
