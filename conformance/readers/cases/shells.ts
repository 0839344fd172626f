import { type ReaderCase, TAGS, page, html, one } from './answers';

export const SHELLS: ReaderCase[] = [
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
