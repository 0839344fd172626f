import { type ReaderCase, TAGS, page, answer, html, one, added, NOBODY, OBEYING, each, none } from './answers';

export const READERS_APART: ReaderCase[] = [
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
	one(
		'X-Robots-Tag that is over since long',
		html(page(), 'X-Robots-Tag: unavailable_after: 25 Jun 2010 15:00:00 GMT'),
		['noindex-served']
	),
	added('robots that are over since long', '<meta name="robots" content="index, unavailable_after: 2010-06-25">', [
		'noindex-served'
	]),
	added('robots: none', '<meta name="robots" content="NONE">', ['noindex-served'])
];
