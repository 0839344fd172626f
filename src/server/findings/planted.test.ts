import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { findInFolder } from './folder';
import {
	added,
	BASE,
	content,
	FILE,
	instead,
	PAGE,
	sound,
	SoundSite,
	toldOf,
	type Plant,
	type Sound
} from './planted.sample';

/** Faults planted in a sound site, one at a time: each is told, with its line; and the sound site is told nothing of. */

const site = new SoundSite();
afterAll(() => site.remove());

test('a sound site is told nothing of', () => {
	expect(toldOf(findInFolder(site.folder).findings)).toEqual([]);
});

test.each<[string, Plant, string]>([
	['robots misspelt', content('robots', 'noidnex'), 'value-broken robots'],
	['robots with a space', content('robots', 'no index'), 'value-broken robots'],
	['robots in another language', content('robots', 'index, suivre'), 'value-broken robots'],
	['a robots value out of its range', content('robots', 'max-image-preview:huge'), 'value-broken robots'],
	['noindex', content('robots', 'noindex'), 'noindex-served robots'],
	['a card that is none', content('twitter:card', 'sumary_large'), 'value-broken twitter:card'],
	['a card with a hyphen', content('twitter:card', 'summary-large-image'), 'value-broken twitter:card'],
	['a locale with a hyphen', content('og:locale', 'en-US'), 'value-broken og:locale'],
	['a locale that is none', content('og:locale', 'en-UK'), 'value-broken og:locale'],
	['a locale of no region', content('og:locale', 'en_UK'), 'value-broken og:locale'],
	['a locale in words', content('og:locale', 'English'), 'value-broken og:locale'],
	['priority for property', instead('property="og:type"', 'priority="og:type"'), 'near-tag og:type'],
	['propery for property', instead('property="og:image"', 'propery="og:image"'), 'near-tag og:image'],
	['name for property', instead('property="og:title"', 'name="og:title"'), 'near-tag og:title'],
	['a name misspelt', instead('name="description"', 'name="desciption"'), 'near-tag description'],
	['a property misspelt', instead('property="og:image"', 'property="og:imge"'), 'near-tag og:image'],
	['og:titel', instead('property="og:title"', 'property="og:titel"'), 'near-tag og:title'],
	['twitter:cart', instead('name="twitter:card"', 'name="twitter:cart"'), 'near-tag twitter:card'],
	['value for content', instead('og:type" content=', 'og:type" value='), 'near-tag og:type'],
	['cannonical', instead('rel="canonical"', 'rel="cannonical"'), 'near-tag canonical'],
	['alternative', instead('rel="alternate" hreflang="fr"', 'rel="alternat" hreflang="fr"'), 'near-tag alternate'],
	[
		'canonical of another page',
		instead(`canonical" href="${BASE}${FILE}`, `canonical" href="${BASE}walks/tides.html`),
		'names-other canonical'
	],
	[
		'canonical of the home page',
		instead(`canonical" href="${BASE}${FILE}`, `canonical" href="${BASE}`),
		'names-home canonical'
	],
	[
		'canonical of another site',
		instead(`canonical" href="${BASE}`, 'canonical" href="https://other.example/'),
		'names-elsewhere canonical'
	],
	[
		'canonical of a page that is not there',
		instead(`canonical" href="${BASE}${FILE}`, `canonical" href="${BASE}walks/never.html`),
		'canonical-nowhere canonical'
	],
	[
		'canonical of localhost',
		instead(`canonical" href="${BASE}`, 'canonical" href="http://localhost:8080/'),
		'local-served canonical'
	],
	[
		'canonical that is no address',
		instead(`canonical" href="${BASE}`, 'canonical" href="https//merrow.example/'),
		'canonical-nowhere canonical'
	],
	['canonical twice', added(`<link rel="canonical" href="${BASE}walks/tides.html">`), 'doubled-tag canonical'],
	['og:url of another page', content('og:url', `${BASE}walks/tides.html`), 'names-other og:url'],
	['og:url of another site', content('og:url', 'https://other.example/x'), 'names-elsewhere og:url'],
	['og:url of a page that is not there', content('og:url', `${BASE}walks/never.html`), 'file-missing og:url'],
	['og:url in another form', content('og:url', `${BASE}walks/pier`), 'names-differ og:url'],
	['a picture that is not there', content('og:image', `${BASE}pictures/never.jpg`), 'file-missing og:image'],
	['a relative picture', content('og:image', '../pictures/1.jpg'), 'relative-address og:image'],
	[
		'a picture without TLS',
		content('og:image', `${BASE.replace('https', 'http')}pictures/1.jpg`),
		'insecure-address og:image'
	],
	['a picture in data', content('og:image', 'data:image/png;base64,AAAA'), 'scheme-address og:image'],
	['a picture with a space in its address', content('og:image', `${BASE}pictures/a b.jpg`), 'value-broken og:image'],
	['no picture', content('og:image', ''), 'missing-tag og:image'],
	['an icon that is not there', instead('/guide/icons/small.png', '/guide/icons/gone.png'), 'file-missing icon'],
	['a manifest that is not there', instead('site.webmanifest', 'gone.webmanifest'), 'file-missing manifest'],
	['a feed that is not there', instead('news.atom', 'gone.atom'), 'file-missing feed:atom'],
	[
		'a version that is not there',
		instead(`hreflang="fr" href="${BASE}fr/jetee.html`, `hreflang="fr" href="${BASE}fr/rien.html`),
		'version-nowhere hreflang'
	],
	[
		'a version that does not lead back',
		instead(`hreflang="fr" href="${BASE}fr/jetee.html`, `hreflang="fr" href="${BASE}walks/tides.html`),
		'version-one-way hreflang'
	],
	['a version in no language', instead('hreflang="fr"', 'hreflang="french"'), 'language-broken alternate'],
	['a version of no region', instead('hreflang="en"', 'hreflang="en-UK"'), 'language-broken alternate'],
	['a version with an underscore', instead('hreflang="en"', 'hreflang="en_GB"'), 'language-broken alternate'],
	[
		'two versions in one language',
		added(`<link rel="alternate" hreflang="fr" href="${BASE}walks/tides.html">`),
		'version-twice alternate'
	],
	['a document in no language', instead('<html lang="en">', '<html lang="english">'), 'language-broken '],
	[
		'mojibake',
		content('description', 'Un cafÃ© au bout de la jetÃ©e, et la mer de tous les cÃ´tÃ©s de la promenade.'),
		'double-encoded description'
	],
	['escaped twice', content('og:title', 'Salt &amp;amp; Sea'), 'escaped-twice og:title'],
	['a template left', content('og:title', '{{ page.title }}'), 'template-left og:title'],
	['undefined', content('og:description', 'undefined'), 'template-left og:description'],
	['Untitled Document', instead('The pier at low water – Merrow Guide', 'Untitled Document'), 'placeholder title'],
	[
		'Lorem ipsum',
		content('description', 'Lorem ipsum dolor sit amet, consectetur adipiscing elit, sed do eiusmod tempor.'),
		'placeholder description'
	],
	['Page title', instead('The pier at low water – Merrow Guide', 'Page title'), 'placeholder title'],
	['a title of a letter', instead('The pier at low water – Merrow Guide', 'A'), 'thin-title title'],
	['no title', instead('<title>The pier at low water – Merrow Guide</title>', ''), 'missing-tag title'],
	['an empty tag', content('og:site_name', ''), 'empty-tag og:site_name'],
	['two titles', added('<title>Another title of the page</title>'), 'doubled-tag title'],
	['two og:titles', added('<meta property="og:title" content="Another title">'), 'doubled-tag og:title'],
	[
		'JSON-LD with a comma too many',
		instead('"headline":"The pier at low water"}', '"headline":"The pier",}'),
		'broken-data '
	],
	['JSON-LD cut off', instead('"The pier at low water"}</script>', '"The pier at</script>'), 'broken-data '],
	['no charset', (html) => html.replace('<meta charset="utf-8">', '').replace('seals', 'cafés'), 'no-charset '],
	[
		'a late charset',
		(html) => html.replace('<meta charset="utf-8">', `<!--${'x'.repeat(1100)}-->\n<meta charset="utf-8">`),
		'late-charset '
	],
	[
		'tags below the head',
		instead('<meta property="og:type"', '<div></div><meta property="og:type"'),
		'below-head og:type'
	],
	[
		'a picture in a noscript',
		instead('<meta property="og:type"', '<noscript><img src="x"></noscript>\n<meta property="og:type"'),
		'below-head og:type'
	],
	['a date that is none', content('article:published_time', '2026-13-45'), 'value-broken article:published_time'],
	['a date in words', content('article:published_time', 'last Tuesday'), 'value-broken article:published_time'],
	['a width in words', content('og:image:width', '1200px'), 'value-broken og:image:width'],
	['a handle that is none', content('twitter:site', 'https://merrow.example/@guide'), 'value-broken twitter:site'],
	['a colour that is none', content('theme-color', '#12345'), 'value-broken theme-color'],
	['a type that is none', content('og:type', 'a long walk'), 'value-broken og:type'],
	[
		'canonical without TLS',
		instead(`canonical" href="${BASE}`, `canonical" href="${BASE.replace('https', 'http')}`),
		'insecure-address canonical'
	],
	[
		'canonical of a part of the page',
		instead(`canonical" href="${BASE}${FILE}`, `canonical" href="${BASE}${FILE}#top`),
		'value-broken canonical'
	],
	['og:url with a campaign', content('og:url', `${BASE}${FILE}?utm_source=mail`), 'value-broken og:url'],
	[
		'canonical of a path in capitals',
		instead(`canonical" href="${BASE}${FILE}`, `canonical" href="${BASE}Walks/Pier.html`),
		'canonical-nowhere canonical'
	],
	['a page for a picture', content('og:image', `${BASE}walks/tides.html`), 'value-broken og:image'],
	['canonical in src', instead('rel="canonical" href=', 'rel="canonical" src='), 'near-tag canonical'],
	['a viewport misspelt', instead('name="viewport"', 'name="veiwport"'), 'near-tag viewport'],
	['robots below the head', instead('<body>', '<body><meta name="robots" content="noindex">'), 'below-head robots'],
	[
		'curly quotes',
		instead('<meta name="description" content="A walk of', '<meta name="description" content=“A walk of'),
		'near-tag description'
	],
	[
		'a quotation mark that stays open',
		instead('seals on most days and a tearoom at its end.">', 'seals on most days and a tearoom at its end.>'),
		'near-tag description'
	],
	[
		'markup in a title',
		instead('The pier at low water – Merrow Guide', 'The &lt;b>pier&lt;/b> at low water – Merrow Guide'),
		'markup-shown title'
	],
	['an encoding that is none', instead('charset="utf-8"', 'charset="utf-88"'), 'unknown-charset '],
	['another language than the document’s', content('og:locale', 'de_DE'), 'languages-differ og:locale'],
	[
		'changed before it was published',
		added('<meta property="article:modified_time" content="2025-01-01">'),
		'dates-swapped article:modified_time'
	],
	['a height of nothing', content('og:image:height', '0'), 'value-broken og:image:height'],
	['a name between per cents', content('og:title', '%TITLE%'), 'template-left og:title'],
	['a path in braces', content('og:title', 'All of {page.title}'), 'template-left og:title'],
	['a variable', content('og:description', '$description'), 'template-left og:description'],
	['the name of no site', content('og:site_name', 'My Website'), 'placeholder og:site_name'],
	[
		'a title that others have',
		instead('The pier at low water – Merrow Guide', 'Tides of the northern coast – Merrow Guide'),
		'shared-title title'
	],
	['a long title', instead('The pier at low water –', `The pier ${'and the sea '.repeat(20)}–`), 'cut title']
])('%s is told', (_, plant, wanted) => {
	const findings = site.foundWith(plant(sound(PAGE)));
	const told = findings.map(({ finding }) => `${finding.code} ${finding.tag ?? ''}`);
	expect(told).toContain(wanted);
	const one = findings.find(({ finding }) => `${finding.code} ${finding.tag ?? ''}` === wanted)!;
	// With its line, where it stands in one.
	if (!/^(missing-tag|no-charset|late-charset|unknown-charset|unknown-charset|language-broken )/.test(wanted))
		expect(one.line).toBeGreaterThan(1);
	// One cause is told once or twice, not over and over.
	expect(findings.length).toBeLessThanOrEqual(3);
});

