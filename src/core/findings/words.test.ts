import { expect, test } from 'vitest';
import {
	describeFinding,
	describeMany,
	describeMend,
	finding,
	isError,
	speakBy,
	weightOf,
	type Finding,
	type FindingCode
} from '../index';
import { learnFrench } from '../french';
import { ruleFinding } from './finding';
import { PAGE_KINDS } from './kinds/pages';

/** What every kind of finding says, and how it is mended, in each of its forms. */

const readers = ['Bottle', 'Gangway'];
const one = ['Bottle'];
const SAMPLES: readonly (readonly [code: FindingCode, data: object])[] = [
	['value-broken', { ...{ tag: 'og:locale', line: 3, value: 'en-US' }, expected: 'a locale', meant: 'en_US' }],
	['value-broken', { ...{ tag: 'robots', line: 3, value: 'no' }, expected: 'directives', meant: undefined }],
	...(['name', 'attribute', 'content', 'place', 'rel', 'quotes'] as const).map(
		(how) => ['near-tag', { tag: 'og:title', line: 3, how, seen: 'og:titel', meant: 'og:title' }] as const
	),
	['empty-tag', { tag: 'og:title', line: 3 }],
	['placeholder', { tag: 'title', line: 3, value: 'Untitled' }],
	['markup-shown', { tag: 'title', line: 3, seen: '<b>' }],
	['languages-differ', { line: 3, language: 'en', tag: 'og:locale', value: 'de_DE' }],
	['dates-swapped', { line: 3, published: '2026-05-02', modified: '2026-05-01' }],
	['broken-data', { line: 3, why: 'Unexpected end' }],
	['language-broken', { where: 'hreflang', line: 3, value: 'en-UK', meant: 'en-GB' }],
	['language-broken', { where: 'The document', line: undefined, value: 'english', meant: undefined }],
	['insecure-address', { tag: 'og:image', line: 3, value: 'http://s.example/a.jpg' }],
	['insecure-address', { tag: 'canonical', line: 3, value: 'http://s.example/a' }],
	['version-twice', { language: 'fr', line: 3, other: 4 }],
	['file-missing', { tag: 'icon', line: 3, value: '/a.png' }],
	['names-other', { tag: 'canonical', line: 3, to: 'https://s.example/b' }],
	['names-elsewhere', { tag: 'og:url', line: 3, to: 'https://t.example/b' }],
	['names-differ', { line: 3, canonical: 'https://s.example/a', other: 'https://s.example/a/' }],
	['local-address', {}],
	['no-picture', {}],
	['no-title', {}],
	['gap', { tag: 'title', variables: ['page.region'] }],
	['gap', { tag: 'og:title', variables: ['page.region', 'page.town', 'page.name'] }],
	['name-twice', { tag: 'title', layer: 'type' }],
	['name-twice', { tag: 'og:title', layer: 'built-in' }],
	['bare-title', { title: 'Home' }],
	['no-description', {}],
	['logo-picture', {}],
	['small-picture', { width: 300, needed: 600, readers }],
	['cut', { tag: 'description', length: 210, readers, layer: 'site' }],
	['cut', { tag: 'description', length: 210, readers: one, layer: 'built-in' }],
	['short', { tag: 'title', length: 4 }],
	['passed-over', { tag: 'twitter:title', other: 'og:title', layer: 'page' }],
	['empty', { tag: 'og:title' }],
	['picture-small', { width: 300, needed: 600, readers }],
	['picture-heavy', { bytes: 1_234_567, most: 600_000, readers: one }],
	['picture-tall', { width: 10, height: 90 }],
	['picture-long', { width: 900, height: 90 }],
	['picture-face-cut', { ratios: ['1.91:1', '1:1'] }],
	['picture-text-cut', { ratios: ['1:1'] }],
	['picture-much-text', { percent: 31 }],
	['picture-no-alt', {}],
	['picture-transparent', {}],
	['picture-animated', {}],
	['picture-on-many', { pages: 12, named: ['/a', '/b'] }],
	['picture-on-many', { pages: 2, named: ['/a', '/b'] }],
	['picture-repeated', { pages: 7 }],
	['picture-named-logo', {}],
	['picture-like-logo', {}],
	['shared-title', { value: 'News', pages: 1200 }],
	['shared-description', { value: 'x'.repeat(90), pages: 3 }],
	['shared-picture', { value: '/p.jpg', pages: 40 }],
	['version-nowhere', { path: '/a', language: 'fr', to: '/fr/a', why: { is: 'state', state: 'draft' } }],
	['version-one-way', { path: '/a', language: 'fr', to: '/fr/a' }],
	['canonical-nowhere', { path: '/a', to: '/b', why: { is: 'no-page', of: 'site' } }],
	['redirect-nowhere', { path: '/a', to: '/b' }],
	['key-no-picture', { path: '/a' }],
	[
		'words-elsewhere',
		{
			...{ tag: 'title', of: 'every walk', words: 'to visit', language: 'fr-CA', pages: 1 },
			...{ isMore: false, isBegun: false }
		}
	],
	[
		'words-elsewhere',
		{
			...{ tag: 'title', of: 'the whole site', words: 'to visit', language: 'fr', pages: 50 },
			...{ isMore: true, isBegun: false }
		}
	],
	[
		'words-elsewhere',
		{
			...{ tag: 'title', of: 'every walk', words: 'to visit', language: 'no language', pages: 2 },
			...{ isMore: false, isBegun: true }
		}
	],
	['target-twice', { value: 'tide times', pages: 2 }],
	[
		'unreachable',
		{ address: 'https://s.example/', why: { is: 'ended', end: 'no-connection', more: 'ECONNREFUSED' }, isInner: false }
	],
	['blocked-by-robots', { readers, line: 3 }],
	['blocked-by-robots', { readers: one, line: undefined }],
	['error-page', { status: 503 }],
	['not-found-served', { title: 'Not here' }],
	['sign-in-page', {}],
	['redirected-elsewhere', { to: 'www.s.example', readers }],
	['redirected-elsewhere', { to: 'www.s.example', readers: one }],
	['beyond-reading', { tags: ['og:title'], readers: one, bytes: 200_000 }],
	['beyond-reading', { tags: ['og:title', 'og:image'], readers, bytes: 200_000 }],
	['late-charset', {}],
	['wrong-charset', { header: 'utf-8', markup: 'windows-1252' }],
	['relative-address', { tag: 'og:image', line: 4, value: '/p.jpg' }],
	['local-served', { tag: 'og:url', line: 4, value: 'http://localhost:3000/' }],
	['missing-tag', { tag: 'og:image', readers }],
	['missing-tag', { tag: 'og:image', readers: one }],
	['doubled-tag', { tag: 'og:title', line: 4, other: 9, differs: true }],
	['doubled-tag', { tag: 'og:title', line: 4, other: 9, differs: false }],
	['noindex-served', { value: 'noindex' }],
	['picture-missing', { address: '/p.jpg', why: { is: 'answers', status: 404 } }],
	['served-heavy', { bytes: 9_040_000, readers }],
	['served-heavy', { bytes: 9_040_000, readers: one }],
	['picture-unreadable', { address: '/p.jpg', type: 'text/html' }],
	['picture-unreadable', { address: '/p.jpg', type: '' }],
	['picture-lies', { said: '1200 pixels wide', is: '80' }],
	['needs-scripts', {}],
	['differs-by-reader', { readers }],
	['differs-by-reader', { readers: one }],
	['below-head', { tags: ['og:title'] }],
	['below-head', { tags: ['og:title', 'og:image'] }],
	['broken', { how: { is: 'ended', end: 'short' }, readers: [] }],
	['broken', { how: { is: 'ended', end: 'short' }, readers }],
	[
		'unreachable',
		{
			address: 'http://127.0.0.1/',
			why: { is: 'ended', end: 'refused', more: 'http://127.0.0.1/ leads to this machine' },
			isInner: true
		}
	],
	['leads-to-shut', { to: 'https://s.example/shut', readers }],
	['same-everywhere', { title: 'App', other: 'https://s.example/' }],
	['double-encoded', { tag: 'title', line: 3, value: 'KÃ¼ste' }],
	['no-picture-preview', { value: 'max-image-preview:none' }],
	['picture-moves', { readers }],
	['picture-moves', { readers: one }],
	['endless-page', { bytes: 5_000_000 }],
	['endless-page', { bytes: 5_000_000, packed: 24_000 }],
	['unknown-charset', { label: 'utf-8859' }],
	['picture-type', { address: 'https://s.example/p.jpg', said: 'text/plain', is: 'image/jpeg' }],
	['picture-apart', { address: 'https://s.example/p.jpg', why: { is: 'ended', end: 'timeout' }, readers: one }]
];

