import {
	STARTING_LAYOUTS,
	type ContentType,
	type Page,
	type Person,
	type Picture,
	type PictureMention,
	type Rule,
	type ShareLayout,
	type Site
} from '$core';
import type { SiteFile } from '$server/siteFile/siteFile';
import { MORE_PAGES, MORE_TYPES, NAMED_BACK } from './more';

/** The demo site: a made-up trust on a made-up shore. Some of the usual faults are left in on purpose. */

const say = (tag: string, template: string, language?: string): Rule => ({
	tag,
	kind: 'template',
	template,
	...(language && { language })
});

const site: Site = {
	name: 'Merrow Coast Reserves',
	base: 'https://merrowcoast.example/',
	languages: ['en-GB', 'fr'],
	separator: '·',
	fields: {
		tagline: 'Eleven wild places between the tides',
		description:
			'Merrow Coast Reserves looks after eleven wild places on the Merrow shore, and opens them to everyone.',
		publisher: 'Merrow Coast Reserves Trust',
		handle: '@merrowcoast',
		picture: { src: '/pictures/coast.jpg', alt: 'The Merrow shore at low tide, seen from the head' },
		logo: { src: '/pictures/logo.png' },
		icon: { src: '/pictures/icon.png' }
	},
	translations: {
		fr: {
			tagline: 'Onze lieux sauvages entre les marées',
			description: 'Merrow Coast Reserves protège onze lieux sauvages du rivage de Merrow et les ouvre à tous.'
		}
	},
	words: {
		price: { 'en-GB': 'Price', fr: 'Prix' },
		free: { 'en-GB': 'Free', fr: 'Gratuit' },
		by: { 'en-GB': 'Seen by', fr: 'Vu par' },
		starts: { 'en-GB': 'Starts', fr: 'Début' }
	},
	look: { paper: '#f1e9d6', ink: '#1f3f3c', accent: '#a2473c', titleFont: 'Literata', textFont: 'Commissioner' },
	rules: [
		say('title', '{page.title} {separator} {site.name}'),
		say('description', '{page.summary | clip 155}'),
		{
			tag: 'og:image',
			kind: 'pictures',
			sources: [{ from: 'lead' }, { from: 'body' }, { from: 'type' }, { from: 'site' }],
			shapes: ['wide', 'tall']
		},
		{ tag: 'twitter:image', kind: 'borrow', from: 'og:image', shapes: ['double'] }
	]
};

const layoutOf = (name: string) => STARTING_LAYOUTS.find((one) => one.name === name)?.layout as ShareLayout;

