import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from 'node:zlib';

/**
 * What servers answer, byte for byte, and what must be told of it: written from the habits as they are stated, before
 * anything was run. Every address not named here answers with 404.
 */

/** One answer: what stands before its body, and the body; of several readers, by words of their agent. */
export interface Answer {
	/** Status line and fields, without the empty line after them. */
	readonly head: readonly string[];
	readonly body?: string | Buffer | DrawnFile;
	/** The connection ends here, so many bytes into the body. */
	readonly endsAfter?: number;
	/** Nothing comes for so many milliseconds before the body. */
	readonly waits?: number;
	/** The body is said again without end. */
	readonly isEndless?: true;
}
/** A picture of `files.json`, with so many bytes of nothing after it. */
interface DrawnFile {
	readonly file: string;
	readonly pad?: number;
}
export type Serves = Readonly<Record<string, Answer | Readonly<Record<string, Answer>>>>;

export interface ReaderCase {
	readonly name: string;
	/** A path of `https://s.example`; `/` without it. */
	readonly path?: string;
	readonly serves: Serves;
	/** The kinds of what must be told, in any order; a sound page tells nothing. */
	readonly tells: readonly string[];
	/** For readers by their ids: no card, or what must stand on it. */
	readonly cards?: Readonly<Record<string, null | { readonly title?: string; readonly picture?: string | null }>>;
}

const SITE = 'https://s.example';
const WORDS = `<h1>Eider</h1><p>${'Words that this page has of its own. '.repeat(12)}</p>`;
const TAGS = [
	'<title>Eider</title>',
	'<meta name="description" content="A duck of cold seas and shores.">',
	`<link rel="canonical" href="${SITE}/eider">`,
	'<meta property="og:title" content="Eider">',
	`<meta property="og:image" content="${SITE}/p.jpg">`
].join('');
const page = (tags = TAGS, body = WORDS) =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8">${tags}</head><body>${body}</body></html>`;
const answer = (status: string, fields: readonly string[], body: Answer['body'] = ''): Answer => ({
	head: [`HTTP/1.1 ${status}`, ...fields],
	body
});
const html = (body: string | Buffer = page(), ...fields: string[]): Answer =>
	answer('200 OK', ['Content-Type: text/html; charset=utf-8', ...fields], body);
const leads = (to: string, status = '302 Found') => answer(status, [`Location: ${to}`]);
const picture = (file: string, pad?: number): Answer =>
	answer('200 OK', ['Content-Type: image/jpeg'], { file, ...(pad !== undefined && { pad }) });
const P = { '/p.jpg': picture('p.jpg') };
const one = (name: string, served: Answer, tells: readonly string[], more: Partial<ReaderCase> = {}): ReaderCase => ({
	...{ name, path: '/eider', tells },
	...more,
	serves: { '/eider': served, ...P, ...more.serves }
});
const tagged = (
	name: string,
	from: string | RegExp,
	to: string,
	tells: readonly string[],
	more: Partial<ReaderCase> = {}
) => one(name, html(page(TAGS.replace(from, to))), tells, more);
const added = (name: string, tags: string, tells: readonly string[], more: Partial<ReaderCase> = {}) =>
	one(name, html(page(TAGS + tags)), tells, more);
const IMAGE = /<meta property="og:image"[^>]*>/;
const pictured = (name: string, file: Answer, tells: readonly string[], more: Partial<ReaderCase> = {}) =>
	one(name, html(page(TAGS.replace('/p.jpg', '/q'))), tells, { ...more, serves: { '/q': file, ...more.serves } });
