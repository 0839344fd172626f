import { ownOf } from '../own';
import { otherWords } from '../words/speaking';
import type { TagDefinition, TagFamily, TagKind, TagPlace } from './types';

type More = Partial<Omit<TagDefinition, 'name' | 'purpose' | 'kind' | 'markup'>>;

/** The names are our own or checked (`OWN_NAME`, `OWN_PROPERTY`): nothing in them needs escaping. */
const MARKUP: Readonly<Record<TagPlace, (key: string) => string>> = {
	title: () => '<title>',
	rel: (key) => `<link rel="${key}" href="`,
	name: (key) => `<meta name="${key}" content="`,
	property: (key) => `<meta property="${key}" content="`
};

const row =
	(place: TagPlace, family: TagFamily) =>
	(name: string, kind: TagKind, purpose: string, more: More = {}): TagDefinition => {
		const key = more.key ?? name;
		const { repeated = false, parent, twin, fact, attributes, aim, legacy, choices, open } = more;
		return {
			name,
			place,
			key,
			kind,
			family,
			repeated,
			parent,
			twin,
			fact,
			attributes,
			markup: MARKUP[place](key),
			purpose,
			aim,
			legacy,
			choices,
			open
		};
	};

/** What tags are for, by their names, in other languages. */
export const PURPOSES = otherWords<Readonly<Record<string, string>>>();

/** What a tag is for, in a sentence. */
export const purposeOf = ({ name, purpose }: Pick<TagDefinition, 'name' | 'purpose'>): string =>
	ownOf(PURPOSES.now(), name) ?? purpose;

/** A tag of a head that was kept: what is needed to write it again as it was written. */
export const tagAsWritten = (name: string, place: TagPlace, key: string): TagDefinition =>
	row(place, 'plain')(name, 'text', '', { key });

const plain = row('name', 'plain');
const link = row('rel', 'plain');
const og = row('property', 'og');
const card = row('name', 'twitter');
const many = { repeated: true } as const;

/** The facts of a video or sound: they belong to the one before them. */
const mediaFacts = (parent: string, sized: boolean) => [
	og(`${parent}:secure_url`, 'address', 'The same file over https, where its own address is http.', { parent }),
	og(`${parent}:type`, 'mediaType', 'The media type of the file, so that a player knows what to expect.', { parent }),
	...(sized
		? [
				og(`${parent}:width`, 'number', 'The width in pixels.', { parent }),
				og(`${parent}:height`, 'number', 'The height in pixels.', { parent })
			]
		: [])
];

const OG_TYPES = [
	'website',
	'article',
	'book',
	'profile',
	'music.song',
	'music.album',
	'music.playlist',
	'music.radio_station',
	'video.movie',
	'video.episode',
	'video.tv_show',
	'video.other'
];

/**
 * Every tag that Kephalon knows, in the order of output (R11): plain metadata, Open Graph, Twitter card. A structured
 * property stands directly after what it belongs to. Names and meanings: the HTML standard, the Open Graph protocol,
 * the card markup's reference.
 */