const made = SAMPLES.map(([code, data]) => finding(code as 'empty', { of: 'site' }, undefined, data as never));

test('of many pages it says nothing that holds of one alone', () => {
	const alone = /\d|page\.|og:title is|set at the|“/;
	const ofPages = made.filter(({ code }) => Object.hasOwn(PAGE_KINDS, code));
	expect(ofPages.length).toBeGreaterThan(10);
	expect(
		ofPages
			.filter(({ code }) => code !== 'bare-title' && code !== 'share-contrast')
			.map(describeMany)
			.filter((says) => alone.test(says))
	).toEqual([]);
	expect(made.filter(({ code }) => code === 'cut' || code === 'small-picture').map(describeMany)).toEqual([
		'The picture is too small to fill the card in some readers',
		'The description is too long: it is cut in Bottle and Gangway',
		'The description is too long: it is cut in Bottle'
	]);
});

test('what each kind says and how it is mended', () => {
	expect(made.map((one) => `${one.code} ${one.weight}: ${describeFinding(one)} — ${describeMend(one)}`))
		.toMatchInlineSnapshot(`
			[
			  "value-broken 5: og:locale says “en-US”, which is not a locale: readers pass it over; “en_US” may be meant — Say “en_US”.",
			  "value-broken 5: robots says “no”, which is not directives: readers pass it over — Say in robots what it is for, or leave it out.",
			  "near-tag 5: “og:titel” is no tag that readers know: “og:title” may be meant — Write og:title.",
			  "near-tag 5: og:title stands in og:titel= instead of og:title=: no reader finds it — Write og:title=.",
			  "near-tag 5: og:title stands in og:titel= instead of og:title=: no reader finds it — Write og:title=.",
			  "near-tag 5: In og:titel= stands what Open Graph has in og:title=, where strict readers look: og:title — Write og:title=.",
			  "near-tag 5: rel="og:titel" links to nothing that readers know: rel="og:title" may be meant — Write og:title.",
			  "near-tag 5: og:title is not enclosed in quotation marks as markup has them (“og:titel”): it is read in part, or with what follows — Write og:title.",
			  "empty-tag 2: og:title is empty: it says nothing, and some readers take that for what is said — Fill it in, or leave it out.",
			  "placeholder 7: title is still what stood there before it was written: “Untitled” — Write the title of this page.",
			  "markup-shown 5: title shows markup, “<b>”: cards and listings show it as it is written — Say it in plain text.",
			  "languages-differ 3: The document is in “en”, and og:locale says “de_DE” — Say the language that it is in: “en”, if that is so.",
			  "dates-swapped 3: It was changed (2026-05-01) before it was published (2026-05-02) — Say both as they were.",
			  "broken-data 5: Its JSON-LD cannot be read, so nobody takes anything from it: Unexpected end — Write it as JSON: names and texts in double quotation marks, no comma behind the last.",
			  "language-broken 4: hreflang says “en-UK”, which is no language that readers know: “en-GB” may be meant — Say “en-GB”.",
			  "language-broken 4: The document says “english”, which is no language that readers know — Say a language tag such as “en” or “en-GB”.",
			  "insecure-address 2: og:image names http://s.example/a.jpg, without TLS, on a site that has it: some readers show no such picture — Name it with https.",
			  "insecure-address 2: canonical names http://s.example/a, without TLS, on a site that has it: what is shared and found counts for another address — Name it with https.",
			  "version-twice 4: Two addresses are named as its version in “fr” (the other in line 4) — Name one for each language.",
			  "file-missing 6: icon names /a.png, which is not in the folder — Put it there, or name one that is.",
			  "names-other 5: canonical names another page, https://s.example/b: what is shared and found of this one counts for that one — Let canonical name the page itself, unless the two are the same.",
			  "names-elsewhere 6: og:url leaves the site, for https://t.example/b: what is shared and found of this page counts there — Let og:url name the page itself, unless it is a copy of that one.",
			  "names-differ 3: canonical says https://s.example/a and og:url says https://s.example/a/: shares are counted apart — Let both say the same address.",
			  "local-address 10: Its address leads to no place that readers can reach — Set the public base address of the site.",
			  "no-picture 6: No picture: its card stays blank — Give the site a share picture: it stands in wherever a page has none.",
			  "no-title 6: It has no title — Write a title template at the site, such as {page.title} {separator} {site.name}.",
			  "gap 5: page.region left a gap in the title — Put what belongs to a variable into [[ … ]], so that it goes when the variable is empty.",
			  "gap 5: page.region, page.town, and page.name left a gap in the og:title — Put what belongs to a variable into [[ … ]], so that it goes when the variable is empty.",
			  "name-twice 5: The site’s name stands in the title twice — Take {site.name} out of the template: the pages’ own titles carry it already.",
			  "name-twice 5: The site’s name stands in the og:title twice — Take the site’s name out of the page’s own words once.",
			  "bare-title 4: The home page calls itself “Home” — Write the home page’s title from {site.name} and {site.tagline}.",
			  "no-description 4: It has no description — Give the page a summary, or let the description fall back: {page.summary ?? site.description}.",
			  "logo-picture 4: The picture is a logo — Put a picture of the page before the logo in the list of picture sources.",
			  "small-picture 3: The picture is 300 pixels wide: too small to fill the card in Bottle and Gangway — Set a least width of 600 pixels for share pictures, so that small ones are passed over.",
			  "cut 2: The description has 210 characters and is cut in Bottle and Gangway — Shorten it, or clip in the template what is long in it.",
			  "cut 2: The description has 210 characters and is cut in Bottle — Shorten it at the page, or write a rule that clips it, such as {page.summary ?? page.body | clip 140}.",
			  "short 1: The title has only 4 characters — Say more at the page, or add a second source, such as the type’s own fields.",
			  "passed-over 1: og:title is set at the page, and twitter:title does not follow it — Set twitter:title there too, or take its rule away so that it follows og:title.",
			  "empty 1: og:title comes to nothing — Give it another source to fall back to.",
			  "picture-small 5: Too small for Bottle and Gangway: 300 pixels wide, 600 would do for all. — Take another picture, or set one that fits before it in the list of sources.",
			  "picture-heavy 5: Too heavy for Bottle: 1,235 kB, at most 600 kB are fetched. — Let it be cut to a shape: what is cut is made light enough for all.",
			  "picture-tall 3: It is 10 × 90: wide cards cut much of its top and bottom away. — Move the point that stays in view, or the shape alone.",
			  "picture-long 3: It is 900 × 90: cards cut much of its sides away. — Move the point that stays in view, or the shape alone.",
			  "picture-face-cut 4: Cut to 1.91:1 and 1:1, it loses part of what may be a face. — Move the point that stays in view, or the shape alone.",
			  "picture-text-cut 4: Cut to 1:1, it loses part of what seems to be text. — Move the point that stays in view, or the shape alone.",
			  "picture-much-text 3: Text seems to cover 31 % of it, more than a fifth: on small cards no one can read it. — Take another picture, or set one that fits before it in the list of sources.",
			  "picture-no-alt 2: It has no alt text: those who cannot see it are told nothing. — Say what it shows, in a few words.",
			  "picture-transparent 1: Parts of it are transparent: each reader puts it on a ground of its own. — Take another picture, or set one that fits before it in the list of sources.",
			  "picture-animated 1: It came as an animation: readers show its first frame. — Take a still picture that says more.",
			  "picture-on-many 2: It is on the cards of 12 pages: /a, /b and 10 more. — Give these pages pictures of their own.",
			  "picture-on-many 2: It is on the cards of 2 pages: /a, /b. — Give these pages pictures of their own.",
			  "picture-repeated 2: It stands on 7 pages as part of the frame: it says little about this one. — Take another picture, or set one that fits before it in the list of sources.",
			  "picture-named-logo 4: It is a logo or an icon by its name. — Take another picture, or set one that fits before it in the list of sources.",
			  "picture-like-logo 4: It looks like a logo: of few colours, and small or cut out. — Take another picture, or set one that fits before it in the list of sources.",
			  "shared-title 4: 1,200 pages have the title “News” — Let the title template say what sets them apart, such as {page.section}.",
			  "shared-description 3: 3 pages have the description “xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx” — Give them summaries of their own, or let the description template say what sets them apart.",
			  "shared-picture 2: 40 pages show the same picture — Give the type a default picture of its own, or let its share pictures be made from the page.",
			  "version-nowhere 5: The fr version of /a leads to /fr/a, which is set to draft — Name the page that is the version, or take the version away.",
			  "version-one-way 3: /a names /fr/a as its fr version, and is not named back — Name it back: readers take versions only where both pages agree.",
			  "canonical-nowhere 6: /a says that it stands at /b, which is no page of the site — Take the canonical rule away, or let it name a page that is there.",
			  "redirect-nowhere 4: What was at /a leads to /b, where no page is — Let it lead to a page that is there.",
			  "key-no-picture 5: The key page /a has no picture of its own — Choose a picture at the page.",
			  "words-elsewhere 4: The title of every walk says “to visit” in words of its own, and one page in Canadian French goes out with it — Write a rule for Canadian French there: it is begun with the words to translate.",
			  "words-elsewhere 4: The title of the whole site says “to visit” in words of its own, and at least 50 pages in French go out with it — Write a rule for French there: it is begun with the words to translate.",
			  "words-elsewhere 4: The title of every walk for pages in no language still says “to visit”, as the one for all languages does — Translate its words into no language there.",
			  "target-twice 3: 2 pages are to be found by “tide times” — Leave the phrase to one of them: they stand in each other’s way.",
			  "unreachable 10: It cannot be fetched: nothing answers there (ECONNREFUSED) — See that the server answers at this address.",
			  "blocked-by-robots 8: robots.txt shuts out Bottle, Gangway, in line 3 — Let robots.txt allow readers of links to fetch the pages that are shared.",
			  "blocked-by-robots 8: robots.txt shuts out Bottle — Let robots.txt allow readers of links to fetch the pages that are shared.",
			  "error-page 8: Its server answers with 503 — Let the address answer with 200.",
			  "not-found-served 6: It answers as found, and calls itself “Not here” — Let a page that is not there answer with 404: search lists it otherwise, and cards show it.",
			  "sign-in-page 7: It asks to sign in: readers see that page and not the one meant — Let readers of links fetch it without signing in.",
			  "redirected-elsewhere 5: It leads to another host, www.s.example: Bottle, Gangway do not follow — Share the address where it ends.",
			  "redirected-elsewhere 5: It leads to another host, www.s.example: Bottle does not follow — Share the address where it ends.",
			  "beyond-reading 7: og:title stands beyond the first 200 kB, which is all that Bottle reads — Put the tags before styles and scripts.",
			  "beyond-reading 7: og:title, og:image stand beyond the first 200 kB, which is all that Bottle, Gangway read — Put the tags before styles and scripts.",
			  "late-charset 4: The encoding is declared after the first 1,024 bytes — Put <meta charset> first in the head.",
			  "wrong-charset 6: The server says utf-8, the page says windows-1252 — Let both say the encoding that the page is in.",
			  "relative-address 5: og:image is a relative address, “/p.jpg” — Write the whole address.",
			  "local-served 9: og:url leads to this machine or a private network, “http://localhost:3000/” — Set the public base address, and release again.",
			  "missing-tag 4: There is no og:image, which Bottle, Gangway ask for — See that the head is written into the page as served.",
			  "missing-tag 4: There is no og:image, which Bottle asks for — See that the head is written into the page as served.",
			  "doubled-tag 4: og:title stands twice, in lines 4 and 9, and says two things — Two tools write it: switch it off in one of them.",
			  "doubled-tag 4: og:title stands twice, in lines 4 and 9 — Two tools write it: switch it off in one of them.",
			  "noindex-served 5: It says “noindex”: no search lists it — Take it away, if the page is meant to be found.",
			  "picture-missing 7: The picture /p.jpg cannot be fetched: its server answers with 404 — Put the picture where its address says, or choose another.",
			  "served-heavy 4: The picture has 9.0 MB, more than Bottle, Gangway take — Make it lighter: 1,200 by 630 pixels need no more than 300 kB.",
			  "served-heavy 4: The picture has 9.0 MB, more than Bottle takes — Make it lighter: 1,200 by 630 pixels need no more than 300 kB.",
			  "picture-unreadable 7: What stands at the picture’s address is text/html — Let the address answer with the picture itself.",
			  "picture-unreadable 7: What stands at the picture’s address is  — Let the address answer with the picture itself.",
			  "picture-lies 2: Its tags say that the picture is 1200 pixels wide; it is 80 — Release again, so that the tags say what it is.",
			  "needs-scripts 8: Its head is empty until scripts fill it, and no reader of links runs scripts — Let the server write the head into the page.",
			  "differs-by-reader 3: Bottle, Gangway are given another page than others — Serve everyone the same head.",
			  "differs-by-reader 3: Bottle is given another page than others — Serve everyone the same head.",
			  "below-head 6: og:title stands below the head — Something ends the head too soon: put the tags before it.",
			  "below-head 6: og:title, og:image stand below the head — Something ends the head too soon: put the tags before it.",
			  "broken 6: The answer is broken: it ends in the middle — Mend the server: readers give up here.",
			  "broken 6: The answer is broken for Bottle, Gangway: it ends in the middle — Mend the server: readers give up here.",
			  "unreachable 10: It cannot be fetched: it may not be fetched (http://127.0.0.1/ leads to this machine) — Name the machine that stands in for the public site with --via: it is asked then under the public name.",
			  "leads-to-shut 8: It leads to https://s.example/shut, from which robots.txt keeps Bottle, Gangway — Let robots.txt allow readers of links to fetch where shared addresses lead.",
			  "same-everywhere 8: Scripts write the page, and its head is the same at https://s.example/: every address shares as “App” — Let the server write the head of each page into it.",
			  "double-encoded 6: title was encoded twice: “KÃ¼ste” — Read the text as UTF-8 where it comes from, and encode it once.",
			  "no-picture-preview 2: It says “max-image-preview:none”: search shows no picture of it — Say max-image-preview:large, if pictures may be shown.",
			  "picture-moves 3: The picture moves, and Bottle, Gangway show none that does — Name a picture that stands still.",
			  "picture-moves 3: The picture moves, and Bottle shows none that does — Name a picture that stands still.",
			  "endless-page 3: It has more than 5 MB: readers stop on the way — Share a page that is shorter, and see that its end comes.",
			  "endless-page 3: It has more than 5 MB, packed into 24 kB: readers stop on the way — Share a page that is shorter, and see that its end comes.",
			  "unknown-charset 4: Its server names an encoding that is none, “utf-8859”: readers guess — Say charset=utf-8 in Content-Type.",
			  "picture-type 4: The picture https://s.example/p.jpg is served as text/plain, and is image/jpeg — Serve it as what it is: some readers take no other.",
			  "picture-apart 7: For Bottle the picture https://s.example/p.jpg cannot be fetched: it does not answer in time — Let every reader fetch the picture that the others get.",
			]
		`);
});