const NOBODY = null;
const ALL = [
	...['gangway', 'fathom', 'fathom-narrow', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack', 'porthole'],
	...['logbook', 'almanac', 'flotsam', 'semaphore']
];
const OBEYING = ['gangway', 'fathom', 'fathom-narrow', 'headland', 'ropewalk', 'wrack', 'logbook', 'almanac'];
const SHOWING = ['gangway', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack', 'almanac', 'flotsam', 'semaphore'];
const each = <T>(ids: readonly string[], said: T): Record<string, T> => Object.fromEntries(ids.map((id) => [id, said]));
const none = each(ALL, NOBODY);
const plain = each(SHOWING, { picture: null });

const WAYS: ReaderCase[] = [
	one('a sound page', html(), []),
	one('302 without Location', answer('302 Found', []), ['leads-nowhere'], { cards: none }),
	one('302 with an empty Location', answer('302 Found', ['Location: ']), ['leads-nowhere'], { cards: none }),
	one('300 with a body', answer('300 Multiple Choices', ['Content-Type: text/html'], page()), ['leads-nowhere'], {
		cards: none
	}),
	one('304 that nobody asked for', answer('304 Not Modified', []), ['leads-nowhere'], { cards: none }),
	one('204', answer('204 No Content', []), ['missing-tag', 'missing-tag', 'missing-tag', 'missing-tag'], {}),
	one('410', answer('410 Gone', ['Content-Type: text/html'], page()), ['error-page'], { cards: none }),
	one('503', answer('503 Busy', ['Content-Type: text/html', 'Retry-After: 9'], page()), ['error-page'], {
		cards: none
	}),
	one('six redirects', leads('/1'), ['fails-for'], {
		serves: {
			...Object.fromEntries([1, 2, 3, 4].map((at) => [`/${at}`, leads(`/${at + 1}`)])),
			'/5': leads('/there'),
			'/there': html()
		},
		cards: { ...none, porthole: { title: 'Eider' } }
	}),
	one('five redirects', leads('/1'), [], {
		serves: {
			...Object.fromEntries([1, 2, 3].map((at) => [`/${at}`, leads(`/${at + 1}`)])),
			'/4': leads('/there'),
			'/there': html()
		}
	}),
	one('308, which one reader does not know', leads('/there', '308 Permanent Redirect'), ['fails-for'], {
		serves: { '/there': html() },
		cards: { bottle: NOBODY, gangway: { title: 'Eider' } }
	}),
	one('303', leads('/there', '303 See Other'), [], { serves: { '/there': html() } }),
	one('to another host', leads('https://www.s.example/there'), ['redirected-elsewhere'], {
		serves: { '/there': html() },
		cards: { ropewalk: NOBODY, gangway: { title: 'Eider' } }
	}),
	one('to a path that robots.txt shuts', leads('/shut/there'), ['leads-to-shut'], {
		serves: {
			'/robots.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: *\nDisallow: /shut/\n'),
			'/shut/there': html()
		},
		cards: { ...each(OBEYING, NOBODY), galley: { title: 'Eider' } }
	}),
	one(
		'by a refresh to a path that robots.txt shuts',
		html(page(`<meta http-equiv="refresh" content="0; url=/shut/there">${TAGS}`)),
		['leads-to-shut', 'leads-on'],
		{
			serves: {
				'/robots.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: *\nDisallow: /shut/\n'),
				'/shut/there': html()
			},
			cards: { porthole: { title: 'Eider' }, fathom: NOBODY, gangway: { title: 'Eider' } }
		}
	),
	one('a refresh without a head of its own', html('<meta http-equiv="refresh" content="0; url=/good">'), ['leads-on'], {
		serves: { '/good': html() },
		cards: { fathom: { title: 'Eider' }, porthole: { title: 'Eider' }, gangway: { title: '' } }
	}),
	one(
		'a refresh with a head of its own',
		html(page(`<meta http-equiv="refresh" content="0; url=/good">${TAGS.replaceAll('Eider', 'Before')}`)),
		['leads-on'],
		{
			serves: { '/good': html() },
			cards: { fathom: { title: 'Eider' }, gangway: { title: 'Before' } }
		}
	),
	one('a refresh as a header', html(page(), 'Refresh: 0;url=/good'), ['leads-on'], {
		serves: { '/good': html(page(TAGS.replaceAll('Eider', 'After'))) },
		cards: { fathom: { title: 'After' }, gangway: { title: 'Eider' } }
	}),
	one(
		'100 Continue before the answer',
		{ head: ['HTTP/1.1 100 Continue', '', 'HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8'], body: page() },
		[]
	),
	one(
		'103 Early Hints before the answer',
		{
			head: [
				'HTTP/1.1 103 Early Hints',
				'Link: </a.css>; rel=preload',
				'',
				'HTTP/1.1 200 OK',
				'Content-Type: text/html; charset=utf-8'
			],
			body: page()
		},
		[]
	),
	one(
		'a page that asks for a cookie first',
		{ ...leads('/eider'), head: ['HTTP/1.1 302 Found', 'Location: /eider', 'Set-Cookie: seen=1'] },
		['broken'],
		{ cards: none }
	)
];

