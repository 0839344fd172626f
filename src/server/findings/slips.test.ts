import { afterAll, expect, test } from 'vitest';
import { added, BASE, content, instead, PAGE, sound, SoundSite, toldOf, type Plant } from './planted.sample';

const site = new SoundSite();
afterAll(() => site.remove());

const titled = (title: string) => instead('The pier at low water – Merrow Guide', title);
const linkedData = (text: string) =>
	instead('{"@context":"https://schema.org","@type":"Article","headline":"The pier at low water"}', text);
const inData = (more: string) =>
	instead('"headline":"The pier at low water"}', `"headline":"The pier at low water",${more}}`);

/** Slips of hands and of programs, as others found them. */
test.each<[string, Plant, string]>([
	['a base of one’s own machine', instead('<title>', '<base href="http://localhost:3000/"><title>'), 'local-served '],
	['a robot of its own', added('<meta name="fathom" content="noindex">'), 'noindex-for meta:fathom'],
	['a folder for a picture', content('og:image', `${BASE}pictures/`), 'file-missing og:image'],
	[
		'a type that is not the picture’s',
		added('<meta property="og:image:type" content="image/png">'),
		'value-broken og:image:type'
	],
	['the name of a file for words', content('og:image:alt', 'pier-2.jpg'), 'placeholder og:image:alt'],
	['Home', titled('Home'), 'thin-title title'],
	['a part of a title that is missing at its beginning', titled('– Merrow Guide'), 'template-left title'],
	['and at its end', titled('The pier at low water |'), 'template-left title'],
	['undefined for a part', titled('undefined – Merrow Guide'), 'template-left title'],
	['null behind a colon', titled('Merrow Guide: null'), 'template-left title'],
	['a reference misspelt', titled('The pier &nbps; at low water'), 'markup-shown title'],
	['one escaped twice that is not often', content('og:title', 'The pier&amp;rsquo;s end'), 'escaped-twice og:title'],
	[
		'a paragraph',
		content('description', '<p>A walk of two miles along the old pier, with seals.</p>'),
		'markup-shown description'
	],
	[
		'the same, escaped',
		content('og:description', '&lt;p&gt;A walk of two miles&lt;/p&gt;'),
		'markup-shown og:description'
	],
	[
		'a remark',
		content('description', '<!-- text --> A walk of two miles along the old pier, with seals.'),
		'markup-shown description'
	],
	[
		'a program’s brackets',
		content('description', "[gallery ids='1,2'] A walk of two miles along the pier.".replaceAll("'", '&quot;')),
		'markup-shown description'
	],
	[
		'a heading in signs',
		content('description', '## A walk of two miles along the old pier, with seals.'),
		'markup-shown description'
	],
	[
		'strong in signs',
		content('description', 'A walk of **two miles** along the old pier, with seals.'),
		'markup-shown description'
	],
	[
		'a link in signs',
		content('description', 'A walk of two miles along the [old pier](/pier), with seals.'),
		'markup-shown description'
	],
	['an address’s way', content('og:title', 'The%20pier%20at%20low%20water'), 'escaped-twice og:title'],
	['a form’s way', content('og:title', 'The+pier+at+low+water'), 'escaped-twice og:title'],
	['a script’s way', content('og:title', 'The pier\\u0020at low water'), 'escaped-twice og:title'],
	['a name between at signs', content('og:title', '@@title@@'), 'template-left og:title'],
	['a name in two brackets', content('og:title', '[[title]]'), 'template-left og:title'],
	['the key of a translation', content('og:title', 'seo.pier.title'), 'template-left og:title'],
	[
		'a translation that is missing',
		content('og:title', '[missing &quot;en.title&quot; translation]'),
		'template-left og:title'
	],
	[
		'what a program complains of',
		content('description', 'Warning: Undefined variable $x in /srv/index.php on line 12'),
		'template-left description'
	],
	['what another complains of', content('og:title', 'Liquid error: not found'), 'template-left og:title'],
	['quotation marks in a value', content('og:title', 'The "pier" at low water'), 'near-tag og:title'],
	[
		'x-default that is not there',
		instead(`hreflang="x-default" href="${BASE}walks/pier.html"`, `hreflang="x-default" href="${BASE}walks/gone.html"`),
		'version-nowhere hreflang'
	],
	['itself in another language', instead('hreflang="en" href', 'hreflang="de" href'), 'languages-differ alternate'],
	['no language said', instead('<html lang="en">', '<html lang="">'), 'language-broken '],
	[
		'another locale that is the same',
		added('<meta property="og:locale:alternate" content="en_GB">'),
		'value-broken og:locale:alternate'
	],
	['a size without a side', instead('sizes="32x32"', 'sizes="32"'), 'value-broken icon'],
	[
		'a feed that is called nearly so',
		instead('application/atom+xml', 'application/atom'),
		'value-broken alternate-form'
	],
	['two encodings', added('<meta http-equiv="Content-Type" content="text/html; charset=iso-8859-1">'), 'doubled-tag '],
	[
		'the beginning of all counting',
		content('article:published_time', '1970-01-01T00:00:00Z'),
		'placeholder article:published_time'
	],
	['an account that stands for one', content('twitter:site', '@username'), 'placeholder twitter:site'],
	['JSON-LD of nearly its type', instead('application/ld+json', 'application/json+ld'), 'broken-data '],
	['JSON-LD of nothing', linkedData('{"@context":"https://schema.org","headline":"The pier"}'), 'broken-data '],
	[
		'JSON-LD with a template',
		instead('"headline":"The pier at low water"', '"headline":"{{ title }}"'),
		'template-left '
	],
	['JSON-LD of undefined', instead('"headline":"The pier at low water"', '"headline":"undefined"'), 'template-left '],
	['JSON-LD of one’s own machine', inData('"url":"http://localhost:3000/walks/pier"'), 'local-served '],
	['JSON-LD of a day that is none', inData('"datePublished":"yesterday"'), 'value-broken '],
	['the same further in', inData('"mainEntity":[{"@type":"Event","startDate":"2026-13-01"}]'), 'value-broken ']
])('%s is told, too', (_, plant, wanted) => {
	const findings = site.foundWith(plant(sound(PAGE)));
	expect(findings.map(({ finding }) => `${finding.code} ${finding.tag ?? ''}`)).toContain(wanted);
	expect(findings.length).toBeLessThanOrEqual(3);
});

