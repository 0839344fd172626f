import type { ContentType, Page, Person, PictureMention, Rule } from '$core';

/** The rest of the demo site: guides, the shop, more walks and sightings, listings, and versions in French with gaps. */

const say = (tag: string, template: string): Rule => ({ tag, kind: 'template', template });

export const MORE_TYPES: readonly ContentType[] = [
	{
		name: 'guide',
		label: 'Field guide',
		kind: 'article',
		fields: [
			{ name: 'parts', kind: 'list', label: 'Parts' },
			{ name: 'level', kind: 'text', label: 'For whom' }
		],
		rules: [
			say('title', '{page.title}: a field guide {separator} {site.name}'),
			say('description', '{page.summary | clip 120}[[ Parts: {page.parts | join}.]]'),
			say('twitter:label1', 'Reading time'),
			say('twitter:data1', '{page.minutes} min')
		]
	},
	{
		name: 'product',
		label: 'Shop item',
		kind: 'product',
		fields: [
			{ name: 'price', kind: 'number', label: 'Price in pounds' },
			{
				...{ name: 'stock', kind: 'flag', label: 'In stock' },
				words: [
					{ is: true, words: { 'en-GB': 'In stock', fr: 'En stock' } },
					{ is: false, words: { 'en-GB': 'Sold out', fr: 'Épuisé' } }
				]
			}
		],
		names: { one: { 'en-GB': 'Shop item', fr: 'Article' }, many: { 'en-GB': 'Shop items', fr: 'Articles' } },
		pieces: { price: '{page.price | money "GBP"}' },
		rules: [
			say('title', '{page.title} {separator} The shop of {site.name}'),
			// It ends in a gap where an item has no price: one of the usual faults.
			say('description', '{page.summary | clip 120} For {piece.price}'),
			say('twitter:label1', '{words.price}'),
			say('twitter:data1', '{piece.price}')
		]
	}
];

const picture = (name: string, alt?: string): PictureMention => ({ src: `/pictures/${name}.jpg`, ...(alt && { alt }) });
const page = (path: string, type: string, fields: Page['fields'], more: Partial<Page> = {}): Page => ({
	...{ path, type, state: 'live', modified: '2026-05-02T10:00:00+01:00', fields, rules: [] },
	...more
});
const isla: Person = { name: 'Isla Thornback', handle: '@islathornback', address: '/people/isla-thornback' };
const perran: Person = { name: 'Perran Quill', address: '/people/perran-quill' };
const wren: Person = { name: 'Wren Ashdown' };

const RESERVES: readonly Page[] = [
	page('/reserves/curlew-flats', 'reserve', {
		...{ title: 'Curlew Flats', region: 'Inner Merrow', habitat: 'mudflat', hectares: 480 },
		species: ['Curlew', 'Dunlin', 'Eelgrass'],
		picture: picture('waders', 'A cloud of waders over mud'),
		summary: 'Mud to the horizon, and under every square foot of it a larder. Thirty thousand waders agree each winter.'
	}),
	page('/reserves/penhallow-dunes', 'reserve', {
		...{ title: 'Penhallow Dunes', region: 'West Merrow', habitat: 'dunes', hectares: 167 },
		species: ['Skylark', 'Sand lizard', 'Marram'],
		picture: picture('path', 'A boarded path through dune grass'),
		summary: 'The dunes walk inland a yard a year, and the boards that cross them are moved to match.'
	}),
	page('/reserves/withy-fen', 'reserve', {
		...{ title: 'Withy Fen', region: 'Inner Merrow', habitat: 'fen', hectares: 73 },
		species: ['Bittern', 'Marsh harrier', 'Yellow flag'],
		summary: 'Reeds higher than anyone, water below them, and something in the middle that booms.'
	}),
	page('/reserves/orrin-light', 'reserve', {
		// The same words as another reserve: two pages that say the same.
		...{ title: 'Gannet Head', region: 'West Merrow', habitat: 'sea cliff', hectares: 9 },
		picture: picture('cliff', 'White birds over a dark cliff'),
		summary:
			'Forty thousand gannets on one rock. Bring binoculars, a hat that stays on, and nothing you mind being dived at.'
	})
];

const guide = (slug: string, title: string, parts: readonly string[], summary: string, author: Person, image: string) =>
	page(`/guides/${slug}`, 'guide', {
		...{ title, parts, summary, author, section: 'Field guides', level: 'Beginners' },
		published: '2026-03-15T08:00:00+00:00',
		picture: picture(image),
		body: parts
			.map(
				(part) =>
					`<h2>${part}</h2><p>${summary} ${part} comes first in the hand and last in the eye. Look at the bill, then at the legs, and then at what it is doing: on this shore the third tells more than the first two.</p>`
			)
			.join('')
	});