const READERS_APART: ReaderCase[] = [
	one('one reader gets 403', html(), ['fails-for'], {
		serves: { '/eider': { Galley: answer('403 Forbidden', ['Content-Type: text/html'], 'no'), '': html() } },
		cards: { galley: NOBODY, gangway: { title: 'Eider' } }
	}),
	one('one reader gets 404 with the same head', html(), ['fails-for'], {
		serves: {
			'/eider': { Headland: answer('404 Not Found', ['Content-Type: text/html; charset=utf-8'], page()), '': html() }
		},
		cards: { headland: NOBODY, gangway: { title: 'Eider' } }
	}),
	one('all but one get 503', html(), ['fails-for'], {
		serves: { '/eider': { Porthole: html(), '': answer('503 Busy', ['Content-Type: text/html'], 'busy') } },
		cards: { ...none, porthole: { title: 'Eider' } }
	}),
	one('all but one get a body cut short', html(), ['broken'], {
		serves: {
			'/eider': {
				Porthole: html(),
				'': {
					head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8', 'Content-Length: 9000'],
					body: page(),
					endsAfter: 700
				}
			}
		},
		cards: { headland: NOBODY, gangway: { title: 'Eider' }, porthole: { title: 'Eider' } }
	}),
	one('all but one get half a head', html(), ['broken', 'differs-by-reader'], {
		serves: {
			'/eider': {
				Porthole: html(),
				'': {
					head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8', 'Content-Length: 9000'],
					body: page(),
					endsAfter: 100
				}
			}
		},
		cards: { headland: NOBODY, gangway: { title: 'Eider', picture: null } }
	}),
	one('one reader gets another head', html(), ['differs-by-reader'], {
		serves: { '/eider': { Wrack: html(page(TAGS.replaceAll('Eider', 'Pin me'))), '': html() } },
		cards: { wrack: { title: 'Pin me' }, gangway: { title: 'Eider' } }
	}),
	one('by language: another page for those that ask for one', html(), ['differs-by-reader'], {
		serves: { '/eider': { Ropewalk: html(page(TAGS.replaceAll('Eider', 'Eider duck'))), '': html() } },
		cards: { ropewalk: { title: 'Eider duck' } }
	}),
	one('robots.txt answers with 500', html(), ['robots-failing'], {
		serves: { '/robots.txt': answer('500 Error', ['Content-Type: text/plain'], 'x') },
		cards: { ...each(OBEYING, NOBODY), galley: { title: 'Eider' } }
	}),
	one('robots.txt shuts one out', html(), ['blocked-by-robots'], {
		serves: { '/robots.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: ropewalk\nDisallow: /\n') },
		cards: { ropewalk: NOBODY, gangway: { title: 'Eider' } }
	}),
	added('a meta that speaks to one reader', '<meta name="fathom" content="noindex">', ['noindex-for']),
	one('X-Robots-Tag: noindex', html(page(), 'X-Robots-Tag: noindex'), ['noindex-served']),
	one('X-Robots-Tag for one', html(page(), 'X-Robots-Tag: fathom: noindex, nofollow'), ['noindex-for']),
	one('two X-Robots-Tag', html(page(), 'X-Robots-Tag: max-snippet:20', 'X-Robots-Tag: otherbot: none'), []),
	added('max-image-preview:none', '<meta name="robots" content="index, max-image-preview:none">', [
		'no-picture-preview'
	]),
	added('robots: none', '<meta name="robots" content="NONE">', ['noindex-served'])
];

const KINDS: ReaderCase[] = [
	one('text/plain', answer('200 OK', ['Content-Type: text/plain'], page()), ['no-page'], { cards: none }),
	one('a download', html(page(), 'Content-Disposition: attachment; filename=a.html'), ['no-page'], { cards: none }),
	one('shown inline by name', html(page(), 'Content-Disposition: inline; filename=a.html'), []),
	one('a PDF', answer('200 OK', ['Content-Type: application/pdf'], '%PDF-1.4 <title>Eider</title>'), ['no-page'], {
		cards: none
	}),
	one('a PDF that says it is a page', html('%PDF-1.4 <title>Eider</title>'), ['no-page'], { cards: none }),
	one('a PNG that says it is a page', { ...html(), body: { file: 'p.png' } }, ['no-page'], { cards: none }),
	one('a PNG without a type', answer('200 OK', [], { file: 'p.png' }), ['no-page'], { cards: none }),
	one('JSON', answer('200 OK', ['Content-Type: application/json'], '{"title":"Eider"}'), ['no-page'], { cards: none }),
	one('XHTML', answer('200 OK', ['Content-Type: application/xhtml+xml; charset=utf-8'], page()), []),
	one('a page without a type', answer('200 OK', [], page()), []),
	one(
		'zstd',
		{
			...html(Buffer.from([0x28, 0xb5, 0x2f, 0xfd, 0, 0, 0])),
			head: ['HTTP/1.1 200 OK', 'Content-Type: text/html', 'Content-Encoding: zstd']
		},
		['broken'],
		{ cards: none }
	),
	one('zstd that is not announced', html(Buffer.from([0x28, 0xb5, 0x2f, 0xfd, 0, 0, 0])), ['no-page'], { cards: none }),
	one('gzip that is not announced', html(gzipSync(page())), ['no-page'], { cards: none }),
	one('gzip', html(gzipSync(page()), 'Content-Encoding: gzip'), []),
	one('x-gzip', html(gzipSync(page()), 'Content-Encoding: X-GZIP'), []),
	one('deflate', html(deflateSync(page()), 'Content-Encoding: deflate'), []),
	one('deflate without its frame', html(deflateRawSync(page()), 'Content-Encoding: deflate'), []),
	one('br', html(brotliCompressSync(page()), 'Content-Encoding: br'), []),
	one('gzip, gzip', html(gzipSync(gzipSync(page())), 'Content-Encoding: gzip, gzip'), []),
	one(
		'two Content-Encoding',
		html(brotliCompressSync(gzipSync(page())), 'Content-Encoding: gzip', 'Content-Encoding: br'),
		[]
	),
	one('identity', html(page(), 'Content-Encoding: identity'), []),
	one('gzip that is none', html(page(), 'Content-Encoding: gzip'), ['broken'], { cards: none }),
	one(
		'24 MB packed honestly',
		html(gzipSync(page(TAGS, WORDS + '<p>On and on.</p>\n'.repeat(1_350_000))), 'Content-Encoding: gzip'),
		['endless-page'],
		{
			cards: each(ALL, { title: 'Eider' })
		}
	),
	one(
		'an endless body',
		{ ...html(page(TAGS, `${WORDS}${'<p>On and on.</p>\n'.repeat(60_000)}`)), isEndless: true },
		['endless-page', 'below-head'],
		{
			cards: { gangway: { title: 'Eider' }, porthole: { title: 'Eider' } }
		}
	),
	one('210 kB of Japanese before the head', html(page(`<!--${'海'.repeat(70_000)}-->${TAGS}`)), ['beyond-reading'], {
		cards: { bottle: { title: '' }, gangway: { title: 'Eider' } }
	}),
	one('an empty page', html(''), ['missing-tag', 'missing-tag', 'missing-tag', 'missing-tag'])
];