/** What looks like a slip and is none. */
test.each<[string, Plant]>([
	['a page about a word of programs', (html) => html.replace(/(<title>|<h1>)[^<–]*/g, '$1undefined ')],
	['a page about references', titled('The nbsp reference – Merrow Guide')],
	['a word of programs to be found by', content('keywords', 'NaN')],
	['a token of a program', added('<meta name="csrf-token" content="abc%2Bdef%3D%3D">')],
	['words with signs between', added('<meta name="harbour-words" content="gull+tern+eider">')],
	[
		'how many',
		content('description', '# of seals on the pier at low water, by day and by season, as they were counted.')
	],
	['a list of kinds', titled('Sun + Sea – Merrow Guide')],
	[
		'per cent',
		content('description', '100% of the walk is along the old pier, and 20% of it under water on most days.')
	],
	[
		'a price in brackets',
		content('description', 'A walk [two miles] along the old pier (see the map), with seals on most days.')
	],
	[
		'a pointer of C',
		content('description', 'How **argv is read by programs of the harbour office, and what comes of each of its words.')
	],
	[
		'an address with a sign in it',
		content('description', 'Write to seals@pier.example and & ask; they answer on most days, and gladly so.')
	],
	['a language that stands for more', instead('<html lang="en">', '<html lang="en-GB-oxendict">')],
	['another locale', added('<meta property="og:locale:alternate" content="fr_FR">')],
	['any size', instead('sizes="32x32"', 'sizes="any"')],
	['several sizes', instead('sizes="32x32"', 'sizes="16x16 32X32 48x48"')],
	['the same encoding said twice', added('<meta http-equiv="Content-Type" content="text/html; charset=UTF8">')],
	[
		'JSON-LD of several things',
		linkedData('{"@context":"https://schema.org","@graph":[{"@type":"WebSite","name":"Merrow Guide"},{"@id":"#x"}]}')
	],
	[
		'JSON-LD of a year',
		inData('"dateCreated":"1904","dateModified":"2026-05","uploadDate":"2026-05-03T18:30:00+02:00"')
	],
	['JSON-LD that names itself', inData('"@id":"#article","image":"/guide/pictures/1.jpg"')],
	['JSON-LD without a context', linkedData('[{"name":"The pier"}]')],
	['a type as it is', added('<meta property="og:image:type" content="image/jpeg">')],
	['a meta of one’s own', added('<meta name="harbour" content="none of it, nofollow">')],
	['a title that ends in a dash within', titled('Low water – a pier-')],
	['home in a longer title', titled('Home of the seals – Merrow Guide')]
])('%s is no slip', (_, plant) => {
	expect(toldOf(site.foundWith(plant(sound(PAGE))))).toEqual([]);
});
