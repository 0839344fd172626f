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

/** The sentence of a refusal; `removes` where it is to be said how many pages go. */
export interface Refused {
	readonly refused: string;
	readonly removes?: number;
}
/** The answer to a question, or the sentence of the refusal. */
export type Answer<T> = T | Refused;

export const isRefused = (answer: unknown): answer is Refused =>
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
	readonly removes?: number;
}

const sentenceOf = (told: Told, status: number) =>
	told.detail ?? told.message ?? `The server answered ${status}. Try again; what you wrote is still here.`;

const UNREACHABLE = 'Kephalon does not answer. Is it still running? What you wrote is still here.';

const BROKEN = 'The answer broke off on its way. Try again; what you wrote is still here.';

/** What an answer that never came stands for. */
export const NO_ANSWER: Refused = { refused: UNREACHABLE };

export async function ask<T>(address: string, request?: RequestInit): Promise<Answer<T>> {
	const answer = await fetch(address, request).catch(() => undefined);
	if (!answer) return { refused: UNREACHABLE };
	if (!answer.ok) return refusalIn(answer);
	// Half an answer is none.
	return (await answer.json().catch(() => ({ refused: BROKEN }))) as Answer<T>;
}

/** What an answer that refuses says, whatever it holds. */
async function refusalIn(answer: Response): Promise<Refused> {
	const told = (await answer.json().catch(() => ({}))) as Told;
	const { removes } = told;
	return { refused: sentenceOf(told, answer.status), ...(typeof removes === 'number' && { removes }) };
}

/**
 * Counts the pages that an edit reaches. `progress` is told how many were seen of how many; the signal stops it.
 * Where it cannot be counted, the sentence says why.
 */
export async function reach(
	site: string,
	edit: AnyEdit,
	signal: AbortSignal,
	progress: (seen: number, all: number) => void
): Promise<Answer<Reach>> {
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
): Promise<Answer<Reach>> {
	type Line = { seen: number; all: number } | { reach: Reach };
	for await (const told of linesOfAnswer<Line>(at(site, 'reach'), sending('POST', wanted), signal)) {
		if ('seen' in told) progress(told.seen, told.all);
		else return 'reach' in told ? told.reach : told;
	}
	return { refused: BROKEN };
}

/** Sends something and gives the lines of the answer as they come; one that refuses gives its sentence as a line. */
async function* linesOfAnswer<T>(
	address: string,
	request: RequestInit,
	signal: AbortSignal
): AsyncGenerator<T | Refused> {
	const answer = await fetch(address, { ...request, signal });
	if (!answer.ok || !answer.body) {
		yield await refusalIn(answer);
		return;
	}
	for await (const line of linesOf<T | { readonly failed: string }>(answer.body))
		if (typeof line === 'object' && line !== null && 'failed' in line) {
			yield { refused: `Kephalon failed; its log tells more under ${line.failed}. Try again.` };
			return;
		} else yield line;
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

/** What hears how far a long work is, and stops it. */
export interface Watching {
	readonly signal: AbortSignal;
	/** How many of how many, 0 where it is not known of how many; and what was done last, where that is told. */
	readonly progress: (done: number, all: number, last?: string) => void;
}

/** Asks for a long work and follows it; `stopped` and `broken` are what it means that it was stopped, or that its answer broke off. */
export async function watched<T extends object>(
	address: string,
	request: RequestInit,
	{ signal, progress }: Watching,
	{ stopped, broken = BROKEN }: { readonly stopped: string; readonly broken?: string }
): Promise<Answer<T>> {
	try {
		for await (const line of linesOfAnswer<{ done: number; all?: number; last?: string } | T>(address, request, signal))
			if ('done' in line) progress(line.done, line.all ?? 0, line.last);
			else return line;
		return { refused: broken };
	} catch {
		return signal.aborted ? { refused: stopped } : NO_ANSWER;
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
	const request = sending('POST', { type });
	const told = await watched<{ composed: Composed }>(
		at(site, 'compose'),
		request,
		{ signal, progress },
		{
			stopped: 'Stopped. Ask again: it goes on where it stopped.',
			broken: 'The drawing ended before its time. Ask again: it goes on where it stopped.'
		}
	);
	return isRefused(told) ? told : told.composed;
}

async function* textsOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<string> {
	const reader = stream.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
	for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
}

/** Keeps an edit. `expected` is what the sender saw there before: a rule's body, or the settings that it changes. */
export async function keep(site: string, edit: AnyEdit, expected: unknown): Promise<Kept> {
	const [method, what] = 'changes' in edit ? ['PATCH', 'settings'] : ['PUT', 'rules'];
	const answer = await fetch(at(site, what), sending(method, { ...edit, expected })).catch(() => undefined);
	if (!answer) return { kind: 'refused', why: UNREACHABLE };
	if (answer.ok) return { kind: 'kept' };
	const told = (await answer.json().catch(() => ({}))) as Told;
	if (answer.status === 409) return { kind: 'conflict', current: told.current as RuleBody | null };
	return { kind: 'refused', why: sentenceOf(told, answer.status) };
}

/** The same as one leaves: the browser sends it though the page goes, and nobody hears the answer. */
export function keepOnLeaving(site: string, edit: AnyEdit, expected: unknown) {
	const [method, what] = 'changes' in edit ? ['PATCH', 'settings'] : ['PUT', 'rules'];
	const request = sending(method, { ...edit, expected });
	void fetch(at(site, what), { ...request, keepalive: true }).catch(() => undefined);
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
/**
 * Takes the last edit back, or does the one that was taken back last again, or takes one back by its number. `progress` is
 * told how many changes of how many; the signal stops it, and all stays.
 */
export const takeBack = (
	site: string,
	which: 'last' | 'again' | number,
	{ removes, ...watching }: Watching & { removes: number | undefined }
) =>
	watched<{ taken: number }>(
		at(site, 'edits'),
		sending('POST', { takeBack: which, ...(removes !== undefined && { removes }), lines: true }),
		watching,
		{ stopped: 'Stopped: nothing is taken back.' }
	);
export const pending = (site: string) => ask<Pending>(at(site, 'pending'));
export interface Released {
	readonly number: number;
	readonly pages: number;
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	readonly faulty: readonly Finding[];
}
export interface ReleaseWanted {
	readonly note?: string;
	/** The paths of the pages that go out alone. */
	readonly only?: readonly string[];
	/** How many pages leave, where that is much of the site. */
	readonly removes?: number;
}

/** Makes the working copy what visitors see. `progress` is told how many of how many pages; the signal stops it. */
export async function release(
	site: string,
	wanted: ReleaseWanted,
	signal: AbortSignal,
	progress: (done: number, all: number) => void
): Promise<Answer<Released>> {
	const request = sending('POST', { ...wanted, lines: true });
	// Sent again by the browser or by what stands between, it is made once.
	const headers = { ...request.headers, 'idempotency-key': keyOfAsking() };
	const stopped = 'Stopped: nothing is released.';
	return watched<Released>(at(site, 'release'), { ...request, headers }, { signal, progress }, { stopped });
}

const keyOfAsking = () =>
	Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('');
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
	return answer.ok ? answer.blob() : refusalIn(answer);
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
