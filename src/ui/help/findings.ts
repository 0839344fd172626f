import type { FindingCode } from '$core';

/** Why a finding matters, and what it looks like: beside what it says itself and how it is mended. */
export type About = readonly [why: string, example: string];

const ON_PAGES = {
	'local-address': [
		'A reader fetches from the net: an address of one’s own machine leads it nowhere, so that there is no card at all.',
		'http://localhost:8080/walks → https://www.merrow.example/walks'
	],
	'no-picture': [
		'People look at the picture first; a card without one is a line of text among pictures.',
		'og:image at the site: /pictures/share.jpg'
	],
	'pin-broken': [
		'Somebody said that this tag is to stay as it was; an edit elsewhere, at a type or the site, has changed it since.',
		'title pinned to “Low tide walks”, now “Low tide walks · Merrow”'
	],
	'lost-reference': [
		'A field that names a page is how one page says something of another; where none is, templates get nothing.',
		'{page.area.title} with “area” naming /areas/gone'
	],
	'heads-circle': [
		'Each page waits for what the other says, and none says it by itself.',
		'/a says {page.next.head.title}, and /b says {page.next.head.title}, each naming the other'
	],
	'unknown-choice': [
		'Words are said for the values that the type knows; another value would go out as it is written in the data.',
		'state “opn”, where the field knows open and closed'
	],
	'no-title': [
		'Listings and tabs then show the address, or words that the reader picks out of the page.',
		'{page.title} {separator} {site.name}'
	],
	gap: [
		'An empty variable leaves its surroundings behind: two spaces, a lonely dash, brackets with nothing in them.',
		'{page.title} in {page.region} → {page.title}[[ in {page.region}]]'
	],
	'name-twice': [
		'The same words twice cost the room that the title needs, and look like a mistake.',
		'Walks · Merrow · Merrow'
	],
	'bare-title': [
		'The home page is shared most: “Home” says nothing of whose home it is.',
		'Home → {site.name}[[: {site.tagline}]]'
	],
	'no-description': [
		'Readers then take any words from the page, often those of a menu, or leave the line empty.',
		'{page.summary ?? page.body | clip 140}'
	],
	'share-letters': [
		'Letters that no font has are drawn as empty boxes, and stay so in every copy of the picture.',
		'A title in Georgian letters with fonts for Latin and Greek'
	],
	'share-contrast': [
		'On a small card, in sunlight, words that hardly stand out are not read.',
		'White on a pale sky: 1.6 to 1; with a tint of 60 %: 5 to 1'
	],
	'logo-picture': [
		'A logo says who speaks and nothing of what the page is about; cut to a card’s shape it is often cut through.',
		'/logo.svg → the lead picture, then the logo'
	],
	'small-picture': [
		'A picture that is too small is shown as a stamp beside the text, or blown up until it is blurred.',
		'320 × 168 pixels where 600 fill the card'
	],
	cut: [
		'What is cut is what stands last, often the word that matters.',
		'“A walk along the cliffs from Merrow Head to the old light…”'
	],
	short: [
		'A line that could say why one should come says next to nothing.',
		'“Walk” → “Walk to the old lighthouse, two hours”'
	],
	'passed-over': [
		'Readers that take this tag first show it, and not what was written with care for the other.',
		'og:title “Autumn walks”, twitter:title still “Walks”'
	],
	'dropped-attribute': [
		'What the page’s own file said with the tag is lost on the way, mostly without harm.',
		'<link rel="icon" onload="…">'
	],
	empty: [
		'A rule is there and has nothing to say on this page: the tag is left out.',
		'{page.subtitle} on a page without one'
	]
} satisfies Partial<Record<FindingCode, About>>;