const TEXTS: ReaderCase[] = [
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
	tagged('{{ }} in a title', '>Eider<', '>{{ page.title }}<', ['template-left']),
	tagged('${ } in a title', '>Eider<', '>${title}<', ['template-left']),
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

const SHELLS: ReaderCase[] = [
	one(
		'an app shell with a head for all',
		html(
			page(
				TAGS.replaceAll('Eider', 'App').replace(/<link[^>]*>/, '') + '<script src="/app.js"></script>',
				'<div id="app"></div>'
			)
		),
		['same-everywhere'],
		{
			serves: {
				'/': html(
					page(
						TAGS.replaceAll('Eider', 'App').replace(/<link[^>]*>/, '') + '<script src="/app.js"></script>',
						'<div id="app"></div>'
					)
				)
			}
		}
	),
	one('an app shell at home', html(), ['same-everywhere'], {
		path: '/',
		serves: Object.fromEntries(
			['/', '/a-page-that-is-not-there'].map((path) => [
				path,
				html(
					page(
						TAGS.replaceAll('Eider', 'App').replace(/<link[^>]*>/, '') + '<script src="/app.js"></script>',
						'<div id="app"></div>'
					)
				)
			])
		)
	}),
	one(
		'an app shell with only a default description',
		html(page('<meta name="description" content="An app."><script src="/app.js"></script>', '<div id="app"></div>')),
		['needs-scripts']
	),
	one(
		'a short page with scripts and a head of its own',
		html(page(`${TAGS}<script src="/app.js"></script>`, '<p>Short.</p>')),
		[],
		{
			serves: { '/': html(page(TAGS.replaceAll('Eider', 'Home'))) }
		}
	),
	one(
		'a script of JSON-LD is none that writes the page',
		html(
			page(`${TAGS}<script type="application/ld+json">{"@type":"Thing","name":"Eider duck"}</script>`, '<p>Short.</p>')
		),
		[],
		{
			cards: { almanac: { title: 'Eider duck' }, gangway: { title: 'Eider' } }
		}
	)
];

const PICTURES: ReaderCase[] = [
	pictured('a picture that is 404', answer('404 Not Found', []), ['picture-missing'], { cards: plain }),
	pictured('a picture that is 401', answer('401 Unauthorized', []), ['picture-missing'], { cards: plain }),
	pictured('a picture that is HTML', html(), ['picture-unreadable'], { cards: plain }),
	pictured('a picture that is empty', answer('200 OK', ['Content-Type: image/jpeg']), ['picture-unreadable'], {
		cards: plain
	}),
	pictured('a picture of 9 MB', picture('p.jpg', 9_000_000), ['served-heavy'], {
		cards: {
			...each(['headland', 'ropewalk', 'galley', 'bottle', 'flotsam', 'semaphore'], { picture: null }),
			gangway: { picture: `${SITE}/q` }
		}
	}),
	pictured('a picture of 1 MB', picture('p.jpg', 990_000), ['served-heavy'], {
		cards: { bottle: { picture: null }, galley: { picture: `${SITE}/q` } }
	}),
	pictured(
		'SVG by its type',
		answer(
			'200 OK',
			['Content-Type: image/svg+xml'],
			'<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="630"><rect width="9" height="9"/></svg>'
		),
		['picture-form'],
		{ cards: plain }
	),
	pictured('AVIF', { ...picture('p.avif'), head: ['HTTP/1.1 200 OK', 'Content-Type: image/avif'] }, ['picture-form'], {
		cards: plain
	}),
	pictured('WebP', picture('p.webp'), ['picture-form'], {
		cards: {
			ropewalk: { picture: null },
			bottle: { picture: null },
			semaphore: { picture: null },
			gangway: { picture: `${SITE}/q` }
		}
	}),
	pictured('WebP that moves', picture('moves.webp'), ['picture-form'], {
		cards: { gangway: { picture: `${SITE}/q` }, bottle: { picture: null } }
	}),
	pictured('GIF that moves', picture('moves.gif'), ['picture-moves'], {
		cards: { ropewalk: { picture: null }, semaphore: { picture: null }, gangway: { picture: `${SITE}/q` } }
	}),
	pictured('1 × 1', picture('dot.png'), ['picture-mark'], { cards: plain }),
	pictured('300 × 157', picture('small.jpg'), ['served-small'], { cards: { gangway: { picture: `${SITE}/q` } } }),
	tagged('data:', `${SITE}/p.jpg`, 'data:image/gif;base64,R0lGODlhAQABAAAAACw=', ['scheme-address'], { cards: plain }),
	tagged('mailto:', `${SITE}/p.jpg`, 'mailto:a@s.example', ['scheme-address'], { cards: plain }),
	one('on a host whose robots.txt shuts it', html(page(TAGS.replace('/p.jpg', '/shut/p.jpg'))), ['picture-shut'], {
		serves: {
			'/robots.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: *\nDisallow: /shut/\n'),
			'/shut/p.jpg': picture('p.jpg')
		},
		cards: { gangway: { picture: null }, galley: { picture: `${SITE}/shut/p.jpg` } }
	}),
	added(
		'twitter:image that is 404, og:image sound',
		`<meta name="twitter:image" content="${SITE}/none.jpg">`,
		['picture-missing'],
		{
			cards: { headland: { picture: `${SITE}/p.jpg` } }
		}
	),
	added('a second og:image that is 404', `<meta property="og:image" content="${SITE}/none.jpg">`, ['picture-missing'], {
		cards: { gangway: { picture: `${SITE}/p.jpg` }, wrack: { picture: `${SITE}/p.jpg` } }
	}),
	one(
		'a first og:image that is 404, a second sound',
		html(
			page(
				TAGS.replace(
					IMAGE,
					`<meta property="og:image" content="${SITE}/none.jpg"><meta property="og:image" content="${SITE}/p.jpg">`
				)
			)
		),
		['picture-missing'],
		{
			cards: { gangway: { picture: `${SITE}/p.jpg` }, ropewalk: { picture: null } }
		}
	),
	pictured('a picture behind a redirect', leads('/p.jpg'), []),
	pictured('a picture in a circle', leads('/q'), ['picture-missing'], { cards: plain }),
	pictured(
		'a picture that breaks off',
		{
			head: ['HTTP/1.1 200 OK', 'Content-Type: image/jpeg', 'Content-Length: 900000'],
			body: { file: 'p.jpg' },
			endsAfter: 300
		},
		['picture-missing'],
		{ cards: plain }
	),
	pictured('a PNG that says it is a JPEG', picture('p.png'), []),
	tagged('no picture but one of the page', IMAGE, '', ['missing-tag'], {
		serves: { '/eider': html(page(TAGS.replace(IMAGE, ''), `${WORDS}<img src="/p.jpg">`)) },
		cards: { gangway: { picture: null }, flotsam: { picture: `${SITE}/p.jpg` } }
	})
];

