import { parse as parseToml, TomlDate } from 'smol-toml';
import { ownOf } from '$core';
import { isMap, isScalar, parseDocument } from 'yaml';

/** What stands before the text of a Markdown file: YAML between `---`, TOML between `+++`, or a JSON object. */
export interface FrontMatter {
	readonly kind: 'yaml' | 'toml' | 'json';
	/** Where what is between the marks begins and ends in the file's text. */
	readonly start: number;
	readonly end: number;
	readonly data: Readonly<Record<string, unknown>>;
}

const FENCED = /^\uFEFF?(---|\+\+\+)[ \t]*(?:\r?\n|\r)([^]*?)^\1[ \t]*$/m;
/** A file is looked at this far (UTF-16 code units) for the end of what stands before its text. */
const MOST_READ = 200_000;

/** What stands before the text of a file, and where the text begins; a message where it cannot be read. */
export function readFrontMatter(
	text: string
): { readonly matter: FrontMatter | undefined; readonly body: number } | { readonly wrong: string } {
	const fenced = /^\uFEFF?(?:---|\+\+\+)/.test(text) ? FENCED.exec(text.slice(0, MOST_READ)) : null;
	if (fenced) {
		const [whole, mark, inside = ''] = fenced;
		const start = whole.indexOf(inside, whole.indexOf(mark as string) + 3);
		const kind = mark === '---' ? 'yaml' : 'toml';
		return held(text, { kind, start, end: start + inside.length }, whole.length);
	}
	if (!/^\uFEFF?\{\s*["}]/.test(text)) return { matter: undefined, body: 0 };
	const end = endOfObject(text.slice(0, MOST_READ));
	return end < 0 ? { matter: undefined, body: 0 } : held(text, { kind: 'json', start: text.indexOf('{'), end }, end);
}

function held(text: string, where: Omit<FrontMatter, 'data'>, body: number): ReturnType<typeof readFrontMatter> {
	try {
		const data = parse(where.kind, text.slice(where.start, where.end));
		if (typeof data !== 'object' || data === null || Array.isArray(data)) return { wrong: 'names no fields' };
		return { matter: { ...where, data: data as Record<string, unknown> }, body };
	} catch (error) {
		return { wrong: (error as Error).message.split('\n')[0] as string };
	}
}

function parse(kind: FrontMatter['kind'], inside: string): unknown {
	if (kind === 'toml') return parseToml(inside);
	if (kind === 'json') return JSON.parse(inside);
	const document = parseDocument(inside);
	if (document.errors[0]) throw document.errors[0];
	// Names that stand for others may unfold to more than any memory holds.
	return document.toJS({ maxAliasCount: 100 }) ?? {};
}

/** Where the first object of a text ends; -1 where it does not. */
function endOfObject(text: string): number {
	let [depth, isText] = [0, false];
	for (let at = text.indexOf('{'); at < text.length; at++) {
		const sign = text[at];
		if (isText) {
			if (sign === '\\') at++;
			else if (sign === '"') isText = false;
		} else if (sign === '"') isText = true;
		else if (sign === '{') depth++;
		else if (sign === '}' && --depth === 0) return at + 1;
	}
	return -1;
}

/** A value of front matter in plain: days of TOML as ISO 8601. */
export const plainValue = (value: unknown): unknown => {
	if (!(value instanceof TomlDate)) return value;
	const text = value.toISOString();
	return value.isDate() ? text.slice(0, 10) : text;
};

/**
 * The file's text with fields of its front matter set, each a text; everything else stays byte for byte. A file without
 * any gets YAML. A message where a field holds something else than a text, which nobody could write back.
 */
export function writeFrontMatter(
	text: string,
	fields: ReadonlyMap<string, string>
): string | { readonly wrong: string } {
	const read = readFrontMatter(text);
	if ('wrong' in read) return { wrong: `its front matter cannot be read: ${read.wrong}` };
	const lineEnd = /\r?\n|\r/.exec(text)?.[0] ?? '\n';
	const { matter } = read;
	if (!matter) {
		const lines = [...fields].map(([key, value]) => `${key}: ${quoted(value)}${lineEnd}`);
		const mark = text.startsWith('\uFEFF') ? '\uFEFF' : '';
		return `${mark}---${lineEnd}${lines.join('')}---${lineEnd}${text.slice(mark.length)}`;
	}
	let inside = text.slice(matter.start, matter.end);
	for (const [key, value] of fields) {
		if (ownOf(matter.data, key) === value) continue;
		const next =
			matter.kind === 'toml'
				? setInToml(inside, key, value, lineEnd)
				: setInYaml(matter.kind, inside, key, value, lineEnd);
		if (next === undefined) return { wrong: `${key} holds something else than a text` };
		inside = next;
	}
	return text.slice(0, matter.start) + inside + text.slice(matter.end);
}

/** A text in double quotes, as YAML, TOML and JSON all read it. */
const quoted = (value: string) => JSON.stringify(value);

/** JSON is YAML as well: both are told where a value stands by the same reader. */
function setInYaml(
	kind: 'yaml' | 'json',
	inside: string,
	key: string,
	value: string,
	lineEnd: string
): string | undefined {
	const { contents } = parseDocument(inside);
	const pairs = isMap(contents) ? contents.items : [];
	const pair = pairs.find((one) => isScalar(one.key) && one.key.value === key);
	if (!pair) {
		if (kind === 'yaml')
			return `${/(^|[\r\n])$/.test(inside) ? inside : inside + lineEnd}${key}: ${quoted(value)}${lineEnd}`;
		const space = /^\{(\s*)/.exec(inside)?.[1] ?? '';
		return `{${space}${quoted(key)}: ${quoted(value)}${pairs.length > 0 ? ',' : ''}${space}${inside.slice(1 + space.length)}`;
	}
	if (!isScalar(pair.value) || !pair.value.range) return undefined;
	const [start, end] = pair.value.range;
	const before = inside.slice(start, end);
	// What nobody wrote stands directly behind the colon; a text of several lines ends with its last one.
	const space = before === '' && inside[start - 1] === ':' ? ' ' : '';
	return inside.slice(0, start) + space + quoted(value) + (/[\r\n]$/.test(before) ? lineEnd : '') + inside.slice(end);
}

const TOML_TEXT = /"""[^]*?"""|'''[^]*?'''|"(?:[^"\\\r\n]|\\.)*"|'[^'\r\n]*'/y;

/** Keys of TOML stand before its first table, one a line. */
function setInToml(inside: string, key: string, value: string, lineEnd: string): string | undefined {
	const table = /^[ \t]*\[/m.exec(inside)?.index ?? inside.length;
	const name = key.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
	const found = new RegExp(`^[ \\t]*(?:${name}|"${name}"|'${name}')[ \\t]*=[ \\t]*`, 'm').exec(inside.slice(0, table));
	if (!found) {
		const head = inside.slice(0, table);
		return `${head === '' || /[\r\n]$/.test(head) ? head : head + lineEnd}${quotedKey(key)} = ${quoted(value)}${lineEnd}${inside.slice(table)}`;
	}
	TOML_TEXT.lastIndex = found.index + found[0].length;
	const old = TOML_TEXT.exec(inside);
	return old === null
		? undefined
		: inside.slice(0, old.index) + quoted(value) + inside.slice(old.index + old[0].length);
}

const quotedKey = (key: string) => (/^[\w-]+$/.test(key) ? key : quoted(key));