const ON_PICTURES = {
	'picture-small': [
		'Readers pass small pictures over, or show them as a stamp.',
		'300 pixels wide, 1200 would do for all'
	],
	'picture-heavy': ['Beyond its limit a reader stops fetching and shows no picture.', '9 MB, where 5 MB are fetched'],
	'picture-tall': ['Wide cards show a band of it; what matters may be outside.', '1000 × 3000, shown as 1000 × 524'],
	'picture-long': ['Cards show its middle; what stands at the sides is lost.', '4000 × 600, shown as 1146 × 600'],
	'picture-face-cut': ['A face cut through is the first thing people see.', 'The point moved up by a tenth'],
	'picture-text-cut': ['Half a line of letters cannot be read, and looks broken.', '“Open d” of “Open day”'],
	'picture-much-text': [
		'On a small card its letters are smaller than those of a footnote.',
		'A poster as a share picture'
	],
	'picture-no-alt': [
		'Alt text goes out with the picture, for people who hear the card.',
		'“Two walkers on a shingle beach”'
	],
	'picture-transparent': [
		'A dark mark on a dark reader cannot be seen.',
		'A PNG cut out, on white here and on black there'
	],
	'picture-animated': [
		'No card here moves: its first frame, often an empty one, stands for all of it.',
		'An animated GIF'
	],
	'picture-on-many': ['A picture that stands for everything stands for nothing.', 'One harbour on 240 cards'],
	'picture-repeated': ['What every page has is part of the frame, such as a banner.', '/banner.jpg in 312 files'],
	'picture-named-logo': ['By its name it is no picture of anything.', '/images/logo-white.png'],
	'picture-like-logo': ['It has few colours, and is small or cut out, as marks are.', '64 × 64, three colours']
} satisfies Partial<Record<FindingCode, About>>;

const OF_VALUES = {
	'value-broken': ['A value of another form is passed over, as if the tag were not there.', 'og:locale en-US → en_US'],
	'near-tag': ['A tag that is nearly right is no tag to a reader.', 'og:titel → og:title'],
	'empty-tag': [
		'Some readers take the emptiness for what is said, and fall back to nothing.',
		'<meta name="description" content="">'
	],
	placeholder: ['What stood there before anybody wrote is shared as it is.', '<title>Untitled</title>'],
	'markup-shown': [
		'Cards show plain text: markup stands in it letter by letter.',
		'<title>&lt;b&gt;Walks&lt;/b&gt;</title>'
	],
	'languages-differ': [
		'Readers choose words, voices and listings by language.',
		'<html lang="en"> with og:locale de_DE'
	],
	'thin-title': ['In a list of tabs, of results or of cards, nobody knows what it leads to.', 'Home'],
	'dates-swapped': [
		'Readers that sort by date put it in the wrong place, or drop both.',
		'published 2 May, modified 1 May'
	],
	'broken-data': ['One comma too many, and none of it is read.', '{"name": "Walks",}'],
	'language-broken': ['A tag that names no language is passed over.', 'hreflang="en-UK" → en-GB'],
	'insecure-address': ['Two addresses, with TLS and without, count as two pages.', 'http://… → https://…'],
	'version-twice': ['A reader takes one of the two, and nobody knows which.', 'Two links with hreflang="fr"'],
	'file-missing': ['The tag leads to nothing as soon as the folder is served.', '<link rel="icon" href="/gone.png">'],
	'names-other': ['A page that says it is another is not listed itself.', '/b with canonical /a'],
	'names-elsewhere': ['All that is shared of it counts for somebody else’s site.', 'canonical https://other.example/'],
	'names-differ': ['Two answers to one question: search goes by the one, shares by the other.', '/a and /a/']
} satisfies Partial<Record<FindingCode, About>>;

const OF_ALL = {
	'shared-title': ['In a listing they cannot be told apart.', '40 pages called “Walk”'],
	'shared-description': ['Search passes a line over that it has read before.', 'The site’s own line on 300 pages'],
	'shared-picture': ['In a feed they look like one thing shared again and again.', 'The type’s default on 120 pages'],
	'version-nowhere': ['Who follows it in the other language finds nothing.', 'hreflang="fr" to a page that is a draft'],
	'version-one-way': [
		'Readers believe versions only where both pages say so.',
		'/walks names /fr/balades, which names nothing'
	],
	'canonical-nowhere': [
		'A page that stands elsewhere, where nothing is, is listed nowhere.',
		'canonical /old, which is gone'
	],
	'redirect-nowhere': ['Old links lead to an error instead of a page.', '/2019/walks leads to /walk'],
	'key-no-picture': ['It was marked as one of the pages that matter most.', 'The home page on the site’s default'],
	'words-elsewhere': ['A sentence in two languages looks like a mistake in both.', '“Read about Grève de Galets”'],
	'target-twice': [
		'Two pages that want to be found by one phrase keep each other down.',
		'/walks and /walks/all by “cliff walks”'
	]
} satisfies Partial<Record<FindingCode, About>>;

