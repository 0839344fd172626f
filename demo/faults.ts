import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';

/** The faults that real sites have, each at an address of the stand-in website, to be looked at in the room of readers. */

type Answer = (request: IncomingMessage, response: ServerResponse) => void;
export interface Fault {
	/** In a sentence: what is wrong there. */
	readonly says: string;
	/** The kind of finding that tells of it. */
	readonly code: string;
	readonly answer: Answer;
}

/** Packed once, when it is first asked for. */
let bomb: Promise<Buffer> | undefined;

const BASE = 'https://merrowcoast.example';
const HTML = 'text/html; charset=utf-8';

interface Parts {
	readonly title?: string;
	readonly more?: string;
	readonly picture?: string;
	readonly before?: string;
	readonly charset?: string;
}
/** A page with nothing wrong but for what is said. */
const pageWith = ({
	title = 'Eider on the slip',
	more = '',
	picture = `${BASE}/pictures/cliff.jpg`,
	before = '',
	charset = '<meta charset="utf-8">'
}: Parts) =>
	`<!doctype html>\n<html lang="en-GB">\n<head>\n${before}${charset}\n<title>${title}</title>\n<meta name="description" content="A duck of cold seas, asleep on the harbour slip at low water.">\n<meta property="og:title" content="${title}">\n${picture && `<meta property="og:image" content="${picture}">\n`}${more}</head>\n<body>\n<h1>${title}</h1>\n<p>${'It did not wake when the boat came in. '.repeat(12)}</p>\n<img src="/pictures/boat.jpg" alt="">\n<img src="/pictures/marsh.jpg" alt="">\n</body>\n</html>\n`;
const html =
	(text: string, type = HTML): Answer =>
	(_request, response) =>
		void response.writeHead(200, { 'content-type': type }).end(text);
const redirect =
	(to: string): Answer =>
	(_request, response) =>
		void response.writeHead(302, { location: to }).end();

export const FAULTS: Readonly<Record<string, Fault>> = {
	'two-tools': {
		says: 'Two tools write tags: a second title and og:title stand below the first.',
		code: 'doubled-tag',
		answer: html(
			pageWith({ more: '<title>Eider | Merrow</title>\n<meta property="og:title" content="Eider | Merrow">\n' })
		)
	},
	shell: {
		says: 'A shell that only scripts fill.',
		code: 'needs-scripts',
		answer: html(
			'<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>Merrow</title><script src="/app.js"></script></head><body><div id="app"></div></body></html>'
		)
	},
	'by-chance': {
		says: 'No tag names a picture: some readers take any of the page.',
		code: 'missing-tag',
		answer: html(pageWith({ picture: '' }))
	},
	'sign-in': {
		says: 'A sign-in stands before it.',
		code: 'sign-in-page',
		answer: html(
			'<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>Sign in</title></head><body><form><input type="password" aria-label="Password"></form></body></html>'
		)
	},
	www: {
		says: 'It leads to another host.',
		code: 'redirected-elsewhere',
		answer: redirect('https://www.merrowcoast.example/visit')
	},
	loop: { says: 'Its redirects go round in a circle.', code: 'broken', answer: redirect('/faults/loop-back') },
	'loop-back': { says: 'The other half of the circle.', code: 'broken', answer: redirect('/faults/loop') },
	'far-head': {
		says: 'Six hundred kilobytes of style stand before the tags.',
		code: 'beyond-reading',
		answer: html(pageWith({ before: `<style>${'.rock{color:#345}'.repeat(38_000)}</style>\n` }))
	},
	'late-charset': {
		says: 'The encoding is declared too late.',
		code: 'late-charset',
		answer: html(pageWith({ charset: `<!--${' '.repeat(1200)}-->\n<meta charset="utf-8">` }), 'text/html')
	},
	'other-charset': {
		says: 'The server says another encoding than the page.',
		code: 'wrong-charset',
		answer: html(pageWith({ charset: '<meta charset="iso-8859-1">' }))
	},
	'relative-picture': {
		says: 'Its picture is a relative address.',
		code: 'relative-address',
		answer: html(pageWith({ picture: '/pictures/cliff.jpg' }))
	},
	'heavy-picture': {
		says: 'Its picture weighs nine megabytes.',
		code: 'served-heavy',
		answer: html(pageWith({ picture: `${BASE}/faults/heavy.jpg` }))
	},
	'picture-page': {
		says: 'Its picture is a page.',
		code: 'picture-unreadable',
		answer: html(pageWith({ picture: `${BASE}/faults/soft-404` }))
	},
	'soft-404': {
		says: 'A page that is not found answers as if it were.',
		code: 'not-found-served',
		answer: html(pageWith({ title: 'Page not found' }))
	},
	'shut-out': {
		says: 'robots.txt shuts some readers out.',
		code: 'blocked-by-robots',
		answer: html(pageWith({}))
	},
	slow: {
		says: 'It answers after twelve seconds.',
		code: 'unreachable',
		answer: (_request, response) => void setTimeout(() => response.end(pageWith({})), 12_000).unref()
	},
	'cut-off': {
		says: 'It breaks off in the middle.',
		code: 'broken',
		answer: (_request, response) => {
			response.writeHead(200, { 'content-type': HTML, 'content-length': '9000' });
			response.write('<!doctype html><title>Half of it</title>');
			setTimeout(() => response.socket?.destroy(), 20);
		}
	},
	reset: {
		says: 'The connection is broken off before anything came.',
		code: 'unreachable',
		answer: (request) => void request.socket.destroy()
	},
	bomb: {
		says: 'It unpacks into eighty megabytes.',
		code: 'endless-page',
		answer: (_request, response) =>
			void (bomb ??= promisify(gzip)(Buffer.alloc(80_000_000))).then((packed) =>
				response.writeHead(200, { 'content-type': HTML, 'content-encoding': 'gzip' }).end(packed)
			)
	},
	'two-faces': {
		says: 'Readers get another page than people.',
		code: 'differs-by-reader',
		answer: (request, response) =>
			html(
				pageWith({ title: /^Galley/.test(request.headers['user-agent'] ?? '') ? 'Buy an eider' : 'Eider on the slip' })
			)(request, response)
	},
	sound: { says: 'Nothing is wrong with it.', code: '', answer: html(pageWith({})) }
};

/** This page of the site stands behind a cache: after a release that changes it, it serves what it said before. */
export const CACHED_PAGE = '/fr/boutique';

/** What robots are told on the stand-in website. */
export const FAULTS_ROBOTS = 'User-agent: ropewalk\nUser-agent: wrack\nDisallow: /faults/shut-out\n';

/** A picture that is far too heavy: a sound one with nothing behind it. */
export const heavy = (picture: Buffer): Buffer => Buffer.concat([picture, Buffer.alloc(9_000_000)]);

/** The page that names them all. */
export function faultsPage(): string {
	const items = Object.entries(FAULTS).map(
		([name, { says }]) => `<li><a href="/faults/${name}">/faults/${name}</a>: ${says}</li>`
	);
	items.push(
		`<li><a href="${CACHED_PAGE}">${CACHED_PAGE}</a>: A cache serves it a release behind, once a release changes it.</li>`
	);
	return `<!doctype html>\n<html lang="en-GB">\n<head>\n<meta charset="utf-8">\n<meta name="robots" content="noindex">\n<title>Faults to look at</title>\n</head>\n<body>\n<h1>Faults to look at</h1>\n<ul>\n${items.join('\n')}\n</ul>\n</body>\n</html>\n`;
}