const MORE: ReaderCase[] = [
	added('oEmbed by discovery', '<link rel="alternate" type="application/json+oembed" href="/oembed">', [], {
		serves: {
			'/oembed': answer(
				'200 OK',
				['Content-Type: application/json'],
				`{"type":"photo","title":"Eider, embedded","thumbnail_url":"${SITE}/p.jpg"}`
			)
		},
		cards: { logbook: { title: 'Eider, embedded' }, gangway: { title: 'Eider' } }
	}),
	added('oEmbed that is no JSON', '<link rel="alternate" type="application/json+oembed" href="/oembed">', [], {
		serves: { '/oembed': html() },
		cards: { logbook: { title: 'Eider' } }
	}),
	added('oEmbed that is null', '<link rel="alternate" type="application/json+oembed" href="/oembed">', [], {
		serves: { '/oembed': answer('200 OK', ['Content-Type: application/json'], 'null') },
		cards: { logbook: { title: 'Eider' } }
	}),
	added(
		'JSON-LD in a graph',
		`<script type="application/ld+json">{"@graph":[{"@type":"WebSite"},{"@type":"Article","headline":"Of eiders","image":[{"url":"${SITE}/p.jpg"}]}]}</script>`,
		[],
		{
			cards: { almanac: { title: 'Of eiders', picture: `${SITE}/p.jpg` } }
		}
	),
	added('JSON-LD that cannot be read', '<script type="application/ld+json">{"headline": </script>', [], {
		cards: { almanac: { title: 'Eider' } }
	}),
	one('itemprop', html(page(TAGS, `<div itemscope><span itemprop="name">Eider by its name</span></div>${WORDS}`)), [], {
		cards: { almanac: { title: 'Eider by its name' } }
	}),
	tagged('a heading where tags say nothing', '<meta property="og:title" content="Eider">', '', ['missing-tag'], {
		serves: {
			'/eider': html(
				page(TAGS.replace('<meta property="og:title" content="Eider">', ''), WORDS.replace('Eider', 'The eider'))
			)
		},
		cards: { flotsam: { title: 'The eider' }, semaphore: { title: 'Eider' } }
	}),
	added('an icon where browsers look for one', '', [], {
		serves: { '/favicon.ico': answer('200 OK', ['Content-Type: image/x-icon'], Buffer.from([0, 0, 1, 0, 1, 0])) }
	})
];

