import { type ReaderCase, SITE, WORDS, TAGS, page, answer, html, one, tagged, added } from './answers';

export const MORE: ReaderCase[] = [
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
	added('JSON-LD that cannot be read', '<script type="application/ld+json">{"headline": </script>', ['broken-data'], {
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
