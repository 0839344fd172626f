import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from 'node:zlib';
import { type ReaderCase, WORDS, TAGS, page, answer, html, one, ALL, each, none } from './answers';

export const KINDS: ReaderCase[] = [
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
