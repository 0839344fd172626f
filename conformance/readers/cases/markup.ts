import { type ReaderCase, SITE, WORDS, TAGS, page, html, picture, one, tagged, added, plain } from './answers';

/** Markup as people and tools write it. */
export const MARKUP: ReaderCase[] = [
	one('tags by name instead of property', html(page(TAGS.replaceAll('property=', 'name='))), ['near-tag']),
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
