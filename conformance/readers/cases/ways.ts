import { type ReaderCase, TAGS, page, answer, html, leads, one, NOBODY, OBEYING, each, none } from './answers';

export const WAYS: ReaderCase[] = [
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