const types: ContentType[] = [
	{
		name: 'about',
		label: 'About page',
		fields: [],
		rules: []
	},
	{
		name: 'clip',
		label: 'Hide-cam clip',
		kind: 'video.other',
		playMark: true,
		fields: [{ name: 'seconds', kind: 'number', label: 'Length in seconds' }],
		rules: [say('title', 'Watch: {page.title} {separator} {site.name}')]
	},
	{
		name: 'home',
		label: 'Home',
		special: 'home',
		kind: 'website',
		fields: [],
		rules: [say('title', '{site.name} {separator} {site.tagline}'), say('description', '{site.description}')]
	},
	{
		name: 'listing',
		label: 'Listing',
		special: 'listing',
		fields: [],
		rules: [
			say('title', '{listing.title}[[, page {listing.number} of {listing.pages}]] {separator} {site.name}'),
			say('title', '{listing.title}[[, page {listing.number} sur {listing.pages}]] {separator} {site.name}', 'fr'),
			say(
				'description',
				'[[{listing.count | number} {listing.count | plural "place" "places"} to visit: ]]{page.summary | clip 120}'
			),
			say(
				'description',
				'[[{listing.count | number} {listing.count | plural "lieu" "lieux"} à visiter : ]]{page.summary | clip 120}',
				'fr'
			),
			say('keywords', '{page.below | each "title" | unique | first 5 | join ", "}')
		]
	},
	{
		name: 'not-found',
		label: 'Not found',
		special: 'not-found',
		fields: [],
		rules: [say('title', 'There is no such page {separator} {site.name}'), { tag: 'description', kind: 'leaveOut' }]
	},
	{
		name: 'reserve',
		label: 'Reserve',
		kind: 'website',
		fields: [
			{ name: 'region', kind: 'text', label: 'Region' },
			{ name: 'habitat', kind: 'text', label: 'Habitat' },
			{ name: 'hectares', kind: 'number', label: 'Size in hectares' },
			{ name: 'species', kind: 'list', label: 'What to see' }
		],
		rules: [
			say('title', '{page.title}[[ in {page.region}]] {separator} {site.name}'),
			say('title', '{page.title}[[ à {page.region}]] {separator} {site.name}', 'fr'),
			// French pages go out with its word of English: one of the usual faults.
			say(
				'description',
				'[[{page.habitat | case "sentence"}, {page.hectares | number} hectares. ]]{page.summary | clip 120}'
			),
			say('og:title', '{page.title}[[, {page.region}]]'),
			say('twitter:label1', 'See'),
			say('twitter:data1', '{page.species | first 2 | join}')
		]
	},
	{
		name: 'sighting',
		label: 'Sighting',
		kind: 'article',
		fields: [
			{ name: 'bird', kind: 'text', label: 'Species' },
			{ name: 'place', kind: 'text', label: 'Where' }
		],
		layout: {
			...layoutOf('Horizon'),
			line: {
				...layoutOf('Horizon').line!,
				template: 'Sighting[[ at {page.place}]][[, {page.published | date "d MMMM y"}]]'
			}
		},
		rules: [
			say('title', '{page.title}[[ at {page.place}]] {separator} {site.name}'),
			say('og:title', '{page.title}'),
			say('twitter:label1', '{words.by}'),
			say('twitter:data1', '{page.profile.title}[[, warden of {page.profile.reserve}]]'),
			{
				tag: 'og:image',
				kind: 'pictures',
				sources: [{ from: 'composed' }, { from: 'lead' }, { from: 'site' }],
				shapes: ['wide']
			}
		]
	},
	{
		name: 'walk',
		label: 'Walk',
		kind: 'website',
		fields: [
			{ name: 'starts', kind: 'date', label: 'Starts' },
			{ name: 'meeting', kind: 'text', label: 'Meeting place' },
			{ name: 'price', kind: 'number', label: 'Price in pounds' },
			{ name: 'guide', kind: 'page', label: 'Who guides it' }
		],
		names: { one: { 'en-GB': 'Walk', fr: 'Promenade' }, many: { 'en-GB': 'Walks', fr: 'Promenades' } },
		pieces: { when: '{page.starts | date "EEEE d MMMM, H:mm"}' },
		rules: [
			say('title', '{page.title}[[, {page.starts | date "d MMMM"}]] {separator} {site.name}'),
			say('description', '[[{piece.when}, from {page.meeting}. ]]{page.summary | clip 110}'),
			say('twitter:label1', '{words.starts}'),
			say('twitter:data1', '{page.starts | date "d MMMM y"}'),
			say('twitter:label2', '{words.price}'),
			say('twitter:data2', '[[{page.price | under 1?}{words.free}]] {or} [[{page.price | money "GBP"}]]'),
			say('author', '{page.guide.head.og:title}')
		]
	},
	{
		name: 'warden',
		label: 'Warden',
		kind: 'profile',
		fields: [{ name: 'reserve', kind: 'text', label: 'Reserve' }],
		rules: [
			say(
				'title',
				'{fit 60}{page.title}[[, warden of {page.reserve}]][[{goes 1}{separator}{site.name | unless page.title}]]'
			),
			say('og:title', '{page.title}')
		]
	}
];

type Content = Partial<Omit<Page, 'path' | 'type' | 'rules'>> & { readonly rules?: readonly Rule[] };

const page = (path: string, type: string, fields: Page['fields'], more: Content = {}): Page => ({
	path,
	type,
	state: 'live',
	modified: '2026-04-18T09:30:00+01:00',
	fields,
	rules: [],
	...more
});
const picture = (name: string, alt?: string): PictureMention => ({ src: `/pictures/${name}.jpg`, ...(alt && { alt }) });
const isla: Person = {
	name: 'Isla Thornback',
	handle: '@islathornback',
	address: '/people/isla-thornback',
	picture: '/pictures/isla.jpg'
};
const perran: Person = { name: 'Perran Quill', address: '/people/perran-quill' };