test('all of it is said in French as well, where that is spoken', async () => {
	learnFrench();
	speakBy(() => 'fr');
	try {
		const told = made.map(
			(found) =>
				`${found.code}: ${describeFinding(found)} — ${describeMend(found)}${describeMany(found) === describeFinding(found) ? '' : `\n\t${describeMany(found)}`}`
		);
		expect(told.join('\n')).not.toMatch(/undefined|NaN|\[object| the | is /);
		await expect(`${told.join('\n')}\n`).toMatchFileSnapshot('words.fr.txt');
	} finally {
		speakBy(() => 'en-GB');
	}
});

test('a finding has its target, and its tag where there is one', () => {
	expect(finding('empty', { of: 'page', path: '/a' }, 'og:title', { tag: 'og:title' })).toEqual({
		code: 'empty',
		weight: 1,
		target: { of: 'page', path: '/a' },
		tag: 'og:title',
		data: { tag: 'og:title' }
	});
	expect(finding('no-title', { of: 'site' }, undefined, {})).not.toHaveProperty('tag');
});

test('what a check of a rule found is an error or a doubt, says where it stands, and mends itself', () => {
	const issue = (severity: 'error' | 'warning') =>
		({ code: 'template/unclosed-placeholder', severity, start: 2, end: 3 }) as const;
	const [error, doubt] = (['error', 'warning'] as const).map((severity) =>
		ruleFinding({ of: 'type', name: 'note' }, 'title', { issue: issue(severity), source: 'a {b' })
	) as [Finding, Finding];
	expect([error.weight, doubt.weight]).toEqual([8, 2]);
	expect([isError(error), isError(doubt), isError(made[0]!)]).toEqual([true, false, false]);
	expect(describeFinding(error)).toBe('The "{" at 1:3 is never closed. Add "}", or write "\\{" for a plain brace.');
	expect(describeMend(error)).toBe('');
	expect(error.tag).toBe('title');
	expect(ruleFinding({ of: 'site' }, undefined, { issue: issue('error'), source: '' })).not.toHaveProperty('tag');
	expect(weightOf([error, doubt])).toBe(10);
	expect(weightOf([])).toBe(0);
});
