import { gzipSync } from 'node:zlib';
import { type ReaderCase, SITE, answer, html, leads, picture, one, added, pictured, NOBODY, plain } from './answers';

/** More of pictures, robots and what stands beside a page. */
export const BESIDE: ReaderCase[] = [
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
	pictured('a picture that is a page for one reader', picture('p.jpg'), ['picture-apart'], {
		serves: { '/q': { Galley: html(), '': picture('p.jpg') } },
		cards: { galley: { picture: null }, gangway: { picture: `${SITE}/q` } }
	}),
	pictured('a picture that is a page for the first who asks', picture('p.jpg'), ['picture-apart'], {
		serves: { '/q': { Gangway: html(), '': picture('p.jpg') } },
		cards: { gangway: { picture: null }, galley: { picture: `${SITE}/q` } }
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
