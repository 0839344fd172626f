import type {
	AnyEdit,
	ContentType,
	FieldUse,
	Finding,
	HardPage,
	Page,
	Picture,
	Reach,
	Recipe,
	RuleBody,
	WorstPages
} from '$core';

import type { PagesLinking } from '$server/findings/links';
import type { readWhatLeads } from '$server/web/benchData';
import type { Taken } from '$server/imports/content';
import type { TableLook } from '$server/imports/table/table';
import type { RecordedEdit } from '$ui/record/record';

/** The calls of the interface to its server. Refusals come back as the sentence that the server gives. */

export interface Pending {
	readonly release: { readonly number: number; readonly created: string; readonly pages: number } | null;
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	readonly paths: readonly string[];
	/** Pages yet to be looked at since they were touched, of how many. */
	readonly unseen: number;
	readonly all: number;
}

/** What came of sending an edit: kept, refused with a sentence, or in conflict with what stands there now. */
export type Kept =
	| { readonly kind: 'kept' }
	| { readonly kind: 'refused'; readonly why: string }
	| { readonly kind: 'conflict'; readonly current: unknown };

/** The answer to a question, or the sentence of the refusal. */
export type Answer<T> = T | { readonly refused: string };

export const isRefused = (answer: unknown): answer is { readonly refused: string } =>
	typeof answer === 'object' && answer !== null && 'refused' in answer;

export const at = (site: string, what: string) => `/api/sites/${encodeURIComponent(site)}/${what}`;
export const sending = (method: string, body: unknown): RequestInit => ({
	method,
	headers: { 'content-type': 'application/json' },
	body: JSON.stringify(body)
});

interface Told {
	readonly detail?: string;
	readonly message?: string;
	readonly current?: unknown;
}

const sentenceOf = (told: Told, status: number) =>
	told.detail ?? told.message ?? `The server answered ${status}. Try again; what you wrote is still here.`;

const UNREACHABLE = 'Kephalon does not answer. Is it still running? What you wrote is still here.';

export async function ask<T>(address: string, request?: RequestInit): Promise<Answer<T>> {
	const answer = await fetch(address, request).catch(() => undefined);
	if (!answer) return { refused: UNREACHABLE };
	const body = (await answer.json().catch(() => ({}))) as T & Told;
	return answer.ok ? body : { refused: sentenceOf(body, answer.status) };
}

/**
 * Counts the pages that an edit reaches. `progress` is told how many were seen of how many; the signal stops it.
 * Undefined when it could not be counted.
 */
export async function reach(
	site: string,
	edit: AnyEdit,
	signal: AbortSignal,
	progress: (seen: number, all: number) => void
): Promise<Reach | undefined> {
	return reachAsked(site, edit, signal, progress);
}

/** The same for a starting set taken into a type. */
export const reachOfSet = (
	site: string,
	wanted: { readonly type: string; readonly set: string },
	signal: AbortSignal
) => reachAsked(site, wanted, signal, () => undefined);

async function reachAsked(
	site: string,
	wanted: object,
	signal: AbortSignal,
	progress: (seen: number, all: number) => void
): Promise<Reach | undefined> {
	const answer = await fetch(at(site, 'reach'), { ...sending('POST', wanted), signal });
	if (!answer.ok || !answer.body) return undefined;
	for await (const told of linesOf<{ seen: number; all: number } | { reach: Reach } | { refused: string }>(
		answer.body
	)) {
		if ('seen' in told) progress(told.seen, told.all);
		else return 'reach' in told ? told.reach : undefined;
	}
	return undefined;
}

/** Sends something and gives the lines of the answer as they come; one that refuses gives its sentence as a line. */
export async function* linesOfAnswer<T>(
	address: string,
	request: RequestInit,
	signal: AbortSignal
): AsyncGenerator<T | { readonly refused: string }> {
	const answer = await fetch(address, { ...request, signal });
	if (answer.ok && answer.body) yield* linesOf<T>(answer.body);
	else yield { refused: sentenceOf((await answer.json().catch(() => ({}))) as Told, answer.status) };
}

/** Lines of JSON as they come. */
async function* linesOf<T>(stream: ReadableStream<Uint8Array>): AsyncGenerator<T> {
	let rest = '';
	for await (const text of textsOf(stream)) {
		const lines = (rest + text).split('\n');
		rest = lines.pop() as string;
		for (const line of lines) yield JSON.parse(line) as T;
	}
}

export interface Composed {
	readonly drawn: number;
	readonly kept: number;
}

/** Draws the share pictures of a type. `progress` is told how many of how many; the signal stops it. */
export async function compose(
	site: string,
	type: string,
	signal: AbortSignal,
	progress: (done: number, all: number) => void
): Promise<Answer<Composed>> {
	try {
		const answer = await fetch(at(site, 'compose'), { ...sending('POST', { type }), signal });
		if (!answer.ok || !answer.body)
			return { refused: sentenceOf((await answer.json().catch(() => ({}))) as Told, answer.status) };
		type Line = { done: number; all: number } | { composed: Composed } | { refused: string };
		for await (const told of linesOf<Line>(answer.body)) {
			if ('done' in told) progress(told.done, told.all);
			else return 'composed' in told ? told.composed : told;
		}
		return { refused: 'The drawing ended before its time. Ask again: it goes on where it stopped.' };
	} catch {
		return { refused: signal.aborted ? 'Stopped. Ask again: it goes on where it stopped.' : UNREACHABLE };
	}
}

async function* textsOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<string> {
	const reader = stream.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
	for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
}

