import { htmlToText } from '$core';

/** Slips of those who write pages, and of their programs, in texts that readers show. */

/** Tags that say something in words. */
export const IN_WORDS =
	/^(?:title|description|og:title|og:description|og:site_name|twitter:title|twitter:description|(?:og|twitter):image:alt|author)$/;

/** Texts that stand where nothing was written yet, in the languages that they are seen in most. */
const PLACEHOLDERS = new Set(
	[
		...[
			'untitled',
			'untitled document',
			'untitled page',
			'untitled-1',
			'new document',
			'new page',
			'no title',
			'document'
		],
		...[
			'page title',
			'site title',
			'your title',
			'your title here',
			'title here',
			'title goes here',
			'insert title here'
		],
		...['enter title here', 'my title', 'the title', 'title', 'description', 'page description', 'meta description'],
		...[
			'your description here',
			'description here',
			'description goes here',
			'enter description here',
			'add description'
		],
		...['insert description here', 'todo', 'tbd', 'fixme', 'xxx', 'n/a', 'na', 'none', 'false'],
		...[
			'example title',
			'sample title',
			'sample page',
			'test',
			'test page',
			'hello world',
			'default title',
			'change me'
		],
		...['unbenanntes dokument', 'ohne titel', 'titel', 'beschreibung', 'document sans titre', 'sans titre', 'titre'],
		...[
			'documento sin título',
			'sin título',
			'título',
			'documento senza titolo',
			'senza titolo',
			'titolo',
			'naamloos document'
		],
		...[
			'my site',
			'my website',
			'my blog',
			'your company',
			'your site name',
			'company name',
			'site name',
			'site title'
		],
		...['[title]', '[description]', '{title}', '{description}', '<title>', '...', '…', '-', '--', '.', '?', '#']
	].map((text) => text.toLowerCase())
);
/** Names of accounts that stand for one's own. */
const HANDLES = new Set(
	[
		'username',
		'yourusername',
		'your_username',
		'yourhandle',
		'your_handle',
		'handle',
		'yourname',
		'yoursite',
		'site',
		'example'
	].map((name) => `@${name}`)
);
const FILLER =
	/\blorem ipsum\b|\bdolor sit amet\b|\b(?:insert|enter|your) (?:\w+ )?(?:title|description|text) (?:here|goes here)\b/i;
/** A picture's words that are the name of its file. */
const FILE_NAME = /^[\w.()-]{1,120}\.(?:jpe?g|png|webp|gif|svg|avif)$/i;
/** Moments at which programs begin to count. */
const BEGINNING = /^(?:1970-01-01|0001-01-01|1899-12-3[01])(?=T|$)/;

/** Whether an account, or a moment, is what stood there before anybody wrote it. */
export const isStandIn = (name: string, value: string): boolean =>
	name.endsWith('_time') ? BEGINNING.test(value) : name.startsWith('twitter:') && HANDLES.has(value.toLowerCase());

/** Whether a text is what stood there before anybody wrote it. */
export function isPlaceholder(name: string, value: string): boolean {
	if (name.endsWith(':image:alt') && FILE_NAME.test(value)) return true;
	return PLACEHOLDERS.has(value.toLowerCase()) || FILLER.test(value);
}

/**
 * Markup in a text: elements from beginning to end (names alone stand in titles of those who write about markup), remarks,
 * and what programs for pages take for markup.
 */
const MARKUP = [
	/<(b|i|em|strong|span|font|small|sup|sub|u|p|div|li|ul|ol|a|h[1-6])(?:\s[^<>]{0,80})?>[^<>]{1,400}<\/\1>/i,
	/<!--[^<>]{0,200}-->/,
	/\[\/?[a-z][a-z_-]{1,30}(?: [a-z_]{1,20}="[^"\]]{0,80}"){1,9} ?\/?\]/i,
	/^#{2,6} \S.{0,60}/,
	/\*\*[^\s*][^*]{0,120}\*\*/,
	/\[[^[\]]{1,80}\]\((?:https?:|\/)[^()\s]{0,200}\)/
];
/** A character reference, known or not. */
const REFERENCE = /&[a-z]{2,8};/i;
export function markupIn(value: string): string | undefined {
	const reference = REFERENCE.exec(value)?.[0];
	return reference !== undefined && isUnknown(reference) ? reference : firstOf(MARKUP, value);
}
const isUnknown = (reference: string) => htmlToText(reference) === reference;

