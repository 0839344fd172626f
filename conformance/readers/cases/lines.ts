import { type ReaderCase, TAGS, page, html, leads, one, none } from './answers';

/** Fields and lines as servers get them wrong. */
export const LINES: ReaderCase[] = [
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
