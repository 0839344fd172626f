import {
	type ReaderCase,
	SITE,
	WORDS,
	TAGS,
	page,
	answer,
	html,
	leads,
	picture,
	one,
	tagged,
	added,
	IMAGE,
	pictured,
	each,
	plain
} from './answers';

export const PICTURES: ReaderCase[] = [
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