export const CATALOGUE: readonly TagDefinition[] = [
	row('title', 'plain')('title', 'text', 'The name of the page in browser tabs, bookmarks and search listings.', {
		aim: [15, 60]
	}),
	plain('description', 'text', 'One or two sentences that a search listing may show under the title.', {
		aim: [70, 155]
	}),
	plain('author', 'text', 'Who wrote the page.'),
	plain('keywords', 'text', 'Words the page is about.', {
		legacy: 'No search engine of weight has read it for years; it only tells others what you aim for.'
	}),
	plain('abstract', 'text', 'A very short summary.', {
		legacy: 'No reader is known to show it; the description has its place.'
	}),
	link('canonical', 'address', 'The one address that stands for the page, when several lead to it.'),
	plain(
		'robots',
		'directives',
		'What search engines may do with the page: list it, follow its links, show text and pictures of it.'
	),
	link('alternate', 'address', 'The same page in another language.', many),
	plain('theme-color', 'colour', 'The colour a browser gives its own frame around the page.'),
	plain('theme-color:dark', 'colour', 'The same for readers who prefer dark screens.', {
		key: 'theme-color',
		attributes: { media: '(prefers-color-scheme: dark)' }
	}),
	link('icon', 'picture', 'The small picture in browser tabs and bookmarks, and beside the name in chats.', many),
	link('apple-touch-icon', 'picture', 'The picture on the home screen of a telephone.'),
	link('manifest', 'address', 'Where the facts stand for installing the site as an application.'),
	link('feed:atom', 'address', 'A feed of the site’s news, in Atom.', {
		key: 'alternate',
		attributes: { type: 'application/atom+xml' },
		repeated: true
	}),
	link('feed:rss', 'address', 'A feed of the site’s news, in RSS.', {
		key: 'alternate',
		attributes: { type: 'application/rss+xml' },
		repeated: true
	}),
	link('feed:json', 'address', 'A feed of the site’s news, in JSON.', {
		key: 'alternate',
		attributes: { type: 'application/feed+json' },
		repeated: true
	}),

	og('og:title', 'text', 'The title on the card when the page is shared.', { aim: [15, 60] }),
	og('og:description', 'text', 'The line or two under the title on the card.', { aim: [60, 120] }),
	og('og:type', 'choice', 'What kind of thing the page is about.', { choices: OG_TYPES, open: true }),
	og('og:url', 'address', 'The address that shares of the page are counted under.'),
	og('og:site_name', 'text', 'The name of the whole site, shown small beside the title.'),
	og('og:determiner', 'choice', 'The word that goes before the title in a sentence.', {
		choices: ['a', 'an', 'the', 'auto']
	}),
	og('og:locale', 'locale', 'The language and territory the page is written for.'),
	og('og:locale:alternate', 'locale', 'Other languages the page exists in.', many),
	og('og:image', 'picture', 'The picture on the card.', many),
	og('og:image:secure_url', 'address', 'The picture over https, where its own address is http.', {
		parent: 'og:image',
		fact: 'secure'
	}),
	og('og:image:type', 'mediaType', 'The media type of the picture.', { parent: 'og:image', fact: 'type' }),
	og('og:image:width', 'number', 'The picture’s width in pixels, so that the card is right at the first fetch.', {
		parent: 'og:image',
		fact: 'width'
	}),
	og('og:image:height', 'number', 'The picture’s height in pixels.', { parent: 'og:image', fact: 'height' }),
	og('og:image:alt', 'text', 'What the picture shows, in words, for those who cannot see it.', {
		parent: 'og:image',
		fact: 'alt',
		aim: [10, 200]
	}),
	og('og:video', 'address', 'A video that belongs to the page.', many),
	...mediaFacts('og:video', true),
	og('og:audio', 'address', 'A sound that belongs to the page.', many),
	...mediaFacts('og:audio', false),

	og('article:published_time', 'date', 'When the article first appeared.'),
	og('article:modified_time', 'date', 'When the article last changed.'),
	og('article:expiration_time', 'date', 'When the article is out of date.'),
	og('article:author', 'address', 'The address of the author’s profile.', many),
	og('article:publisher', 'address', 'The address of the publisher’s profile.'),
	og('article:section', 'text', 'The part of the site the article stands in.'),
	og('article:tag', 'text', 'A word the article is about.', many),
	og('book:author', 'address', 'The address of the author’s profile.', many),
	og('book:isbn', 'text', 'The book’s number.'),
	og('book:release_date', 'date', 'When the book came out.'),
	og('book:tag', 'text', 'A word the book is about.', many),
	og('profile:first_name', 'text', 'The person’s given name.'),
	og('profile:last_name', 'text', 'The person’s family name.'),
	og('profile:username', 'text', 'The short name the person goes by.'),
	og('profile:gender', 'choice', 'The person’s gender, where it is public.', { choices: ['male', 'female'] }),
	og('music:duration', 'number', 'The length of the song in seconds.'),
	og('music:album', 'address', 'The album the song is on.', many),
	og('music:album:disc', 'number', 'Which disc of the album.', { parent: 'music:album' }),
	og('music:album:track', 'number', 'Which track of the disc.', { parent: 'music:album' }),
	og('music:musician', 'address', 'Who made the music.', many),
	og('music:song', 'address', 'A song of the album or list.', many),
	og('music:song:disc', 'number', 'Which disc the song is on.', { parent: 'music:song' }),
	og('music:song:track', 'number', 'Which track the song is.', { parent: 'music:song' }),
	og('music:release_date', 'date', 'When the album came out.'),
	og('music:creator', 'address', 'Who made the list or station.', many),
	og('video:actor', 'address', 'Who plays in the video.', many),
	og('video:actor:role', 'text', 'The part that is played.', { parent: 'video:actor' }),
	og('video:director', 'address', 'Who directed the video.', many),
	og('video:writer', 'address', 'Who wrote the video.', many),
	og('video:duration', 'number', 'The length of the video in seconds.'),
	og('video:release_date', 'date', 'When the video came out.'),
	og('video:tag', 'text', 'A word the video is about.', many),
	og('video:series', 'address', 'The series the episode belongs to.'),

	card('twitter:card', 'choice', 'The form of the card: small, with a large picture, with a player, or for an app.', {
		choices: ['summary', 'summary_large_image', 'player', 'app']
	}),
	card('twitter:site', 'handle', 'The account of the site.'),
	card('twitter:site:id', 'text', 'The same account by its number.'),
	card('twitter:creator', 'handle', 'The account of the author.'),
	card('twitter:creator:id', 'text', 'The same account by its number.'),
	card('twitter:title', 'text', 'The title on the card of readers that look for Twitter card tags first.', {
		twin: 'og:title',
		aim: [15, 70]
	}),
	card('twitter:description', 'text', 'The line under that title.', { twin: 'og:description', aim: [60, 200] }),
	card('twitter:image', 'picture', 'The picture on that card.', { twin: 'og:image' }),
	card('twitter:image:alt', 'text', 'What that picture shows, in words.', {
		twin: 'og:image:alt',
		parent: 'twitter:image',
		fact: 'alt',
		aim: [10, 200]
	}),
	card('twitter:player', 'address', 'The page that holds a player, for player cards.'),
	card('twitter:player:width', 'number', 'The player’s width in pixels.', { parent: 'twitter:player' }),
	card('twitter:player:height', 'number', 'The player’s height in pixels.', { parent: 'twitter:player' }),
	card('twitter:player:stream', 'address', 'The bare media file behind the player.', { parent: 'twitter:player' }),
	card('twitter:player:stream:content_type', 'mediaType', 'The media type of that file.', { parent: 'twitter:player' }),
	...['iphone', 'ipad', 'googleplay'].flatMap((shop) => [
		card(`twitter:app:name:${shop}`, 'text', 'The name of the app, for app cards.'),
		card(`twitter:app:id:${shop}`, 'text', 'The number of the app in its shop.'),
		card(`twitter:app:url:${shop}`, 'text', 'The app’s own address for this page.')
	]),
	card('twitter:app:country', 'text', 'The country whose shop has the app, where it is not the usual one.'),
	card('twitter:label1', 'text', 'The name of a first fact shown on the card in chats.', { aim: [3, 20] }),
	card('twitter:data1', 'text', 'That first fact.', { aim: [1, 30] }),
	card('twitter:label2', 'text', 'The name of a second fact.', { aim: [3, 20] }),
	card('twitter:data2', 'text', 'That second fact.', { aim: [1, 30] })
];

