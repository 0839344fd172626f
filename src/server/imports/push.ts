import { openSync, readSync, closeSync } from 'node:fs';
import { isLanguageTag, ownOf, sameJson, type Fields, type FieldValue, type Page, type PageState } from '$core';
import { refuse, UserError } from '../errors';
import { fieldsOfRecord, type RecordMapping } from '../heads/records';
import { checkFor, partOf, wrongIn } from '../schemas/schemas';
import type { PushTold } from '../progress';
import type { Store, StoredSite } from '../store/store';
import { saveContent, type Incoming } from './saveContent';

/** A page as a program sends it: in whole, of what its source has. */
export interface PushedPage {
	/** @maxLength 2000 */
	readonly path: string;
	/** Its content type; a page that is there keeps its own without it, and a new one is a `page`. @maxLength 200 */
	readonly type?: string;
	/** @maxLength 40 */
	readonly language?: string;
	/** When its content last changed (RFC 3339). @maxLength 40 */
	readonly modified?: string;
	/** Of a new page, which is live without it; one that is there keeps its own. */
	readonly state?: PageState;
	/** Other languages of it, by their tags: paths of the site, or addresses. */
	readonly alternates?: Readonly<Record<string, string>>;
	readonly fields?: Fields;
	/** A record instead of fields: those are read out of it by the mapping of its type. */
	readonly record?: unknown;
	readonly mapping?: RecordMapping;
	/** The source has it no more: it is taken away. */
	readonly gone?: true;
}

/** What a push came to. */
export interface Pushed {
	readonly edit?: number | undefined;
	readonly revision: number;
	readonly made: number;
	readonly changed: number;
	readonly same: number;
	readonly gone: number;
	/** So many were refused. */
	readonly notTaken: number;
	/** The first lines that were refused. */
	readonly faults: readonly PushTold[];
}

const MOST_FAULTS = 100;
/** A line is no longer than this (bytes). */
const LONGEST_LINE = 10_000_000;

const text = (maxLength: number) => ({ type: 'string', maxLength });
const check = checkFor<PushedPage>({
	type: 'object',
	required: ['path'],
	additionalProperties: false,
	properties: {
		...{ path: text(2000), type: text(200), language: text(40), modified: text(40) },
		state: { enum: ['live', 'draft', 'private'] },
		alternates: { type: 'object', maxProperties: 200, additionalProperties: { type: 'string', minLength: 1 } },
		fields: partOf('fields'),
		record: true,
		mapping: { type: 'object', maxProperties: 200, additionalProperties: text(500) },
		gone: { const: true }
	}
});