/** What stands in a tag where a template was not filled in, or its program failed. */
const LEFT = [
	/\{\{[^{}]{0,60}\}\}|\{%[^{}%]{0,60}%\}|\$\{[^{}]{0,60}\}|<%[^%]{0,60}%>|<\?(?:php|=)|%%\w{1,40}%%|\[object Object\]|#\{[^{}]{0,60}\}|%[A-Z][A-Z_]{2,40}%|\{[a-z_]{2,30}(?:\.[a-z_]{2,30})+\}/,
	/@@\w{2,40}@@|\[\[[a-z]{2,40}(?:\.[a-z]{2,40}){0,4}\]\]/,
	/^\s*(?:__\w{2,40}__|\$\w{2,40}|%s)\s*$/,
	/\[missing "[^"]{1,80}" translation\]|\btranslation missing: [\w.]{1,80}/i,
	/^[a-z][a-z0-9]{1,20}(?:[._][a-z0-9]{1,20}){1,5}\.(?:title|description|name|heading)$/,
	/\bLiquid error\b|\bTraceback \(most recent call last\)|\b(?:Warning|Notice|Deprecated|Fatal error|Parse error): .{1,300} on line \d{1,6}\b/
];
/** A part of a title that a program wrote where it had nothing. */
const NOTHING = /^(?:undefined|null|NaN)$/;
/** What stands between the parts of a title. */
const BETWEEN = /\s[|–—·•-]\s|:\s/;
/** A title that begins or ends with what stands between its parts: one of them is missing. */
const OPEN_BEFORE = /^[|–—·•-]\s.{0,20}/;
const OPEN_AFTER = /\s[|–—·•-]$/;
const TITLES = new Set(['title', 'og:title', 'twitter:title']);

/** What of a value is what a template or its program left there; `about` is the page's own heading. */
export function leftIn(name: string, value: string, about = ''): string | undefined {
	// A word that a page is found by may be one of programs.
	if (name !== 'keywords' && NOTHING.test(value.trim())) return value.trim();
	const left = firstOf(LEFT, value);
	if (left !== undefined || !TITLES.has(name)) return left;
	// A page that is about such a word is headed by it.
	const part = value.split(BETWEEN).find((one) => NOTHING.test(one.trim()));
	if (part !== undefined && !about.includes(part.trim())) return part.trim();
	return OPEN_BEFORE.exec(value)?.[0] ?? (OPEN_AFTER.test(value) ? value.slice(-22) : undefined);
}

/** Text that was escaped once too often: a character reference, an address’s or a script’s way to write a character. */
const ESCAPED = [
	/&(?:[a-z]{2,8}|#\d{1,7}|#x[\da-f]{1,6});/i,
	/\\u[\da-f]{4}/i,
	/^\S{0,300}%[\dA-F]{2}\S{0,300}%[\dA-F]{2}\S{0,300}$/,
	/^[a-z]{2,30}(?:\+[a-z]{2,30}){2,30}$/i
];
/** The same in what is no text: addresses and words of programs have per cents and names of their own. */
const ESCAPED_OTHERWISE = /&(?:amp|lt|gt|quot|apos|nbsp|#\d{1,7}|#x[\da-f]{1,6});/i;
export function escapedIn(name: string, value: string): string | undefined {
	if (!IN_WORDS.test(name)) return ESCAPED_OTHERWISE.exec(value)?.[0];
	const found = firstOf(ESCAPED, value);
	return found === undefined || (REFERENCE.test(found) && isUnknown(found)) ? undefined : found.slice(0, 60);
}

/** A letter says nothing, but in scripts whose letters are words. */
const ONE_LETTER = /^[\p{L}\p{N}\p{P}]$/u;
const WORDS_OF_A_LETTER = /[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}]/u;
const EMPTY_TITLES = new Set(['home', 'home page', 'homepage', 'startseite', 'accueil', 'inicio', 'welcome', 'page']);
/** Whether a title says nothing of its page. */
export const saysNothing = (title: string): boolean =>
	EMPTY_TITLES.has(title.toLowerCase()) || (ONE_LETTER.test(title) && !WORDS_OF_A_LETTER.test(title));

function firstOf(patterns: readonly RegExp[], value: string): string | undefined {
	for (const pattern of patterns) {
		const found = pattern.exec(value)?.[0];
		if (found !== undefined) return found;
	}
	return undefined;
}