/** What a link can say beside where it leads, in the order in which it is written (HTML standard, section 4.2.4). */
export const LINK_ATTRIBUTES = ['hreflang', 'type', 'sizes', 'media', 'title', 'crossorigin'] as const;
export type LinkAttribute = (typeof LINK_ATTRIBUTES)[number];

/** Names that files use for a tag beside its own. */
const OTHER_NAMES: ReadonlyMap<string, string> = new Map([
	['shortcut icon', 'icon'],
	['og:image:url', 'og:image']
]);

/** The tag that a name in a file stands for, in whatever case: its own, or another that files use for it. */
export function tagOfName(name: string): TagDefinition | undefined {
	const lower = name.toLowerCase();
	return findTag(OTHER_NAMES.get(lower) ?? lower);
}

const BY_NAME: ReadonlyMap<string, TagDefinition> = new Map(CATALOGUE.map((tag) => [tag.name, tag]));

export const TAG_NAMES: readonly string[] = CATALOGUE.map((tag) => tag.name);

const OWN_NAME = /^[A-Za-z][\w.-]{0,79}$/;
const OWN_PROPERTY = /^([A-Za-z][\w-]{0,39}):[\w.:-]{1,80}$/;

/** What stands in the `name` attribute for tags of the catalogue: a tag of one's own would stand beside the real one. */
const RESERVED_NAMES = new Set(CATALOGUE.filter(({ place }) => place === 'name').map(({ key }) => key));
/** `<meta name="title">` is read as a title by some programs, and the charset is not a matter of rules. */
for (const name of ['title', 'charset']) RESERVED_NAMES.add(name);
/** The vocabularies of the catalogue, whose families are switched on and off; no site declares them anew. */
const RESERVED_PREFIXES = new Set(
	CATALOGUE.flatMap(({ place, key }) => (place === 'rel' || !key.includes(':') ? [] : [key.slice(0, key.indexOf(':'))]))
);