/** Fields and lines as servers get them wrong. */
const LINES: ReaderCase[] = [
	one('HTTP/1.0', { ...html(), head: ['HTTP/1.0 200 OK', 'Content-Type: text/html; charset=utf-8'] }, []),
	one(
		'no words after the status',
		{ ...html(), head: ['HTTP/1.1 200 ', 'Content-Type: text/html; charset=utf-8'] },
		[]
	),
	one('fields in capitals', { ...html(), head: ['HTTP/1.1 200 OK', 'CONTENT-TYPE: TEXT/HTML; CHARSET=UTF-8'] }, []),
	one('a charset in quotes', { ...html(), head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset="utf-8"'] }, []),
	one(
		'a charset of single quotes',
		{ ...html(), head: ['HTTP/1.1 200 OK', "Content-Type: text/html;charset='utf-8'"] },
		[]
	),
	one('a charset that is none', { ...html(), head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8859'] }, [
		'unknown-charset'
	]),
	one('an empty charset', { ...html(), head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset='] }, []),
	one('two Content-Type', html(page(), 'Content-Type: text/html'), []),
	one('Location relative to the page', leads('there'), [], { serves: { '/there': html() } }),
	one('Location with a fragment', leads('/there#part'), [], { serves: { '/there': html() } }),
	one('Location that is no address', leads('http://[bad'), ['leads-nowhere'], { cards: none }),
	one('Location of another scheme', leads('javascript:alert(1)'), ['unreachable', 'redirected-elsewhere'], {
		cards: none
	}),
	one('Location to a machine inside', leads('http://127.0.0.1:1/'), ['unreachable', 'redirected-elsewhere'], {
		cards: none
	}),
	one('a circle of two', leads('/there'), ['broken'], { serves: { '/there': leads('/eider') }, cards: none }),
	one(
		'a status that nobody knows',
		{ ...html(), head: ['HTTP/1.1 299 Whatever', 'Content-Type: text/html; charset=utf-8'] },
		[]
	),
	one(
		'a status of 600',
		{ ...html(), head: ['HTTP/1.1 600 What', 'Content-Type: text/html; charset=utf-8'] },
		['error-page'],
		{ cards: none }
	),
	one('no HTTP at all', { head: ['SSH-2.0-harbour'], body: '' }, ['unreachable'], { cards: none }),
	one(
		'a field without a colon',
		{ ...html(), head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8', 'oops'] },
		['unreachable'],
		{ cards: none }
	),
	one(
		'fields without end',
		{ ...html(), head: ['HTTP/1.1 200 OK', ...Array.from({ length: 900 }, (_, at) => `X-${at}: ${'y'.repeat(90)}`)] },
		['unreachable'],
		{ cards: none }
	),
	one(
		'chunks',
		{
			...html('5\r\n<titl\r\n0\r\n\r\n'),
			head: [
				'HTTP/1.1 200 OK',
				'Content-Type: text/html; charset=utf-8',
				'Transfer-Encoding: chunked',
				'Content-Length-X: 1'
			]
		},
		['missing-tag', 'missing-tag', 'missing-tag', 'missing-tag']
	),
	one(
		'chunks that break',
		{
			...html('zz\r\n<title>'),
			head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=utf-8', 'Transfer-Encoding: chunked']
		},
		['broken'],
		{ cards: none }
	),
	one(
		'a body longer than its length says',
		{
			...html(),
			head: [
				'HTTP/1.1 200 OK',
				'Content-Type: text/html; charset=utf-8',
				`Content-Length: ${Buffer.byteLength(page())}`
			],
			body: `${page()}<p>more`
		},
		[]
	),
	one('X-Robots-Tag in capitals', html(page(), 'X-ROBOTS-TAG: NOINDEX'), ['noindex-served']),
	one('X-Robots-Tag: none', html(page(), 'X-Robots-Tag: none'), ['noindex-served']),
	one(
		'X-Robots-Tag that is over by a date to come',
		html(page(), 'X-Robots-Tag: unavailable_after: 25 Jun 2099 15:00:00 GMT'),
		[]
	),
	one('a refresh of half a minute', html(page(`<meta http-equiv="refresh" content="30; url=/gone">${TAGS}`)), []),
	one('a refresh to itself', html(page(`<meta http-equiv="refresh" content="0">${TAGS}`)), []),
	one('a refresh in quotes', html(page(`<meta http-equiv="Refresh" content="1;URL='/good'">${TAGS}`)), ['leads-on'], {
		serves: { '/good': html() }
	}),
	one('a refresh inside a comment', html(page(`<!--<meta http-equiv="refresh" content="0; url=/gone">-->${TAGS}`)), [])
];

/** Markup as people and tools write it. */
const MARKUP: ReaderCase[] = [
	one('tags by name instead of property', html(page(TAGS.replaceAll('property=', 'name='))), []),
	one('tags in capitals', html(page(TAGS.replace('property="og:title"', 'PROPERTY="OG:TITLE"'))), [], {
		cards: { gangway: { title: 'Eider' } }
	}),
	one(
		'attributes without quotes',
		html(page(TAGS.replace('"og:title" content="Eider"', 'og:title content=Eider'))),
		[]
	),
	one('single quotes', html(page(TAGS.replaceAll('"', "'"))), []),
	tagged('og:title of nothing', 'og:title" content="Eider"', 'og:title" content=""', ['missing-tag'], {
		cards: { gangway: { title: 'Eider' } }
	}),
	tagged('og:title of white space', 'og:title" content="Eider"', 'og:title" content="  \n "', ['missing-tag'], {
		cards: { gangway: { title: 'Eider' } }
	}),
	tagged('no title element', '<title>Eider</title>', '', ['missing-tag'], { cards: { fathom: { title: 'Eider' } } }),
	tagged('a title inside a drawing only', '<title>Eider</title>', '<noscript></noscript>', ['missing-tag'], {
		serves: {
			'/eider': html(page(TAGS.replace('<title>Eider</title>', ''), `<svg><title>Menu</title></svg>${WORDS}`))
		},
		cards: { fathom: { title: 'Eider' } }
	}),
	one(
		'tags inside a comment',
		html(page(`<!--${TAGS}--><title>Bare</title>`)),
		['missing-tag', 'missing-tag', 'missing-tag'],
		{ cards: { gangway: { title: 'Bare' } } }
	),
	one(
		'tags inside a template',
		html(page(`<template>${TAGS}</template><title>Bare</title>`)),
		['missing-tag', 'missing-tag', 'missing-tag'],
		{ cards: { gangway: { title: 'Bare' } } }
	),
	one(
		'tags inside a script',
		html(page(`<script>document.write('${TAGS}')</script><title>Bare</title>`)),
		['missing-tag', 'missing-tag', 'missing-tag'],
		{ cards: { gangway: { title: 'Bare' } } }
	),
	one(
		'tags below the head',
		html(page('<title>Eider</title>', `${TAGS.replace('<title>Eider</title>', '')}${WORDS}`)),
		['below-head', 'missing-tag', 'missing-tag', 'missing-tag'],
		{
			cards: { wrack: { title: 'Eider', picture: `${SITE}/p.jpg` }, gangway: { title: 'Eider', picture: null } }
		}
	),
	one('no head and no body elements', html(`<!doctype html><meta charset=utf-8>${TAGS}${WORDS}`), []),
	one(
		'a head that a picture for statistics ends',
		html(
			page(`<title>Eider</title><noscript><img src="/dot.gif"></noscript>${TAGS.replace('<title>Eider</title>', '')}`)
		),
		['below-head', 'missing-tag', 'missing-tag', 'missing-tag']
	),
	one(
		'UTF-16 with its mark',
		{
			...html(
				Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(page().replace('<meta charset="utf-8">', ''), 'utf16le')])
			),
			head: ['HTTP/1.1 200 OK', 'Content-Type: text/html']
		},
		[]
	),
	one(
		'a mark of UTF-8 against the header',
		{
			...html(Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from(page(TAGS.replaceAll('Eider', 'Küste')))])),
			head: ['HTTP/1.1 200 OK', 'Content-Type: text/html; charset=iso-8859-1']
		},
		['wrong-charset'],
		{ cards: { gangway: { title: 'Küste' } } }
	),
	one(
		'Shift_JIS said by the page',
		{
			...html(
				Buffer.concat([
					Buffer.from('<!doctype html><html lang="ja"><head><meta charset="shift_jis"><title>'),
					Buffer.from([0x8a, 0x43]),
					Buffer.from(`</title>${TAGS.replace('<title>Eider</title>', '')}</head><body>${WORDS}</body></html>`)
				])
			),
			head: ['HTTP/1.1 200 OK', 'Content-Type: text/html']
		},
		[],
		{ cards: { fathom: { title: '海' } } }
	),
	one('two titles that agree', html(page(`${TAGS}<title>Eider</title>`)), ['doubled-tag']),
	one(
		'two descriptions that do not',
		html(page(`${TAGS}<meta name="description" content="Another.">`)),
		['doubled-tag'],
		{ cards: { fathom: { title: 'Eider' } } }
	),
	added('several og:image', `<meta property="og:image" content="${SITE}/p.jpg?2">`, [], {
		serves: { '/p.jpg?2': picture('p.jpg') }
	}),
	added('og:image:width that lies', '', ['picture-lies'], {
		serves: { '/eider': html(page(`${TAGS}<meta property="og:image:width" content="99">`)) }
	}),
	tagged('an address with spaces around', `${SITE}/p.jpg`, `  ${SITE}/p.jpg `, [], {
		cards: { gangway: { picture: `${SITE}/p.jpg` } }
	}),
	tagged('an address with a reference in it', `${SITE}/p.jpg`, `${SITE}/p.jpg?a=1&amp;b=2`, [], {
		serves: { '/p.jpg?a=1&b=2': picture('p.jpg') }
	}),
	tagged('an address of letters beyond ASCII', `${SITE}/p.jpg`, `${SITE}/küste.jpg`, [], {
		serves: { '/k%C3%BCste.jpg': picture('p.jpg') }
	}),
	tagged('an address of this machine', `${SITE}/p.jpg`, 'http://localhost:3000/p.jpg', [
		'local-served',
		'picture-missing'
	]),
	tagged(
		'a picture on a host that is not there',
		`${SITE}/p.jpg`,
		'https://nowhere.invalid/p.jpg',
		['picture-missing'],
		{ cards: plain }
	),
	tagged('canonical of another scheme', `${SITE}/eider`, 'javascript:void(0)', ['scheme-address']),
	tagged('a very long title', '>Eider<', `>${'Eider duck '.repeat(2000)}<`, []),
	tagged('a title of one emoji in several parts', '>Eider<', '>👩‍👩‍👧‍👦<', [], { cards: { fathom: { title: '👩‍👩‍👧‍👦' } } }),
	one('deep markup', html(page(TAGS, `${'<div>'.repeat(5000)}${WORDS}`)), []),
	one('five megabytes of tags that never end', html(page(TAGS, '<b '.repeat(1_600_000))), [], {
		cards: { gangway: { title: 'Eider' } }
	})
];

/** More of pictures, robots and what stands beside a page. */
const BESIDE: ReaderCase[] = [
	pictured('a picture served as text', answer('200 OK', ['Content-Type: text/plain'], { file: 'p.jpg' }), [
		'picture-type'
	]),
	pictured(
		'a picture served as bytes',
		answer('200 OK', ['Content-Type: application/octet-stream'], { file: 'p.jpg' }),
		['picture-type']
	),
	pictured('a picture without a type', answer('200 OK', [], { file: 'p.jpg' }), []),
	pictured(
		'a picture packed by its server',
		{ ...answer('200 OK', ['Content-Type: image/jpeg', 'Content-Encoding: gzip']), body: gzipSync('no picture') },
		['picture-unreadable']
	),
	pictured(
		'BMP',
		answer('200 OK', ['Content-Type: image/bmp'], Buffer.concat([Buffer.from('BM'), Buffer.alloc(90)])),
		['picture-unreadable'],
		{ cards: plain }
	),
	pictured(
		'half a picture with its whole length said',
		answer('200 OK', ['Content-Type: image/jpeg'], { file: 'half.jpg' }),
		['picture-missing'],
		{ cards: plain }
	),
	pictured('503 for pictures', answer('503 Busy', []), ['picture-missing'], { cards: plain }),
	pictured('a picture of another reader', picture('p.jpg'), ['picture-apart'], {
		serves: { '/q': { Galley: answer('403 Forbidden', []), '': picture('p.jpg') } },
		cards: { galley: { picture: null }, gangway: { picture: `${SITE}/q` } }
	}),
	one('robots.txt of HTML', html(), [], { serves: { '/robots.txt': html('<!doctype html><title>Home</title>') } }),
	one('robots.txt that is forbidden', html(), [], { serves: { '/robots.txt': answer('403 Forbidden', []) } }),
	one('robots.txt behind a redirect', html(), ['blocked-by-robots'], {
		serves: {
			'/robots.txt': leads('/r.txt'),
			'/r.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: *\nDisallow: /eider\n')
		},
		cards: { gangway: NOBODY, galley: { title: 'Eider' } }
	}),
	one('robots.txt with a mark, in capitals, with other line ends', html(), ['blocked-by-robots'], {
		serves: {
			'/robots.txt': answer('200 OK', ['Content-Type: text/plain'], '\uFEFFUSER-AGENT: Gangway\r\nDISALLOW: /*er$\r\n')
		},
		cards: { gangway: NOBODY, headland: { title: 'Eider' } }
	}),
	one('robots.txt that allows what it shuts', html(), [], {
		serves: {
			'/robots.txt': answer(
				'200 OK',
				['Content-Type: text/plain'],
				'User-agent: *\nDisallow: /\nAllow: /eider$\nAllow: /p.jpg\n'
			)
		}
	}),
	one('robots.txt that says nothing', html(), [], {
		serves: { '/robots.txt': answer('200 OK', ['Content-Type: text/plain'], '') }
	}),
	added('oEmbed that robots.txt shuts', '<link rel="alternate" type="application/json+oembed" href="/shut/o">', [], {
		serves: {
			'/robots.txt': answer('200 OK', ['Content-Type: text/plain'], 'User-agent: *\nDisallow: /shut/\n'),
			'/shut/o': answer('200 OK', ['Content-Type: application/json'], '{"title":"Embedded"}')
		},
		cards: { logbook: { title: 'Eider' } }
	}),
	added(
		'JSON-LD of null and of lists',
		'<script type="application/ld+json">[null, [1], {"name": "By its name"}]</script>',
		[],
		{ cards: { almanac: { title: 'By its name' } } }
	),
	added(
		'JSON-LD of a name that is no text',
		'<script type="application/ld+json">{"name": {"@value": "x"}, "headline": 3, "image": 4}</script>',
		[],
		{ cards: { almanac: { title: 'Eider' } } }
	),
	added(
		'names that a plain object knows',
		'<meta name="constructor" content="x"><meta property="__proto__" content="y"><meta itemprop="toString" content="z">',
		[]
	)
];

export const CASES: readonly ReaderCase[] = [
	...LINES,
	...MARKUP,
	...BESIDE,
	...WAYS,
	...READERS_APART,
	...KINDS,
	...TEXTS,
	...SHELLS,
	...PICTURES,
	...MORE
];
