type Three = readonly [string, string, string, example: string];

/** What settings do, by the names they have in the rooms. */
export const SETTINGS: Readonly<Record<string, Three>> = {
	Name: [
		'What the site is called.',
		'Templates put it in by {site.name}, and og:site_name says it.',
		'Another name changes every head that has it; how many is told before.',
		'Merrow Coast Reserves'
	],
	'Public base address': [
		'Where the site stands on the net: all addresses in heads begin with it.',
		'Readers fetch pages and pictures there, so it must be public, best with TLS.',
		'An address of your own machine works for you and for nobody else.',
		'https://www.merrow.example/'
	],
	Languages: [
		'The languages that pages are in, the first being the one all fall back to.',
		'Words, templates and plurals can be said for each.',
		'A page says which it is in; alternates connect its versions.',
		'en, fr'
	],
	'Time zone': [
		'The clock that dates without an offset are meant by.',
		'A template that prints a time prints it on this clock.',
		'Without one it is UTC, which is an hour or more off for most.',
		'Europe/Paris'
	],
	Private: [
		'Nobody without a right to it gets heads, pictures or the sitemap.',
		'Every head says noindex from the next release on.',
		'It is for sites that are not public yet, or never will be.',
		'A rehearsal of the new site'
	],
	'Editors release': [
		'Where there are people, only owners and builders release.',
		'With this, editors do so too: those with an area what lies in it.',
		'Reviewers and readers never do.',
		'Two editors who publish the news by themselves'
	],
	'Releases kept': [
		'So many of the newest releases can be looked at and gone back to.',
		'Older ones go with the next release, for good.',
		'Without a number all are kept, which takes room for each head that changed.',
		'30'
	],
	Separator: [
		'What stands between the parts of a title.',
		'Templates put it in by {separator}; said here, it is the same everywhere.',
		'A dot or a dash takes less width than a bar with spaces.',
		'Walks · Merrow'
	],
	Publisher: [
		'Who stands behind the site.',
		'Templates and share pictures put it in by {site.publisher}.',
		'It may be the same as the name.',
		'Merrow Coast Trust'
	],
	Account: [
		'The account that Twitter card tags name as the site’s.',
		'Every page says it in twitter:site.',
		'It is written with or without the @.',
		'@merrowcoast'
	],
	'Author of pages that name none': [
		'Pages that say who wrote them keep that.',
		'On all others, the author tag says this.',
		'Without it, such pages name nobody.',
		'The wardens'
	],
	'Size of cards': [
		'Readers of Twitter card tags show a large picture or a small one beside the text.',
		'A type can say otherwise.',
		'Large is right where pages have pictures of their own.',
		'summary_large_image'
	],
	'Lean heads': [
		'Twitter card tags that say the same as their Open Graph twins are left out.',
		'Readers that look for them first fall back to the twins.',
		'Heads get shorter, and cards stay the same.',
		'twitter:title gone, og:title there'
	],
	'Paths that robots leave alone (robots.txt)': [
		'What robots.txt asks programs not to fetch.',
		'Those that keep to it make no cards of such pages, and list nothing of them.',
		'It hides nothing from people.',
		'/drafts/'
	],
	'What one of them is called': [
		'One page of the type in words, and several.',
		'The rooms say it, and templates by {type.one} and {type.many}.',
		'Each language of the site has its own words.',
		'a walk, walks'
	],
	'These pages are videos': [
		'The mark for video is laid over their pictures.',
		'People then see what a click does.',
		'A page can say otherwise.',
		'A film on the bird cliffs'
	],
	'Kind (og:type)': [
		'What og:type says of pages of this type.',
		'Readers of Open Graph tell articles, books, songs and videos apart by it.',
		'Without one it is “website”; with “article”, dates, author and section go out, too.',
		'article'
	],
	'It stands for': [
		'A type can be the home page, a list of other pages, or the page for what is not there.',
		'Of a list, templates know its number; the page for what is not there is hidden from search.',
		'Most types stand for none of these.',
		'A listing: “Walks, page 2 of 7”'
	],
	'Its own picture': [
		'Stands in for pages of the type that have none.',
		'It goes before the site’s.',
		'Other pictures can stand for what a field says, such as its category.',
		'A boot for walks, a tent for camps'
	],
	'Switched off': [
		'Pages of the type are left out of releases.',
		'What is served of them goes with the next release; nothing here is lost.',
		'How many that takes off the site is told before it is kept.',
		'Last year’s events'
	],
	'Paths of its pages': [
		'Pages that stand nowhere here: their heads are made when they are asked for.',
		'What stands in braces is taken out of the path and put into the address of the record.',
		'A path that a page of the site has goes before.',
		'/boats/{id}'
	],
	'Address of a record': [
		'Where the data of such a page is had from, in JSON.',
		'It is kept as long as the answer allows; while its server is away, the last good head goes out.',
		'Inside a network it must be named when the server is started.',
		'https://data.merrow.example/boats/{id}.json'
	],
	Samples: [
		'Paths that templates of the type are tried on, as its hard pages.',
		'Take the longest name, the one without a picture, the oddest.',
		'They are asked for when somebody looks, and kept nowhere.',
		'/boats/7, /boats/4711'
	],
	Path: [
		'Where the page stands under the base address.',
		'Another path leaves a way from the old one, so that old links still lead here.',
		'Both canonical and og:url follow it.',
		'/walks/old-light'
	],
	Type: [
		'What sort of page it is.',
		'Its type says which fields it has and what its head says by default.',
		'With another type, its own rules stay.',
		'walk'
	],
	'Mark for video': [
		'The mark is laid over this page’s pictures, or not.',
		'Left alone, its type decides.',
		'It is drawn into the share picture.',
		'A walk that is a film'
	],
	State: [
		'A live page is released, a draft is not yet, a private one never.',
		'What is taken back to a draft goes from the site with the next release.',
		'Its rules and fields stay.',
		'draft until the opening day'
	],
	'Hidden from search': [
		'Its head says noindex: search leaves it out of its listings.',
		'Cards are made of it all the same.',
		'It stands in no sitemap.',
		'A page of thanks after a form'
	],
	'Key page': [
		'One of the pages that matter most.',
		'They are checked first, and a release says when one of them would be shared blank.',
		'A site has a handful of them.',
		'The home page, the prices, the way there'
	],
	'Target phrase': [
		'What people should find the page by.',
		'Title and description are checked for it; nothing is written by it.',
		'Two pages for one phrase stand in each other’s way.',
		'cliff walks with children'
	]
};