/** Whether a name of one's own is none to be had: it would put a second tag of the same name beside the real one. */
export function isReserved(name: string): boolean {
	const [before, after] = splitName(name.toLowerCase());
	if (before === 'robots' || before === 'meta') return RESERVED_NAMES.has(after);
	return RESERVED_PREFIXES.has(before) && !BY_NAME.has(name);
}

const splitName = (name: string): [before: string, after: string] => {
	const at = name.indexOf(':');
	return [name.slice(0, Math.max(0, at)), name.slice(at + 1)];
};

/**
 * The definition of a tag by its name: a row of the catalogue, or one of three open forms. `robots:NAME` is a robots
 * rule for one program; `meta:NAME` plain metadata of your own, such as the proof that a site is yours;
 * `PREFIX:NAME` a property whose prefix the site declares. Undefined when the name is none of these, or reserved.
 */
export function findTag(name: string, prefixes: Readonly<Record<string, string>> = {}): TagDefinition | undefined {
	const known = BY_NAME.get(name);
	if (known || isReserved(name)) return known;
	const [before, after] = splitName(name);
	if (before === 'robots' && OWN_NAME.test(after))
		return plain(name, 'directives', `What the program “${after}” may do with the page.`, { key: after });
	if (before === 'meta' && OWN_NAME.test(after))
		return plain(name, 'text', 'Plain metadata of your own, such as the proof that a site is yours.', { key: after });
	const prefix = OWN_PROPERTY.exec(name)?.[1];
	if (prefix && Object.hasOwn(prefixes, prefix))
		return row('property', 'plain')(name, 'text', `A property of the vocabulary ${prefixes[prefix]}.`, many);
	return undefined;
}

/** The prefix of a name that would be a tag if its prefix were declared. */
export function undeclaredPrefix(name: string): string | undefined {
	return findTag(name) || isReserved(name) ? undefined : OWN_PROPERTY.exec(name)?.[1];
}

const fact = (name: string) => BY_NAME.get(`og:image:${name}`) as TagDefinition;

/** The tags that carry the facts of a share picture. */
export const PICTURE_FACT_TAGS = {
	secure: fact('secure_url'),
	type: fact('type'),
	width: fact('width'),
	height: fact('height'),
	alt: fact('alt')
} as const;