const pages: Page[] = [
	page('/', 'home', { title: 'Home', picture: picture('coast') }),
	page('/about', 'about', {
		title: 'About us',
		// A logo on the card instead of a picture: one of the usual faults.
		picture: { src: '/pictures/logo.png' },
		summary: 'Who looks after the Merrow shore, how the trust is run, and how to give an hour, a day or a legacy.'
	}),
	page('/visit', 'about', {
		title: 'Plan a visit',
		picture: picture('path', 'A boarded path through dune grass'),
		summary: 'Tides, buses, boots and dogs: all you need to know before you set out for one of the reserves.'
	}),
	page('/404', 'not-found', { title: 'Not found' }),
	page(
		'/reserves',
		'listing',
		{
			title: 'Reserves',
			summary: 'Salt marsh, dunes, heath and oakwood along forty miles of shore.',
			picture: picture('map', 'A map of the Merrow shore')
		},
		{ listing: { title: 'Our reserves', number: 1, pages: 2, count: 11 } }
	),
	page(
		'/reserves/saltholm-marsh',
		'reserve',
		{
			title: 'Saltholm Marsh',
			region: 'Inner Merrow',
			habitat: 'salt marsh',
			hectares: 214,
			species: ['Avocet', 'Redshank', 'Sea lavender'],
			picture: picture('marsh', 'Creeks winding through salt marsh in evening light'),
			summary:
				'Two hundred hectares of creek and sea lavender, where avocets nest within sight of the sea wall and the tide comes in without a sound.',
			body: '<p>The marsh floods twice a day. Come an hour before high water and watch the waders lift in their thousands.</p>'
		},
		{ alternates: { fr: '/fr/reserves/marais-de-saltholm' } }
	),
	page(
		'/fr/reserves/marais-de-saltholm',
		'reserve',
		{
			title: 'Le marais de Saltholm',
			region: 'Inner Merrow',
			habitat: 'pré salé',
			hectares: 214,
			species: ['Avocette', 'Chevalier gambette', 'Lavande de mer'],
			picture: picture('marsh', 'Des chenaux dans le pré salé, le soir'),
			summary: 'Deux cents hectares de chenaux et de lavande de mer, où les avocettes nichent en vue de la digue.'
		},
		{ language: 'fr', alternates: { 'en-GB': '/reserves/saltholm-marsh' } }
	),
	page('/reserves/gannet-head', 'reserve', {
		title: 'Gannet Head',
		region: 'West Merrow',
		habitat: 'sea cliff',
		hectares: 58,
		species: ['Gannet', 'Fulmar', 'Thrift'],
		picture: picture('cliff', 'White birds over a dark cliff'),
		summary:
			'Forty thousand gannets on one rock. Bring binoculars, a hat that stays on, and nothing you mind being dived at.'
	}),
	page('/reserves/hollin-wood', 'reserve', {
		// No region: a title must not end in "in".
		title: 'Hollin Wood',
		habitat: 'oakwood',
		hectares: 96,
		species: ['Pied flycatcher', 'Bluebell'],
		picture: picture('wood', 'Low oaks in mist'),
		summary: 'A wood that the wind has combed. The oaks are four hundred years old and none is taller than a house.'
	}),
	page('/reserves/long-strand', 'reserve', {
		title: 'Long Strand',
		region: 'East Merrow',
		habitat: 'shingle',
		hectares: 1120,
		species: ['Little tern', 'Sea kale'],
		picture: picture('strand', 'Seven miles of shingle under a wide sky'),
		summary: 'Seven miles of shingle, with terns in summer and no one at all in winter.'
	}),
	page('/reserves/ember-heath', 'reserve', {
		title: 'Ember Heath',
		region: 'East Merrow',
		habitat: 'heath',
		hectares: 340,
		species: ['Nightjar', 'Dartford warbler', 'Adder'],
		// Too small for a card: another of the usual faults.
		picture: picture('heath-small', 'Heather in flower'),
		summary: 'Heather, gorse and sand, and the nightjar’s engine running after dark from May to August.'
	}),
	page('/reserves/the-skerries-of-saint-orrin-and-the-lesser-skerry-with-the-old-light', 'reserve', {
		title: 'The Skerries of Saint Orrin and the Lesser Skerry with the Old Light',
		region: 'the Outer Isles',
		habitat: 'islands',
		hectares: 12,
		species: ['Grey seal', 'Storm petrel'],
		picture: picture('skerry-tall', 'A lighthouse on a rock, seen from a boat'),
		summary: 'Boats go out when the sea lets them, which is one day in three. Seals are certain; landing is not.'
	}),
	page('/walks/dusk-on-ember-heath', 'walk', {
		title: 'Dusk on Ember Heath',
		starts: '2026-06-12T20:45:00+01:00',
		meeting: 'the Ember car park',
		price: 6,
		guide: '/people/perran-quill',
		picture: picture('dusk', 'The last light over a heath'),
		summary: 'Two slow miles to hear nightjars churr and see the moths that they come for. Quiet clothes, please.'
	}),
	page('/walks/gannets-by-boat', 'walk', {
		title: 'Gannets by boat',
		starts: '2026-07-04T09:00:00+01:00',
		meeting: 'Merrow harbour steps',
		price: 34.5,
		picture: picture('boat', 'A small boat under a cliff white with birds'),
		summary: 'Under the rock in an open boat, with forty thousand birds going about their day overhead.'
	}),
	page('/walks/low-tide-for-beginners', 'walk', {
		title: 'Low tide for beginners',
		starts: '2026-05-17T11:15:00+01:00',
		meeting: 'the Long Strand café',
		price: 0,
		guide: '/people/isla-thornback',
		summary: 'Crabs, anemones and the names of seaweeds, for people of five and upwards.'
	}),
	page(
		'/walks/winter-waders',
		'walk',
		{
			title: 'Winter waders',
			meeting: 'the sea wall',
			price: 4,
			picture: picture('waders', 'A cloud of waders over mud'),
			summary: ''
		},
		{ state: 'draft' }
	),
	page('/sightings/white-tailed-eagle', 'sighting', {
		title: 'A white-tailed eagle',
		bird: 'White-tailed eagle',
		place: 'Saltholm Marsh',
		author: isla,
		published: '2026-03-02T07:40:00+00:00',
		tags: ['Eagles', 'Saltholm Marsh', 'March'],
		section: 'Sightings',
		picture: picture('eagle', 'A large brown eagle low over water'),
		summary:
			'The first on the marsh for a hundred and six years came in from the north-east, put up every wigeon in the county, and stayed for breakfast.'
	}),
	page('/sightings/hoopoe-in-the-car-park', 'sighting', {
		title: 'Hoopoe in the car park',
		bird: 'Hoopoe',
		place: 'Ember Heath',
		author: perran,
		published: '2026-04-09T12:05:00+01:00',
		tags: ['Hoopoe', 'Ember Heath', 'April'],
		section: 'Sightings',
		picture: picture('hoopoe', 'A pink bird with a raised crest on gravel'),
		summary: 'Under a camper van, eating ants, entirely unbothered.'
	}),
	page('/sightings/orca-off-the-skerries', 'sighting', {
		title: '“Orca!” & other shouts <off the Skerries>',
		place: 'the Outer Isles',
		author: isla,
		published: '2026-05-21T17:22:00+01:00',
		tags: ['Whales', 'Outer Isles'],
		section: 'Sightings',
		body: '<p>Four of them, one a calf, went west past the old light a little after five. The boatman said a word that is not printed here. They were in sight for eleven minutes.</p>'
	}),
	page(
		'/sightings/night-of-the-petrels',
		'sighting',
		{
			title: 'The night of the petrels',
			bird: 'Storm petrel',
			place: 'the Outer Isles',
			author: perran,
			published: '2026-07-30T23:55:00+01:00',
			tags: ['Petrels', 'Outer Isles', 'July'],
			section: 'Sightings',
			picture: picture('petrel', 'Small dark birds against the moon'),
			summary:
				'They come ashore only in the dark, they sound like a fairy being sick, and last night there were three thousand.'
		},
		{ rules: [say('og:title', 'Three thousand petrels in the dark')] }
	),
	page('/clips/petrel-at-the-burrow', 'clip', {
		title: 'A petrel comes home',
		seconds: 48,
		picture: picture('petrel', 'A small dark bird at the mouth of a burrow, seen by moonlight'),
		summary: 'Forty-eight seconds from the hide camera on the Lesser Skerry, at ten past one in the morning.'
	}),
	page('/people/isla-thornback', 'warden', {
		title: 'Isla Thornback',
		reserve: 'Saltholm Marsh',
		picture: picture('isla', 'A woman in a blue jersey on a sea wall'),
		summary: 'Isla has counted the birds of Saltholm every morning since 2009 and has missed four.'
	}),
	page('/people/perran-quill', 'warden', {
		title: 'Perran Quill',
		reserve: 'Ember Heath',
		summary: 'Perran burns a little heath each winter so that there is heath each summer.'
	})
];

/** The whole site: with what stands in `more.ts`. */
export function wholeDemoSite(pictures: readonly Picture[]): SiteFile {
	const { types: some, pages: few, ...file } = demoSite(pictures);
	const named = few.map((one) => {
		const fr = NAMED_BACK[one.path];
		return fr ? { ...one, alternates: { ...one.alternates, fr } } : one;
	});
	return { ...file, types: [...some, ...MORE_TYPES], pages: [...named, ...MORE_PAGES] };
}

/** The site file of the demo, with the facts of the pictures as they were drawn. */
export function demoSite(pictures: readonly Picture[]): SiteFile {
	return { format: 'kephalon-site', version: 2, site, types, pages, pictures };
}