/** A line as a page. Throws a `UserError` that says what is wrong with it. */
function readPushed(data: unknown): PushedPage {
	if (!check(data)) throw refuse('pushed-broken', { why: wrongIn(check, 'the page') });
	if (!/^\/[^\s?#]*$/.test(data.path)) throw refuse('path-broken', { path: data.path });
	if (data.language !== undefined && !isLanguageTag(data.language))
		throw refuse('language-broken', { language: data.language });
	if (data.modified !== undefined && Number.isNaN(Date.parse(data.modified)))
		throw refuse('pushed-broken', { why: `modified is no date: ${data.modified}` });
	return data;
}

/**
 * Puts pages in that a program sends, as one edit: each is made, changed, left as it is, taken away, or refused by itself.
 * What somebody wrote here stays, rules and overrides too; of its fields the source replaces those that it sends or sent before.
 */
export function pushPages(
	store: Store,
	name: string,
	source: string,
	lines: Iterable<unknown>,
	tell: (told: PushTold) => void = () => undefined,
	{
		isPart = false,
		throws = false,
		coming = 0
	}: {
		/** About how many pages come that were not there. */ readonly coming?: number;
		/** What is not named stays. */ readonly isPart?: boolean;
		/** What is refused, is thrown. */ readonly throws?: boolean;
	} = {}
): Pushed {
	const counts = { made: 0, changed: 0, same: 0, gone: 0, notTaken: 0 };
	const faults: PushTold[] = [];
	const say = (told: PushTold, error?: UserError) => {
		if (throws && error) throw error;
		counts[told.is === 'refused' ? 'notTaken' : told.is]++;
		if (told.is === 'refused' && faults.length < MOST_FAULTS) faults.push(told);
		tell(told);
	};
	const stored = store.working.sites.named(name);
	const { edit, revision } = saveContent(store, {
		...{ name, origin: 'program', as: null, pages: incoming(store, stored, { source, isPart }, lines, say), coming },
		what: { from: 'program', source }
	});
	return { ...(edit !== undefined && { edit }), revision, ...counts, faults };
}

function* incoming(
	store: Store,
	{ id, types }: StoredSite,
	{ source, isPart }: { readonly source: string; readonly isPart: boolean },
	lines: Iterable<unknown>,
	say: (told: PushTold, error?: UserError) => void
): Generator<Incoming> {
	const known = new Map(types.map((type) => [type.name, type]));
	let line = 0;
	for (const sent of lines) {
		line++;
		if (sent === undefined) continue;
		let path: string | undefined;
		try {
			if (sent instanceof UserError) throw sent;
			const pushed = readPushed(sent);
			({ path } = pushed);
			const before = store.working.pages.at(id, path);
			const last = store.working.readIn.pushed(id, path);
			const otherSource = before && last && last.source !== source ? { otherSource: last.source } : {};
			if (pushed.gone) {
				if (!before) throw refuse('page-missing', { path });
				yield { gone: path };
				say({ line, path, is: 'gone', ...otherSource });
				continue;
			}
			const named = pushed.type ?? (before ? undefined : 'page');
			if (named !== undefined && !known.has(named)) throw refuse('type-missing', { contentType: named });
			const fields = fieldsOf(pushed, known.get(pushed.type ?? before?.type ?? 'page')?.mapping);
			const columns = [
				...new Set([...Object.keys(fields), ...(!isPart && last?.source === source ? last.fields : [])])
			];
			const told = differencesOf(before, pushed, fields, columns);
			const sends = isPart ? [...new Set([...(last?.fields ?? []), ...Object.keys(fields)])] : Object.keys(fields);
			const isSame = before !== undefined && !told.hasChanged && isSameOtherwise(before, pushed);
			const { language, modified, state, alternates } = pushed;
			yield {
				page: {
					...{ path, type: named, fields: withoutNulls(fields) },
					...(language !== undefined && { language }),
					...(modified !== undefined && { modified }),
					...(state !== undefined && { state }),
					...(alternates && { alternates })
				},
				...{ columns, isSame, withBody: 'body' in fields || columns.includes('body') },
				...(!(isSame && last?.source === source && sameJson(last.fields, sends)) && {
					note: () => store.working.readIn.savePushed(id, pushed.path, source, sends)
				})
			};
			say({ line, path, is: before ? (isSame ? 'same' : 'changed') : 'made', ...told.says, ...otherSource });
		} catch (error) {
			if (!(error instanceof UserError)) throw error;
			say(
				{ line, ...(path !== undefined && { path }), is: 'refused', code: error.code, refused: error.message },
				error
			);
		}
	}
}

function fieldsOf({ type, fields, record, mapping }: PushedPage, ofType: RecordMapping | undefined): Fields {
	if (record === undefined) return fields ?? {};
	const by = mapping ?? ofType;
	if (!by) throw refuse('mapping-missing', { contentType: type ?? 'page' });
	return { ...fieldsOfRecord(by, record), ...fields };
}

const isEmpty = (value: FieldValue | undefined) => value === undefined || value === null || value === '';
const withoutNulls = (fields: Fields): Fields =>
	Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null));