/** Keeps an edit. `expected` is what the sender saw there before: a rule's body, or the settings that it changes. */
export async function keep(site: string, edit: AnyEdit, expected: unknown): Promise<Kept> {
	const [method, what] = 'changes' in edit ? ['PATCH', 'settings'] : ['PUT', 'rules'];
	const answer = await fetch(at(site, what as string), sending(method as string, { ...edit, expected })).catch(
		() => undefined
	);
	if (!answer) return { kind: 'refused', why: UNREACHABLE };
	if (answer.ok) return { kind: 'kept' };
	const told = (await answer.json().catch(() => ({}))) as Told;
	if (answer.status === 409) return { kind: 'conflict', current: told.current as RuleBody | null };
	return { kind: 'refused', why: sentenceOf(told, answer.status) };
}

/** The same as one leaves: the browser sends it though the page goes, and nobody hears the answer. */
export function keepOnLeaving(site: string, edit: AnyEdit, expected: unknown) {
	const [method, what] = 'changes' in edit ? ['PATCH', 'settings'] : ['PUT', 'rules'];
	const request = sending(method as string, { ...edit, expected });
	void fetch(at(site, what as string), { ...request, keepalive: true }).catch(() => undefined);
}

/** Pages by words of their path, title or description. */
export const findPages = (site: string, text: string) =>
	ask<{ pages: { path: string; title: string | null; type: string; state: Page['state'] }[] }>(
		`${at(site, 'pages')}?find=${encodeURIComponent(text)}`
	);
/** The record of edits, the newest first; `before` is the number of the last one seen. */
export const edits = (site: string, limit: number, before?: number) =>
	ask<{ edits: RecordedEdit[] }>(
		at(site, 'edits') + `?limit=${limit}${before === undefined ? '' : `&before=${before}`}`
	);
/** Takes the last edit back, or does the one that was taken back last again, or takes one back by its number. */
export const takeBack = (site: string, which: 'last' | 'again' | number) =>
	ask<{ taken: number }>(at(site, 'edits'), sending('POST', { takeBack: which }));
export const pending = (site: string) => ask<Pending>(at(site, 'pending'));
export const release = (site: string) =>
	ask<{ number: number; pages: number; faulty: readonly Finding[] }>(at(site, 'release'), sending('POST', {}));
export const worst = (site: string) => ask<WorstPages>(at(site, 'worst'));
export const hard = (site: string, type: string | undefined) =>
	ask<HardPage[]>(at(site, 'hard') + (type === undefined ? '' : `?type=${encodeURIComponent(type)}`));
export const actOnPage = (site: string, action: Readonly<Record<string, string>>) =>
	ask<{ path: string }>(at(site, 'pages'), sending('POST', action));
export const actOnType = (site: string, action: Readonly<Record<string, string>>) =>
	ask<{ name: ContentType['name'] }>(at(site, 'types'), sending('POST', action));
/** What asks for a field of a type. */
export const fieldUses = (site: string, type: string, field: string) =>
	ask<{ uses: readonly FieldUse[] }>(
		`${at(site, 'types')}?type=${encodeURIComponent(type)}&field=${encodeURIComponent(field)}`
	);
/** What leads to a page, and names it. */
export const whatLeads = (site: string, path: string) =>
	ask<ReturnType<typeof readWhatLeads>>(`${at(site, 'pages')}?about=${encodeURIComponent(path)}`);
/** The pages whose texts link to it: on a large site they come later. */
export const pagesLinking = (site: string, path: string, signal: AbortSignal) =>
	ask<PagesLinking>(`${at(site, 'pages')}?linking=${encodeURIComponent(path)}`, { signal });

/** The bytes of a file as they are: what it is, the server finds out. */
export const addPicture = (site: string, file: File) =>
	ask<Picture>(at(site, 'pictures'), {
		method: 'POST',
		headers: { 'content-type': 'application/octet-stream', 'x-file-name': encodeURIComponent(file.name) },
		body: file
	});
export const removePicture = (site: string, src: string) =>
	ask<object>(at(site, 'pictures'), sending('DELETE', { src }));

/** Where a picture is used: pages whose cards show it, and pages that name it. */
export interface PictureUse {
	readonly shown: number;
	readonly shownOn: readonly string[];
	readonly named: number;
	readonly namedOn: readonly string[];
}
export const uses = (site: string) => ask<Readonly<Record<string, PictureUse>>>(at(site, 'pictures/uses'));
export const pictures = (site: string) => ask<readonly Picture[]>(at(site, 'pictures'));
export const page = (site: string, path: string) =>
	ask<{ page: Page; pictures: readonly Picture[] }>(`${at(site, 'pages')}?path=${encodeURIComponent(path)}`);

/** A share picture as it would be. */
export async function drawShare(site: string, recipe: Recipe): Promise<Answer<Blob>> {
	const answer = await fetch(at(site, 'share'), sending('POST', recipe)).catch(() => undefined);
	if (!answer) return { refused: UNREACHABLE };
	if (answer.ok) return answer.blob();
	return { refused: sentenceOf((await answer.json().catch(() => ({}))) as Told, answer.status) };
}
export const addPictureAt = (site: string, address: string) =>
	ask<Picture>(at(site, 'pictures'), sending('POST', { address }));

/** A record with a file behind its line, whose bytes are sent as they are. */
const sendingFile = (record: unknown, file: File): RequestInit => ({
	method: 'POST',
	headers: { 'content-type': 'application/octet-stream' },
	body: new Blob([JSON.stringify(record), '\n', file])
});

export type { TableLook };
export const lookAtTable = (
	file: File,
	said: { base: string; mapping: object; readings: object; pathFromTitle: boolean }
) => ask<TableLook>('/api/table', sendingFile(said, file));

export type { Taken };
export const takeContent = (
	wanted: { readonly name: string; readonly base: string; readonly source: unknown },
	file?: File
) => ask<Taken>('/api/sites', file ? sendingFile(wanted, file) : sending('POST', wanted));