const AS_SERVED = {
	unreachable: ['Without an answer there is no card.', 'Nobody listens at that address'],
	'leads-to-shut': [
		'The address may be fetched, and where it leads may not: there is no card.',
		'/a → /private/a, shut out by robots.txt'
	],
	'same-everywhere': [
		'Readers run no scripts: they see the shell, which is the same for all.',
		'Every address shares as “App”'
	],
	'double-encoded': ['Each letter beyond ASCII became two that belong nowhere.', 'CafÃ© → Café'],
	'no-picture-preview': ['Search lists it, and keeps the picture back.', 'max-image-preview:none'],
	'picture-moves': ['Those readers show none that moves, and take no other in its place.', 'An animated WebP'],
	'blocked-by-robots': ['A reader that keeps to robots.txt makes no card.', 'User-agent: * / Disallow: /'],
	'robots-failing': ['While robots.txt fails, careful readers fetch nothing of the site.', 'robots.txt answers 503'],
	'leads-nowhere': ['A redirect without an address leads to nothing.', '302 without Location'],
	'leads-on': [
		'These readers follow redirects and no refresh: they stop at the empty page.',
		'<meta http-equiv="refresh" content="0;url=/b">'
	],
	'no-page': ['Readers make cards of HTML and of nothing else.', 'Content-Type: application/octet-stream'],
	'fails-for': ['Who shares it there shares a bare address.', '403 for one reader alone'],
	'endless-page': [
		'Readers stop after some hundred kilobytes or a few megabytes.',
		'A page of 24 MB, packed into 30 kB'
	],
	'no-charset': ['Readers that guess may guess wrong, and letters are lost.', 'Content-Type: text/html; charset=utf-8'],
	'broken-characters': ['Where a letter was lost stands a sign for “unknown”.', 'Caf�'],
	'template-left': ['The template of the server or of a script went out as it is.', '{{ page.title }}'],
	'escaped-twice': ['The second escaping is shown as it is written.', 'Fish &amp;amp; chips → Fish &amp; chips'],
	'names-home': ['All pages count as one, the home page.', 'og:url https://www.merrow.example/ on every page'],
	'error-page': ['Readers make no card of an error, or one that says “Not found”.', 'HTTP 404'],
	'not-found-served': ['Search lists it as a page, and cards say that it is not there.', '200 with “Page not found”'],
	'sign-in-page': ['No reader signs in: the card shows the form.', '“Sign in to go on”'],
	'redirected-elsewhere': ['These readers stay on the host that was shared.', 'm.merrow.example → www.merrow.example'],
	'beyond-reading': ['What stands after that is not there for them.', '600 kB of styles before og:title'],
	'late-charset': [
		'Readers look for it in the first 1,024 bytes and guess otherwise.',
		'<meta charset="utf-8"> first in the head'
	],
	'wrong-charset': [
		'One of the two is wrong, and readers differ in which they believe.',
		'header windows-1252, markup utf-8'
	],
	'unknown-charset': ['A name that the Encoding standard does not have is no encoding.', 'charset=utf8mb4'],
	'picture-type': ['Careful readers believe the header, and take no such picture.', 'image.jpg served as text/plain'],
	'picture-apart': ['Their cards stay blank, and nobody else sees why.', '403 for pictures without a Referer'],
	'scheme-address': ['Readers fetch over http and https.', 'og:image data:image/png;base64,…'],
	'relative-address': [
		'Open Graph asks for whole addresses; some readers put none together.',
		'/a.jpg → https://www.merrow.example/a.jpg'
	],
	'local-served': ['It works on the machine it was made on, and nowhere else.', 'og:url http://192.168.0.7/'],
	'missing-tag': [
		'Readers take the next best, which nobody chose.',
		'no og:title: the title with the site’s name is shown'
	],
	'doubled-tag': ['Some take the first, some the last.', 'Two og:title, from two tools'],
	'noindex-served': ['It is fetched, and then left out of every listing.', '<meta name="robots" content="noindex">'],
	'noindex-for': ['Those by that name leave it out; others list it.', '<meta name="fathom" content="noindex">'],
	'picture-missing': ['The card stays blank.', 'og:image answers 404'],
	'served-heavy': ['Beyond its limit a reader stops, and shows none.', '9 MB straight from the camera'],
	'picture-unreadable': ['What is no picture is not shown, whatever its name.', 'An HTML page at /share.jpg'],
	'picture-shut': ['They keep to robots.txt for pictures, too.', 'Disallow: /media/'],
	'picture-form': ['Readers know some formats and pass the others over.', 'AVIF, where JPEG and PNG are read'],
	'picture-mark': ['A picture of one pixel counts somebody’s visits; it is none to show.', '1 × 1'],
	'served-small': ['It is shown as a stamp beside the text.', '200 × 200'],
	'picture-lies': [
		'Readers lay the card out by what tags say, and then it jumps.',
		'og:image:width 1200 of a picture 600 wide'
	],
	'needs-scripts': ['Readers take what the server sends.', '<head></head><script src="app.js">'],
	'differs-by-reader': [
		'What one looks at and what others see are two things.',
		'A short page for programs by their names'
	],
	'below-head': ['Strict readers stop where the head ends.', 'A <div> in the head ends it'],
	broken: ['What breaks off half-way is no page to them.', 'Content-Length 9000, 4000 bytes sent']
} satisfies Partial<Record<FindingCode, About>>;