test('an encoding that is not what it says', () => {
	const findings = site.foundWith(Buffer.from(sound(PAGE).replace('with seals', 'with caf\u00e9s'), 'latin1'));
	expect(findings.map(({ finding }) => finding.code)).toContain('broken-characters');
	expect(readFileSync(join(site.folder, FILE), 'utf8')).toBe(sound(PAGE));
});

test('of thousands of sound pages in many forms nothing is told', () => {
	const own = mkdtempSync(join(tmpdir(), 'kephalon-sound-'));
	const forms: readonly ((html: string, path: string) => string)[] = [
		(html) => html,
		// Addresses without the ending, as many servers have them.
		(html) => html.replaceAll('.html">', '">'),
		(html) => html.replaceAll(/<(meta|link)([^>]*)>/g, '<$1$2 />'),
		(html) => html.replaceAll(/"(summary_large_image|article|en_GB)"/g, "'$1'"),
		(html) => html.replace('content="2026-05-03T18:30:00+02:00"', 'content="2026-05-03"'),
		(html) =>
			html.replace(
				'<meta property="og:type"',
				'<meta property="twitter:label1" content="Length">\n<meta property="og:type"'
			),
		(html) => html.replace('<html lang="en">', '<html lang="en-GB" dir="ltr">'),
		(html) => html.replace('content="index, follow, max-image-preview:large"', 'content="all"'),
		// A program answers with the picture; Norwegian by its older tag; a page about markup.
		(html) => html.replace(/(og:image" content=")[^"]*/, '$1https://pictures.example/make.php?of=1'),
		(html) => html.replace('<html lang="en">', '<html lang="no">').replace('en_GB', 'nb_NO'),
		(html) => html.replaceAll('Walk number', 'The &lt;b> element, walk number'),
		(html) => html.replace('article', 'website').replace('#1b4d5c', 'rgb(27, 77, 92)'),
		(html) =>
			html.replace(
				'<meta name="keywords"',
				'<meta name="author" content="A. Tern">\n<meta name="rating" content="general">\n<meta name="keywords"'
			),
		(html) =>
			html.replace('rel="icon"', 'rel="shortcut icon"').replace('rel="stylesheet"', 'rel="alternate stylesheet"')
	];
	for (let at = 0; at < 10; at++) {
		mkdirSync(join(own, 'pictures'), { recursive: true });
		writeFileSync(join(own, 'pictures', `${at}.jpg`), 'x');
	}
	mkdirSync(join(own, 'icons'));
	for (const name of ['icons/small.png', 'icons/large.png', 'site.webmanifest', 'news.atom'])
		writeFileSync(join(own, name), 'x');
	for (let at = 0; at < 3000; at++) {
		const path = `${at % 40}/page-${at}.html`;
		mkdirSync(join(own, String(at % 40)), { recursive: true });
		const page: Sound = {
			...{ path, title: `Walk number ${at} of the coast` },
			text: `Of walk number ${at}: its length, its tides, what one sees on the way and where one may rest, all of it.`
		};
		writeFileSync(join(own, path), forms[at % forms.length]!(sound(page), path));
	}
	const { findings, files } = findInFolder(own);
	rmSync(own, { recursive: true, force: true });
	expect(files).toBe(3000);
	// One share picture stands on many pages, and that is told.
	expect(findings.filter(({ finding }) => finding.code !== 'shared-picture')).toEqual([]);
});