const GUIDES: readonly Page[] = [
	guide(
		'waders-of-the-merrow',
		'Waders of the Merrow',
		['Size', 'Bill', 'Legs', 'Call'],
		'Twelve small brown birds that are not the same bird, told apart by someone who got them wrong for years.',
		isla,
		'waders'
	),
	guide(
		'seaweeds-by-colour',
		'Seaweeds by colour',
		['Greens', 'Browns', 'Reds'],
		'Green at the top of the shore, brown in the middle, red at the bottom: the tide has sorted them for you.',
		wren,
		'strand'
	),
	guide(
		'moths-at-a-lit-sheet',
		'Moths at a lit sheet',
		['Before dusk', 'The first hour', 'After midnight'],
		'A lamp, a bed sheet, and patience. What comes to it on Ember Heath from May to September.',
		perran,
		'dusk'
	),
	guide(
		'reading-the-tide',
		'Reading the tide',
		['Tables', 'Springs and neaps', 'Wind'],
		'How to know where the sea will be, so as not to be there.',
		wren,
		'marsh'
	),
	guide(
		'lichens-on-old-oaks',
		'Lichens on old oaks',
		['Crusts', 'Leaves', 'Beards'],
		'The wood is four hundred years old; some of what grows on it is older.',
		perran,
		'wood'
	)
];

const product = (slug: string, title: string, price: number | undefined, stock: boolean, summary: string) =>
	page(`/shop/${slug}`, 'product', {
		...{ title, summary, stock, section: 'Shop' },
		...(price !== undefined && { price })
	});
const SHOP: readonly Page[] = [
	product(
		'tide-table-2027',
		'Tide table 2027',
		4.5,
		true,
		'Every high and low water at Merrow harbour, with the moon beside it.'
	),
	product('gannet-mug', 'Gannet mug', 11, true, 'Holds a third of a litre. The bird looks past you.'),
	product('field-notebook', 'Field notebook', 7.25, false, 'Paper that takes a pencil in the rain, ruled for counts.'),
	product(
		'adopt-a-nest-box',
		'Adopt a nest box',
		undefined,
		true,
		'You get a photograph in June and no say in who moves in.'
	),
	product('hide-blanket', 'Hide blanket', 48, true, 'Wool, the colour of wet slate. For February.')
];

const walk = (
	slug: string,
	title: string,
	starts: string,
	meeting: string,
	price: number,
	summary: string,
	image?: string
) =>
	page(`/walks/${slug}`, 'walk', {
		...{ title, starts, meeting, price, summary },
		...(image && { picture: picture(image) })
	});
const WALKS: readonly Page[] = [
	walk(
		'bats-of-hollin-wood',
		'Bats of Hollin Wood',
		'2026-08-07T20:30:00+01:00',
		'the Hollin gate',
		5,
		'Detectors for twelve, so twelve of you. The bats begin at ten to nine.',
		'wood'
	),
	walk(
		'shingle-flowers',
		'Shingle flowers',
		'2026-06-20T10:00:00+01:00',
		'the Long Strand café',
		4,
		'Sea kale, yellow horned poppy and the rest that live on salt and stones.',
		'strand'
	),
	walk(
		'by-torch-on-the-marsh',
		'By torch on the marsh',
		'2026-10-24T18:00:00+01:00',
		'the sea wall',
		6,
		'Geese come in to roost as the light goes. Torches stay off until the last skein.',
		'marsh'
	),
	walk(
		'skerries-landing',
		'Skerries landing',
		'2026-07-18T08:00:00+01:00',
		'Merrow harbour steps',
		52,
		'If the sea lets us: the old light, the seals, and an hour ashore.',
		'boat'
	),
	walk(
		'fungi-after-rain',
		'Fungi after rain',
		'2026-10-11T10:30:00+01:00',
		'the Hollin gate',
		5,
		'What comes up overnight, what may be touched, and what may not be eaten.'
	)
];

const sighting = (
	slug: string,
	title: string,
	bird: string,
	place: string,
	published: string,
	author: Person,
	summary: string,
	image?: string
) =>
	page(`/sightings/${slug}`, 'sighting', {
		...{ title, bird, place, published, author, summary, section: 'Sightings', tags: [bird, place] },
		...(image && { picture: picture(image) })
	});
const SIGHTINGS: readonly Page[] = [
	sighting(
		'bittern-booming',
		'The bittern is back',
		'Bittern',
		'Withy Fen',
		'2026-03-19T06:10:00+00:00',
		isla,
		'One bird, one note, a mile away and through two walls.'
	),
	sighting(
		'glossy-ibis',
		'Glossy ibis on the flats',
		'Glossy ibis',
		'Curlew Flats',
		'2026-04-28T11:00:00+01:00',
		wren,
		'It stood among the curlews as if nobody would notice.',
		'waders'
	),
	sighting(
		'first-swallow',
		'First swallow',
		'Swallow',
		'Long Strand',
		'2026-04-02T15:40:00+01:00',
		perran,
		'In off the sea at twenty to four, straight over the café and on.',
		'strand'
	),
	sighting(
		'snow-buntings',
		'Snow buntings',
		'Snow bunting',
		'Long Strand',
		'2026-01-11T13:20:00+00:00',
		wren,
		'Forty of them, blown along the tideline like paper.'
	),
	sighting(
		'otter-at-noon',
		'Otter at noon',
		'Otter',
		'Withy Fen',
		'2026-02-08T12:05:00+00:00',
		isla,
		'It ate an eel on the jetty, and then it looked at the people looking at it.',
		'marsh'
	)
];

