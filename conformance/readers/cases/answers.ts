/**
 * What servers answer, byte for byte, and what must be told of it: written from the habits as they are stated, before
 * anything was run. Every address not named here answers with 404.
 */

/** One answer: what stands before its body, and the body; of several readers, by words of their agent. */
export interface Answer {
	/** Status line and fields, without the empty line after them. */
	readonly head: readonly string[];
	readonly body?: string | Buffer | DrawnFile;
	/** The connection ends here, so many bytes into the body. */
	readonly endsAfter?: number;
	/** Nothing comes for so many milliseconds before the body. */
	readonly waits?: number;
	/** The body is said again without end. */
	readonly isEndless?: true;
}
/** A picture of `files.json`, with so many bytes of nothing after it. */
interface DrawnFile {
	readonly file: string;
	readonly pad?: number;
}
export type Serves = Readonly<Record<string, Answer | Readonly<Record<string, Answer>>>>;

export interface ReaderCase {
	readonly name: string;
	/** A path of `https://s.example`; `/` without it. */
	readonly path?: string;
	readonly serves: Serves;
	/** The kinds of what must be told, in any order; a sound page tells nothing. */
	readonly tells: readonly string[];
	/** For readers by their ids: no card, or what must stand on it. */
	readonly cards?: Readonly<Record<string, null | { readonly title?: string; readonly picture?: string | null }>>;
}

export const SITE = 'https://s.example';
export const WORDS = `<h1>Eider</h1><p>${'Words that this page has of its own. '.repeat(12)}</p>`;
export const TAGS = [
	'<title>Eider</title>',
	'<meta name="description" content="A duck of cold seas and shores.">',
	`<link rel="canonical" href="${SITE}/eider">`,
	'<meta property="og:title" content="Eider">',
	`<meta property="og:image" content="${SITE}/p.jpg">`
].join('');
export const page = (tags = TAGS, body = WORDS) =>
	`<!doctype html><html lang="en"><head><meta charset="utf-8">${tags}</head><body>${body}</body></html>`;
export const answer = (status: string, fields: readonly string[], body: Answer['body'] = ''): Answer => ({
	head: [`HTTP/1.1 ${status}`, ...fields],
	body
});
export const html = (body: string | Buffer = page(), ...fields: string[]): Answer =>
	answer('200 OK', ['Content-Type: text/html; charset=utf-8', ...fields], body);
export const leads = (to: string, status = '302 Found') => answer(status, [`Location: ${to}`]);
export const picture = (file: string, pad?: number): Answer =>
	answer('200 OK', ['Content-Type: image/jpeg'], { file, ...(pad !== undefined && { pad }) });
const P = { '/p.jpg': picture('p.jpg') };
export const one = (
	name: string,
	served: Answer,
	tells: readonly string[],
	more: Partial<ReaderCase> = {}
): ReaderCase => ({
	...{ name, path: '/eider', tells },
	...more,
	serves: { '/eider': served, ...P, ...more.serves }
});
export const tagged = (
	name: string,
	from: string | RegExp,
	to: string,
	tells: readonly string[],
	more: Partial<ReaderCase> = {}
) => one(name, html(page(TAGS.replace(from, to))), tells, more);
export const added = (name: string, tags: string, tells: readonly string[], more: Partial<ReaderCase> = {}) =>
	one(name, html(page(TAGS + tags)), tells, more);
export const IMAGE = /<meta property="og:image"[^>]*>/;
export const pictured = (name: string, file: Answer, tells: readonly string[], more: Partial<ReaderCase> = {}) =>
	one(name, html(page(TAGS.replace('/p.jpg', '/q'))), tells, { ...more, serves: { '/q': file, ...more.serves } });
export const NOBODY = null;
export const ALL = [
	...['gangway', 'fathom', 'fathom-narrow', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack', 'porthole'],
	...['logbook', 'almanac', 'flotsam', 'semaphore']
];
export const OBEYING = ['gangway', 'fathom', 'fathom-narrow', 'headland', 'ropewalk', 'wrack', 'logbook', 'almanac'];
const SHOWING = ['gangway', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack', 'almanac', 'flotsam', 'semaphore'];
export const each = <T>(ids: readonly string[], said: T): Record<string, T> =>
	Object.fromEntries(ids.map((id) => [id, said]));
export const none = each(ALL, NOBODY);
export const plain = each(SHOWING, { picture: null });