const IN_RULES = {
	'template/too-long': ['So that no template holds a server up.', 'Pieces: say the common part once'],
	'template/too-deep': ['What nests deeper nobody can follow.', '[[ … [[ … ]] … ]]'],
	'template/unclosed-placeholder': [
		'Without its end nobody knows where the variable ends.',
		'{page.title → {page.title}'
	],
	'template/unclosed-optional': [
		'Without its end all that follows would go with it.',
		'[[ in {page.region} → [[ in {page.region}]]'
	],
	'template/unclosed-string': ['The text would go on to the end.', '{page.title | default "none → "none"'],
	'template/empty-placeholder': ['Braces with nothing in them ask for nothing.', '{} → {page.title}'],
	'template/unexpected': ['It is read from the left; here it cannot go on.', '{page.title | | upper}'],
	'template/trailing-escape': ['A backslash is for the sign after it.', 'C:\\ → C:\\\\'],
	'template/stray-close': ['It prints, which is seldom meant.', '{page.title}} → {page.title}'],
	'template/unknown-root': ['Variables begin with what they are of.', '{titel} → {page.title}'],
	'template/unknown-variable': [
		'A name that nothing has comes to nothing on every page.',
		'{page.sumary} → {page.summary}'
	],
	'template/unknown-filter': ['A filter that is not there cannot be run.', '| uper → | upper'],
	'template/wrong-arguments': ['It would not know what to do.', '| clip → | clip 60'],
	'template/wrong-kind': ['A date is no number: it would come to nothing.', '{page.title | date "d MMMM"}'],
	'template/few-forms': ['Some languages have more forms than two.', 'one, few, many in Polish'],
	'template/unreachable': ['What stands before is always there.', '{site.name ?? page.title}'],
	'template/constant-optional': ['Brackets are for what can be missing.', '[[ and more ]]'],
	'template/double-brand': ['The site’s name would stand twice.', '{page.title} – {site.name}, where titles end in it'],
	'template/idle-word': ['It has a meaning only at its place.', '{fit 60} at the top'],
	'template/or-alone': ['It chooses between two.', '[[{page.a}]] {or} [[{page.b}]]'],
	'template/prints-flag': ['“true” is for programs.', '[[{page.free?}Free]]'],
	'template/piece-circle': ['Each waits for the other.', '{piece.a} in b, {piece.b} in a'],
	'template/too-many-pieces': ['So that no template holds a server up.', 'A piece that uses ten others'],
	'rule/unknown-tag': ['Readers know the tags of the catalogue; others need a vocabulary.', 'og:titel → og:title'],
	'rule/loop': ['Each waits for the other.', 'og:title the same as twitter:title, and the other way round'],
	'rule/facts-only': ['It is a fact of the picture, and would be wrong with the next one.', 'og:image:width'],
	'rule/unknown-field': ['A source that is no field gives no picture.', 'field “pictre” → “picture”'],
	'rule/not-a-picture-tag': ['Sources give pictures; this tag says words.', 'og:title from the lead picture'],
	'rule/bad-language': ['Rules for a language are found by its tag.', 'english → en'],
	'rule/bad-value': ['Readers pass over what is of another form.', 'twitter:card large → summary_large_image'],
	'rule/no-prefix': ['A prefix stands for a vocabulary, and says which.', 'shop:price with shop = https://…'],
	'rule/reserved-name': ['Two tags of one name: readers would take either.', 'meta:description → description'],
	'rule/double': ['One of them does nothing, and somebody will wonder why.', 'Two rules for og:title at one type'],
	'rule/extra-markup': ['It would end the head, or run in every page.', '<div> in a head']
} satisfies Partial<Record<FindingCode, About>>;

export const FINDINGS: Readonly<Record<FindingCode, About>> = {
	...ON_PAGES,
	...ON_PICTURES,
	...OF_VALUES,
	...OF_ALL,
	...AS_SERVED,
	...IN_RULES
};