/** What of a page would change, and what is to be said of its fields. */
function differencesOf(before: Page | undefined, pushed: PushedPage, fields: Fields, columns: readonly string[]) {
	const held = new Set(before?.held);
	const [left, emptied]: [string[], string[]] = [[], []];
	const kept = before ? keptBeside(before, pushed) : [];
	let hasChanged = false;
	for (const name of columns) {
		const [was, is] = [ownOf(before?.fields ?? {}, name), ownOf(fields, name)];
		if (before === undefined || sameJson(was ?? null, is ?? null)) continue;
		if (held.has(name)) {
			kept.push(name);
			continue;
		}
		hasChanged = true;
		if (!Object.hasOwn(fields, name)) left.push(name);
		else if (isEmpty(is)) emptied.push(name);
	}
	return {
		hasChanged,
		says: {
			...(left.length > 0 && { left }),
			...(emptied.length > 0 && { emptied }),
			...(kept.length > 0 && { held: kept })
		}
	};
}

/** What is set at a page beside its fields, and stays though something else is sent: its state, and versions that it names. */
const keptBeside = (before: Page, { state, alternates = {} }: PushedPage): string[] => [
	...(state !== undefined && state !== before.state ? ['state'] : []),
	...(Object.entries(alternates).some(([language, to]) => (ownOf(before.alternates, language) ?? to) !== to)
		? ['alternates']
		: [])
];

/** Versions are added to those that are there. */
const isSameOtherwise = (before: Page, { type, language, modified, alternates = {} }: PushedPage): boolean =>
	(type === undefined || type === before.type) &&
	(language === undefined || language === before.language) &&
	(modified === undefined || modified === before.modified) &&
	Object.keys(alternates).every((one) => ownOf(before.alternates, one) !== undefined);

/** Of the first lines of a file so many are looked at for how many pages are new. */
const SAMPLE = 200;

/** About how many pages a file brings that a site does not have: indexes wait where they are many. */
export function comingIn(store: Store, name: string, file: string): number {
	const { id } = store.working.sites.summary(name);
	let [seen, fresh] = [0, 0];
	for (const line of linesOfFile(file)) {
		const path = (line as { readonly path?: unknown } | null)?.path;
		if (typeof path === 'string' && !store.working.pages.has(id, path)) fresh++;
		if (++seen >= SAMPLE) break;
	}
	return seen < SAMPLE ? fresh : Math.round((countLines(file) * fresh) / seen);
}

function countLines(file: string): number {
	const handle = openSync(file, 'r');
	const part = Buffer.alloc(1024 * 1024);
	let lines = 0;
	try {
		for (let read = readSync(handle, part); read > 0; read = readSync(handle, part))
			for (let at = part.indexOf(10); at >= 0 && at < read; at = part.indexOf(10, at + 1)) lines++;
		return lines;
	} finally {
		closeSync(handle);
	}
}

/**
 * The lines of a file of JSON, each read by itself: one that is none comes as its refusal, an empty one as undefined. Little of it
 * is held at a time. Throws a `UserError` for what is not UTF-8: letters would be lost in it.
 */
export function* linesOfFile(file: string): Generator<unknown> {
	const handle = openSync(file, 'r');
	// A byte order mark before all is none of it.
	const decoder = new TextDecoder('utf-8', { fatal: true });
	const part = Buffer.alloc(256 * 1024);
	let [rest, seen] = ['', 0];
	try {
		for (;;) {
			const read = readSync(handle, part);
			const lines = (rest + textOf(decoder, part.subarray(0, read), seen)).split('\n');
			rest = read === 0 ? '' : lines.pop()!;
			for (const line of lines) yield line.trim() === '' ? undefined : parsed(line);
			seen += lines.length;
			if (read === 0) return;
			if (rest.length > LONGEST_LINE) throw refuse('pushed-line-long', { most: LONGEST_LINE });
		}
	} finally {
		closeSync(handle);
	}
}

function textOf(decoder: TextDecoder, part: Buffer, seen: number): string {
	try {
		return decoder.decode(part, { stream: part.length > 0 });
	} catch {
		throw refuse('pushed-broken', { why: `it is not UTF-8, somewhere behind line ${seen}` });
	}
}

function parsed(line: string): unknown {
	try {
		return JSON.parse(line);
	} catch (error) {
		return refuse('pushed-broken', { why: (error as Error).message });
	}
}