const listing = (path: string, title: string, count: number, summary: string, language?: string) =>
	page(
		path,
		'listing',
		{ title, summary },
		{ listing: { title, number: 1, pages: 1, count }, ...(language && { language }) }
	);
const LISTINGS: readonly Page[] = [
	listing(
		'/reserves/by-habitat/wetland',
		'Wetland reserves',
		4,
		'Marsh, fen and mudflat: where to stand with dry feet.'
	),
	listing('/reserves/by-habitat/woodland', 'Woodland reserves', 1, 'Low oaks, high wind.'),
	listing('/walks/by-month/june', 'Walks in June', 3, 'Long evenings, and what to do with them.'),
	listing('/walks/by-month/october', 'Walks in October', 2, 'Geese, fungi and a good coat.'),
	listing('/shop', 'Shop', 5, 'Everything in it pays for a metre of path.')
];

/** Some with both ways of the link, one that is not named back, one that leads to a draft. */
const FRENCH: readonly Page[] = [
	page(
		'/fr/reserves/cap-des-fous',
		'reserve',
		{
			...{ title: 'Le cap des Fous', region: 'West Merrow', habitat: 'falaise', hectares: 58 },
			picture: picture('cliff', 'Des oiseaux blancs au-dessus d’une falaise sombre'),
			summary: 'Quarante mille fous de Bassan sur un seul rocher. Prenez des jumelles et un chapeau qui tient.'
		},
		{ language: 'fr', alternates: { 'en-GB': '/reserves/gannet-head' } }
	),
	page(
		'/fr/visiter',
		'about',
		{
			title: 'Préparer sa visite',
			picture: picture('path', 'Un chemin de planches dans les dunes'),
			summary: 'Marées, bus, bottes et chiens : tout ce qu’il faut savoir avant de partir.'
		},
		{ language: 'fr', alternates: { 'en-GB': '/visit' } }
	),
	page(
		'/fr/boutique',
		'listing',
		{ title: 'La boutique', summary: 'Chaque achat paie un mètre de sentier.' },
		{
			language: 'fr',
			listing: { title: 'La boutique', number: 1, pages: 1, count: 5 },
			alternates: { 'en-GB': '/shop' }
		}
	),
	page(
		'/fr/guides/lire-la-maree',
		'guide',
		{
			title: 'Lire la marée',
			parts: ['Tables', 'Vives-eaux', 'Vent'],
			summary: 'Savoir où sera la mer, pour ne pas y être.'
		},
		{ language: 'fr', state: 'draft', alternates: { 'en-GB': '/guides/reading-the-tide' } }
	)
];

const PEOPLE: readonly Page[] = [
	page('/people/wren-ashdown', 'warden', {
		...{ title: 'Wren Ashdown', reserve: 'Long Strand' },
		summary: 'Wren walks seven miles of shingle each week and has opinions on every one.'
	}),
	page('/clips/harrier-food-pass', 'clip', {
		...{ title: 'A harrier drops its catch', seconds: 21 },
		picture: picture('marsh', 'Reeds in evening light'),
		summary: 'Twenty-one seconds over Withy Fen: he lets go, she turns on her back and takes it.'
	}),
	page('/clips/seal-pup', 'clip', {
		...{ title: 'Seal pup, third day', seconds: 33 },
		summary: 'White, round, and asleep for thirty of thirty-three seconds.'
	})
];

export const MORE_PAGES: readonly Page[] = [
	...[...RESERVES, ...GUIDES, ...SHOP, ...WALKS, ...SIGHTINGS, ...LISTINGS],
	...[...FRENCH, ...PEOPLE]
];

/** Pages that name their French version in turn; the others are left one-way on purpose. */
export const NAMED_BACK: Readonly<Record<string, string>> = { '/reserves/gannet-head': '/fr/reserves/cap-des-fous' };

/** What came after the first release, in two rounds: pages by their paths. */
export const ROUNDS: readonly (readonly string[])[] = [
	[
		'/sightings/night-of-the-petrels',
		'/walks/skerries-landing',
		'/walks/by-torch-on-the-marsh',
		...SHOP.map(({ path }) => path),
		'/shop',
		'/fr/boutique'
	],
	['/sightings/orca-off-the-skerries', '/guides/moths-at-a-lit-sheet', '/walks/bats-of-hollin-wood', '/fr/visiter']
];
