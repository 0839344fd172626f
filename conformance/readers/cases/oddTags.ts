import { IMAGE, SITE, TAGS, WORDS, added, html, one, page, picture, tagged, type ReaderCase } from './answers';

const TITLE = '<title>Eider</title>';
const OG_TITLE = '<meta property="og:title" content="Eider">';
const sound = { cards: { gangway: { title: 'Eider', picture: `${SITE}/p.jpg` } } };
const titled = (title: string) => ({ cards: { gangway: { title } } });

/** Tags as hands and programs write them, none of which is wrong to a browser. */
export const ODD_TAGS: ReaderCase[] = [
	tagged('a property with white space around it', 'property="og:title"', 'property=" og:title "', [], sound),
	tagged('a property in capitals', 'property="og:title"', 'property="OG:Title"', [], sound),
	tagged('a name in capitals', 'name="description"', 'NAME="Description"', [], sound),
	tagged('content before property', OG_TITLE, '<meta content="Eider" property="og:title">', [], sound),
	tagged(
		'an attribute twice: the first counts',
		OG_TITLE,
		'<meta property="og:title" property="og:none" content="Eider" content="No">',
		[],
		sound
	),
	tagged('a line break within a title', TITLE, '<title>\n\tEider\n</title>', [], sound),
	tagged(
		'white space of all kinds within og:title',
		OG_TITLE,
		'<meta property="og:title" content=" Eider \t of\n\nthe  north ">',
		[],
		titled('Eider of the north')
	),
	tagged(
		'a no-break space stays one',
		OG_TITLE,
		'<meta property="og:title" content="Eider 12&nbsp;km">',
		[],
		titled('Eider 12\u00a0km')
	),
	tagged(
		'references by number, in both bases',
		OG_TITLE,
		'<meta property="og:title" content="&#69;ide&#x72; &#8217;">',
		[],
		titled('Eider ’')
	),
	tagged(
		'a reference without its end',
		OG_TITLE,
		'<meta property="og:title" content="Eider &copy 2026">',
		[],
		titled('Eider © 2026')
	),
	tagged(
		'a reference that nobody knows stays as it is',
		OG_TITLE,
		'<meta property="og:title" content="Eider &eider;">',
		['markup-shown'],
		titled('Eider &eider;')
	),
	tagged(
		'an angle bracket in a title is text',
		OG_TITLE,
		'<meta property="og:title" content="Eider < Gull">',
		[],
		titled('Eider < Gull')
	),
	tagged(
		'quotation marks of the other kind within a value',
		OG_TITLE,
		`<meta property="og:title" content='The "Eider"'>`,
		[],
		titled('The "Eider"')
	),
	tagged(
		'a title in two directions',
		OG_TITLE,
		'<meta property="og:title" content="Eider عيدر">',
		[],
		titled('Eider عيدر')
	),
	tagged(
		'a soft hyphen and a joiner in a title',
		OG_TITLE,
		'<meta property="og:title" content="Eider&shy;duck&#8205;">',
		[],
		{}
	),
	tagged(
		'a character of four bytes',
		OG_TITLE,
		'<meta property="og:title" content="𝔈ider 🦆">',
		[],
		titled('𝔈ider 🦆')
	),
	tagged(
		'a value beyond all planes',
		OG_TITLE,
		'<meta property="og:title" content="Eider &#x110000;">',
		['broken-characters'],
		{}
	),
	tagged(
		'a null as a reference',
		OG_TITLE,
		'<meta property="og:title" content="Ei&#0;der">',
		['broken-characters'],
		{}
	),
	tagged('a self-closing slash', OG_TITLE, '<meta property="og:title" content="Eider"/>', [], sound),
	tagged('a meta that is closed', OG_TITLE, '<meta property="og:title" content="Eider"></meta>', [], sound),
	tagged('a meta within a noscript of the head', OG_TITLE, `<noscript>${OG_TITLE}</noscript>`, [], titled('Eider')),
	tagged(
		'an attribute value without an end swallows what follows',
		OG_TITLE,
		'<meta property="og:title" content="Eider>',
		['missing-tag', 'near-tag'],
		{}
	),
	added(
		'a second description in another language',
		'<meta name="description" lang="fr" content="Un canard des mers froides.">',
		['doubled-tag'],
		sound
	),
	added(
		'the same tag by property and by name',
		'<meta name="og:title" content="Eider">',
		['doubled-tag', 'near-tag'],
		sound
	),
	added('og:title twice, the same', OG_TITLE, ['doubled-tag'], sound),
	added('og:title twice, two things', '<meta property="og:title" content="Gull">', ['doubled-tag'], {
		cards: { gangway: { title: 'Eider' }, headland: { title: 'Gull' } }
	}),
	added('a twitter title beside it', '<meta name="twitter:title" content="Duck">', [], {
		cards: { headland: { title: 'Duck' }, gangway: { title: 'Eider' } }
	}),
	added('a twitter title by property', '<meta property="twitter:title" content="Duck">', [], {
		cards: { headland: { title: 'Duck' } }
	}),
	added('a twitter card of a kind that is none', '<meta name="twitter:card" content="huge">', ['value-broken'], sound),
	added('og:locale as a language tag', '<meta property="og:locale" content="en-GB">', ['value-broken'], sound),
	added('og:type of a name of one’s own', '<meta property="og:type" content="product">', [], sound),
	added('og:type with a typing slip', '<meta property="og:type" content="artcile">', ['value-broken'], sound),
	added(
		'article:published_time that is no date',
		'<meta property="article:published_time" content="yesterday">',
		['value-broken'],
		sound
	),
	added(
		'changed before it was published',
		'<meta property="article:published_time" content="2026-05-02"><meta property="article:modified_time" content="2026-05-01">',
		['dates-swapped'],
		sound
	),
	added(
		'og:image:width that is no number',
		'<meta property="og:image:width" content="1200px">',
		['picture-lies', 'value-broken'],
		sound
	),
	added('an empty og:description', '<meta property="og:description" content="">', ['empty-tag'], sound),
	added('a tag whose name is nearly right', '<meta property="og:descripton" content="A duck.">', ['near-tag'], sound),
	added('a rel that is nearly right', '<link rel="cannonical" href="https://s.example/eider">', ['near-tag'], sound),
	added('two canonicals that agree', `<link rel="canonical" href="${SITE}/eider">`, ['doubled-tag'], sound),
	added('two canonicals that do not', `<link rel="canonical" href="${SITE}/gull">`, ['doubled-tag'], sound),
	tagged('a canonical with a fragment', `${SITE}/eider">`, `${SITE}/eider#top">`, ['value-broken'], sound),
	tagged('a canonical that is relative', `href="${SITE}/eider"`, 'href="/eider"', ['relative-address'], sound),
	tagged(
		'a canonical of another host',
		`href="${SITE}/eider"`,
		'href="https://other.example/eider"',
		['names-elsewhere'],
		sound
	),
	tagged(
		'a canonical without TLS',
		`href="${SITE}/eider"`,
		'href="http://s.example/eider"',
		['insecure-address'],
		sound
	),
	tagged('several rels in one link', 'rel="canonical"', 'rel="shortlink canonical"', [], sound),
	tagged('a rel in capitals', 'rel="canonical"', 'REL="CANONICAL"', [], sound),
	tagged('a picture by //', `${SITE}/p.jpg`, '//s.example/p.jpg', ['relative-address'], {}),
	tagged('a picture with white space in its address', `${SITE}/p.jpg`, ` ${SITE}/p.jpg `, [], sound),
	tagged('a picture whose address says & by a reference', `${SITE}/p.jpg`, `${SITE}/q?a=1&amp;b=2`, [], {
		serves: { '/q?a=1&b=2': picture('p.jpg') },
		cards: { gangway: { picture: `${SITE}/q?a=1&b=2` } }
	}),
	tagged('a picture with a fragment', `${SITE}/p.jpg`, `${SITE}/p.jpg#top`, [], {}),
	tagged(
		'a picture with its port said',
		`${SITE}/p.jpg`,
		`${SITE.replace('s.example', 's.example:443')}/p.jpg`,
		[],
		{}
	),
	tagged('an og:image:url instead', IMAGE, `<meta property="og:image:url" content="${SITE}/p.jpg">`, [], sound),
	tagged(
		'an og:image:secure_url alone',
		IMAGE,
		`<meta property="og:image:secure_url" content="${SITE}/p.jpg">`,
		['missing-tag'],
		{}
	),
	tagged(
		'facts of a picture before the picture',
		IMAGE,
		`<meta property="og:image:alt" content="An eider"><meta property="og:image" content="${SITE}/p.jpg">`,
		[],
		sound
	),
	added('a title within a drawing after the title', '<svg><title>Drawing</title></svg>', [], {}),
	added('conditional comments', '<!--[if IE]><meta property="og:title" content="Old"><![endif]-->', [], sound),
	added('a comment that ends in two dashes and a mark', '<!-- no --!><meta name="author" content="Ada">', [], sound),
	added(
		'an element of one’s own in the head ends it',
		'<x-analytics></x-analytics><meta property="og:description" content="Below.">',
		['below-head'],
		{}
	),
	added(
		'a script in the head does not end it',
		'<script>var a = "<meta property=og:title content=No>";</script><meta name="author" content="Ada">',
		[],
		sound
	),
	added(
		'a style in the head does not end it',
		'<style>a::before { content: "<title>No</title>" }</style><meta name="author" content="Ada">',
		[],
		sound
	),
	added('a base after what is absolute changes nothing', '<base href="https://other.example/">', [], sound),
	added(
		'robots: noindex and index',
		'<meta name="robots" content="noindex"><meta name="robots" content="index">',
		['noindex-served'],
		sound
	),
	added('robots with a directive that is none', '<meta name="robots" content="noidex">', ['value-broken'], sound),
	added(
		'max-snippet alone hides nothing',
		'<meta name="robots" content="max-snippet:50, max-image-preview:large">',
		[],
		sound
	),
	one('a page in German that says so', html(page().replace('lang="en"', 'lang="de"')), [], sound),
	one('a language that is none', html(page().replace('lang="en"', 'lang="english"')), ['language-broken'], sound),
	one(
		'a language of the document against og:locale',
		html(page(`${TAGS}<meta property="og:locale" content="de_DE">`)),
		['languages-differ'],
		sound
	),
	one(
		'tags after a body that began by itself',
		html(`<!doctype html><p>Hello</p>${TAGS}${WORDS}`),
		['below-head', 'missing-tag', 'missing-tag', 'missing-tag', 'missing-tag'],
		{}
	),
	one('a document without a doctype', html(page().replace('<!doctype html>', '')), [], sound),
	one(
		'a frame set',
		html(
			`<!doctype html><html lang="en"><head><meta charset="utf-8">${TAGS}</head><frameset><frame src="/p"></frameset></html>`
		),
		[],
		sound
	)
];
