import { readFileSync } from 'node:fs';
import MarkdownIt from 'markdown-it';
import { ownOf, readPage } from '$core';
import { refuse } from '../../errors';
import { isMarkdownName, openFolder, pathOfFile, shownName, walkFolder, type FolderEntry } from '../../files/folder';
import { languagesOfFiles } from '../languages';
import { ofRecords, type Oddity, type Rows } from '../table/rows';
import { TYPE_COLUMN } from '../takeTable';
import { plainValue, readFrontMatter } from './frontMatter';

/** Fields of front matter that say where a page stands, and that it is not to be seen. */
const PLACES = ['url', 'permalink', 'path'];
const SUMMARIES = ['description', 'summary', 'excerpt', 'abstract', 'teaser', 'lead'];
const LANGUAGES = ['language', 'lang', 'locale'];

/** A file of a folder of Markdown. */
export interface MarkdownFile {
	/** From the folder's top. */
	readonly name: string;
	readonly file: FolderEntry['file'];
	readonly text: string;
	/** The path of its page. */
	readonly path: string;
	readonly data: Readonly<Record<string, unknown>>;
	/** Where its text begins. */
	readonly body: number;
}

/** The files of a folder that can be read, in the order of their names; `odd` is told of the others. */
export function* markdownFiles(
	folder: string,
	bare: boolean,
	odd: (name: string, why: string) => void
): Generator<MarkdownFile> {
	for (const { path: name, file, link } of walkFolder(openFolder(folder))) {
		if (link || !isMarkdownName(name)) continue;
		const text = readFileSync(file, 'utf8');
		const read = readFrontMatter(text);
		if ('wrong' in read) odd(shownName(name), `its front matter cannot be read: ${read.wrong}`);
		else {
			const data = read.matter?.data ?? {};
			yield { name, file, text, path: pathOf(name, data, bare), data, body: read.body };
		}
	}
}

/** Where a page stands: as it says itself, else by its file; `index.md`, `_index.md` and `README.md` are their folder. */
function pathOf(name: string, data: Readonly<Record<string, unknown>>, bare: boolean): string {
	const said = PLACES.map((key) => ownOf(data, key)).find((value) => typeof value === 'string' && value !== '');
	if (typeof said === 'string') return /^(\/|https?:)/.test(said) ? said : `/${said}`;
	const plain = name
		.replace(/\.\w+$/, '')
		.replace(/(^|\/)(_?index|readme)((?:\.[a-z]{2}(?:[-_]\w+)?)?)$/i, '$1index$3');
	const slug = typeof data.slug === 'string' && data.slug !== '' ? data.slug : undefined;
	const named = slug === undefined ? plain : plain.slice(0, plain.lastIndexOf('/') + 1) + slug.replace(/^\/|\/$/g, '');
	const path = pathOfFile(`${named}.html`, true);
	return bare || path.endsWith('/') ? path : `${path}/`;
}

/**
 * A folder of Markdown files with front matter (YAML, TOML, JSON) as a table: a row for each, fields by their names, the
 * text as rich text, drafts as such, languages by what the page, its name or its folder says. Throws a `UserError`.
 */
export function readMarkdownFolder(folder: string, bare = false): Rows {
	const odd: Oddity[] = [];
	const files = [...markdownFiles(folder, bare, (name, what) => odd.push({ line: 0, what: `${name}: ${what}` }))];
	if (files.length === 0) throw refuse('markdown-none', { folder });
	const languageOf = languagesOfFiles(files.map(({ name }) => asHtml(name)));
	const summary =
		SUMMARIES.find((key) => files.some(({ data }) => typeof ownOf(data, key) === 'string')) ?? 'description';
	const markdown = new MarkdownIt({ html: true });
	const render = (text: string) => markdown.render(text);
	const records = files.map((file, at) => {
		const language =
			LANGUAGES.map((key) => ownOf(file.data, key)).find((value) => typeof value === 'string') ??
			languageOf(asHtml(file.name));
		return { line: at + 1, record: recordOf(file, render, summary, language) };
	});
	return {
		format: 'markdown',
		encoding: 'UTF-8',
		...ofRecords(records),
		odd,
		names: files.map(({ name }) => shownName(name))
	};
}

const asHtml = (name: string) => name.replace(/\.\w+$/, '.html');

function recordOf(
	{ name, text, path, data, body }: MarkdownFile,
	render: (text: string) => string,
	summary: string,
	language: unknown
): Record<string, unknown> {
	const html = render(text.slice(body));
	const read = readPage(html);
	const fields = Object.fromEntries(
		Object.entries(data)
			.filter(
				([key]) =>
					![...PLACES, ...LANGUAGES, 'slug', 'draft', 'published'].includes(key) || isDay(key, ownOf(data, key))
			)
			.map(([key, value]) => [key, plainValue(value)])
	);
	const isDraft = data.draft === true || data.published === false;
	const [own] = read.paragraphs;
	return {
		path,
		...fields,
		...(!('title' in fields) && { title: read.heading || wordsOf(name) }),
		...(typeof ownOf(fields, summary) !== 'string' && own && { [summary]: own.text }),
		...(html.trim() !== '' && !('body' in fields) && { body: html }),
		...(typeof language === 'string' && { language }),
		...(isDraft && { state: 'draft' }),
		[TYPE_COLUMN]: typeOf(name, data)
	};
}

/** `published` is a day as well as whether a page is. */
const isDay = (key: string, value: unknown) => key === 'published' && typeof value !== 'boolean';

const wordsOf = (name: string) =>
	name
		.replace(/^.*\//, '')
		.replace(/\.\w+$/, '')
		.replace(/[-_]+/g, ' ');

/** The type that a page names, else the first folder that it stands in. */
function typeOf(name: string, data: Readonly<Record<string, unknown>>): string {
	const folder = name.includes('/') ? (name.split('/')[0] as string) : '';
	const said = [data.type, data.layout, folder].find(
		(one) => typeof one === 'string' && /^[\p{L}\p{N}][\p{L}\p{N} -]*$/u.test(one)
	);
	return typeof said === 'string' && !/^[a-z]{2}(-[A-Za-z]{2,4})?$/.test(said) ? said : 'page';
}
