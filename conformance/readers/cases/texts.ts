import { type ReaderCase, SITE, WORDS, TAGS, page, answer, html, leads, one, tagged, added } from './answers';

export const TEXTS: ReaderCase[] = [
	one(
		'no charset at all, UTF-8 beyond ASCII',
		answer(
			'200 OK',
			['Content-Type: text/html'],
			page(TAGS.replace('cold', 'cölder')).replace('<meta charset="utf-8">', '')
		),
		['no-charset']
	),
	one(
		'windows-1252 said to be UTF-8 by the header',
		html(Buffer.from(page(TAGS.replaceAll('Eider', 'Küste')), 'latin1')),
		['broken-characters', 'broken-characters']
	),
	one(
		'windows-1252 said to be UTF-8 by the page',
		answer('200 OK', ['Content-Type: text/html'], Buffer.from(page(TAGS.replaceAll('Eider', 'Küste')), 'latin1')),
		['broken-characters', 'broken-characters']
	),
	one('header utf8, meta utf-8', answer('200 OK', ['Content-Type: text/html; charset=utf8'], page()), []),
	one(
		'header iso-8859-1, meta windows-1252',
		answer('200 OK', ['Content-Type: text/html; charset=iso-8859-1'], page().replace('"utf-8"', '"windows-1252"')),
		[]
	),
	one('header iso-8859-1, meta utf-8', answer('200 OK', ['Content-Type: text/html; charset=iso-8859-1'], page()), [
		'wrong-charset'
	]),
	one(
		'a charset inside a comment',
		answer(
			'200 OK',
			['Content-Type: text/html'],
			page(TAGS.replaceAll('Eider', 'Küste')).replace(
				'<meta charset="utf-8">',
				'<!-- <meta charset="windows-1252"> -->'
			)
		),
		['no-charset'],
		{
			cards: { gangway: { title: 'Küste' } }
		}
	),
	one(
		'a charset after 1024 bytes',
		answer(
			'200 OK',
			['Content-Type: text/html'],
			page().replace('<meta charset="utf-8">', `<!--${'.'.repeat(1100)}--><meta charset="utf-8">`)
		),
		['late-charset']
	),
	tagged('encoded twice', '>Eider<', '>EidÃ©r<', ['double-encoded'], { cards: { fathom: { title: 'EidÃ©r' } } }),
	tagged('a dash that was encoded twice', '>Eider<', '>Eider â€“ a duck<', ['double-encoded']),
	tagged('letters that look encoded twice and are not', '>Eider<', '>CORAÇÃO e Âncora, MÃE<', []),
	tagged('escaped twice', '>Eider<', '>Eiders &amp;amp; ducks<', ['escaped-twice']),
	tagged('an ampersand that is meant', '>Eider<', '>Eiders &amp; ducks<', []),
	tagged('two braces left in a title', '>Eider<', '>{{ page.title }}<', ['template-left']),
	tagged('a dollar and braces left in a title', '>Eider<', '>${title}<', ['template-left']),
	tagged('a tag of a template left in a title', '>Eider<', '>{% block title %}<', ['template-left']),
	tagged('per cents around a name', '>Eider<', '>%%title%%<', ['template-left']),
	tagged('per cents that are meant', '>Eider<', '>Eiders: 50% fewer, 20% heavier<', []),
	tagged('undefined in og:title', 'og:title" content="Eider"', 'og:title" content="undefined"', ['template-left']),
	tagged('null in a description', /content="A duck[^"]*"/, 'content="null"', ['template-left']),
	tagged('[object Object]', '>Eider<', '>Eider [object Object]<', ['template-left']),
	tagged('a title of braces that is meant', '>Eider<', '>Sets {a, b} and {c}<', []),
	added('one meta with a property and a name', '', [], {
		serves: {
			'/eider': html(
				page(TAGS.replace('<meta name="description"', '<meta name="description" property="og:description"'))
			)
		}
	}),
	added('<base> before what is relative', '', ['relative-address'], {
		serves: { '/eider': html(page(`<base href="${SITE}/deep/">${TAGS.replace(`${SITE}/p.jpg`, '../p.jpg')}`)) },
		cards: { gangway: { picture: `${SITE}/p.jpg` }, bottle: { picture: null } }
	}),
	tagged('an address without a scheme', `${SITE}/p.jpg`, '//s.example/p.jpg', ['relative-address'], {
		cards: { gangway: { picture: `${SITE}/p.jpg` }, bottle: { picture: null } }
	}),
	tagged('canonical that is home', `${SITE}/eider`, `${SITE}/`, ['names-home']),
	added('og:url that is home', `<meta property="og:url" content="${SITE}">`, ['names-home']),
	tagged('a page not found, served as found', '>Eider<', '>Site | Page not found<', ['not-found-served']),
	tagged('a page that could not be found, in other words', '>Eider<', '>Sorry, we could not find that page<', [
		'not-found-served'
	]),
	one('a page not found by its heading alone', html(page(TAGS, WORDS.replace('Eider', 'Page not found'))), [
		'not-found-served'
	]),
	tagged('a title about what is not found', '>Eider<', '>How we found the eider that was not found for years<', []),
	one('a page that asks to sign in', html(page('<title>Sign in</title>', '<form><input type="password"></form>')), [
		'sign-in-page',
		'missing-tag',
		'missing-tag',
		'missing-tag'
	]),
	one(
		'a page that asks for an address first',
		html(
			page(
				'<title>Sign in to Acme</title>',
				'<form><label>Your address <input type="email" name="email"></label></form>'
			)
		),
		['sign-in-page', 'missing-tag', 'missing-tag', 'missing-tag']
	),
	one('sent away to sign in, with a card of its own', leads('/login?next=/eider'), ['sign-in-page'], {
		serves: {
			'/login?next=/eider': html(
				page(
					TAGS.replaceAll('Eider', 'Log in'),
					`<form><input name="username" autocomplete="username"></form>${WORDS.replace('Eider', 'Log in')}`
				)
			)
		}
	}),
	one(
		'a newsletter on a page of its own',
		html(page(TAGS, `${WORDS}<form><input type="email" name="email"></form>`)),
		[]
	)
];
