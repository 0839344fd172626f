import { wording } from '$ui/words/en/asking';
import type { AnyEdit, Reach, Recipe, RuleBody } from '$core';
import type { PartOf, RouteName, SoFar } from '$server/http/contract';

/** The one client of the rooms: every route by its name in the contract. Refusals come back as the server's sentence. */

/** The sentence of a refusal; `removes` where it is to be said how many pages go. */
export interface Refused {
	readonly refused: string;
	readonly removes?: number;
}
/** The answer to a question, or the sentence of the refusal. */
export type Answer<T> = T | Refused;
/** What a route answers, or why it refused. */
export type AnswerOf<K extends RouteName> = Answer<PartOf<K, 'answer'>>;

export const isRefused = (answer: unknown): answer is Refused =>
	typeof answer === 'object' && answer !== null && 'refused' in answer;

type Has<K extends RouteName, P extends string, V> = [PartOf<K, P>] extends [undefined] ? unknown : V;
/** What a route is asked with: what its path, its query and its body name, and the bytes that it takes. */
export type Asking<K extends RouteName> = (K extends `${string}{site}${string}` ? { readonly site: string } : unknown) &
	Has<K, 'query', { readonly query: PartOf<K, 'query'> }> &
	Has<K, 'body', { readonly body: PartOf<K, 'body'> }> &
	Has<K, 'takes', { readonly bytes?: Blob | undefined }> &
	Pick<RequestInit, 'signal' | 'keepalive'> & { readonly headers?: Readonly<Record<string, string>> };

interface Asked extends Pick<RequestInit, 'signal' | 'keepalive'> {
	readonly site?: string;
	readonly query?: object;
	readonly body?: unknown;
	readonly bytes?: Blob | undefined;
	readonly headers?: Readonly<Record<string, string>>;
}

/** The address of a route. What of a query is undefined or '' is not asked. */
export function addressOf(name: RouteName, { site = '', query = {} }: Pick<Asked, 'site' | 'query'>): string {
	const [, path] = name.split(' ') as [string, string];
	const asked = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
	const text = new URLSearchParams(asked.map(([key, value]) => [key, String(value)])).toString();
	return `/api/v1${path.replace('{site}', encodeURIComponent(site))}${text && `?${text}`}`;
}

/** What lets this page in where no session comes along: a panel in a page of others. */
let letIn: string | undefined;
export const comeInBy = (token: string) => (letIn = token);

function requestOf(name: RouteName, { body, bytes, headers, signal, keepalive }: Asked): RequestInit {
	const [method] = name.split(' ') as [string];
	const sent = bytes
		? // A record with bytes behind its line, which are sent as they are.
			{ body: body === undefined ? bytes : new Blob([JSON.stringify(body), '\n', bytes]), type: 'octet-stream' }
		: { body: body === undefined ? undefined : JSON.stringify(body), type: 'json' };
	return {
		method,
		headers: {
			...(method !== 'GET' && { 'content-type': `application/${sent.type}` }),
			...(letIn !== undefined && { authorization: `Bearer ${letIn}` }),
			...headers
		},
		...(sent.body !== undefined && { body: sent.body }),
		...(signal && { signal }),
		...(keepalive && { keepalive })
	};
}

interface Told {
	readonly detail?: string;
	readonly message?: string;
	readonly current?: unknown;
	readonly code?: string;
	readonly removes?: number;
}

/** A refusal's sentence. */
export const sentenceOf = (told: Told, status: number) =>
	told.detail ?? told.message ?? wording.theServerAnsweredTryAgain(status);

export const unreachable = () => wording.kephalonDoesNotAnswerIsIt;
const brokenOff = () => wording.theAnswerBrokeOffOnItsWay;

/** What an answer that never came stands for. */
export const NO_ANSWER: Refused = { refused: unreachable() };

const send = (name: RouteName, asking: Asked): Promise<Response | undefined> =>
	fetch(addressOf(name, asking), requestOf(name, asking)).catch(() => undefined);

/** Asks a route. */
export async function call<K extends RouteName>(name: K, asking: Asking<K>): Promise<AnswerOf<K>> {
	const answer = await send(name, asking);
	if (!answer) return NO_ANSWER;
	if (!answer.ok) return refusalIn(answer);
	// Half an answer is none.
	return (await answer.json().catch(() => ({ refused: brokenOff() }))) as AnswerOf<K>;
}

/** A session has ended while one was at work: whoever shows the way back in hears it. */
function tellSignedOut({ code }: Told) {
	if (code === 'not-signed-in') globalThis.dispatchEvent?.(new Event('kephalon:signed-out'));
}

/** What an answer that refuses says, whatever it holds. */
async function refusalIn(answer: Response): Promise<Refused> {
	const told = (await answer.json().catch(() => ({}))) as Told;
	if (answer.status === 401) tellSignedOut(told);
	const { removes } = told;
	return { refused: sentenceOf(told, answer.status), ...(typeof removes === 'number' && { removes }) };
}

/** What hears how far a long work is, and stops it. */
export interface Watching {
	readonly signal: AbortSignal;
	/** How many of how many, 0 where it is not known of how many; and what was done last, where that is told. */
	readonly progress: (done: number, all: number, last?: string) => void;
}
/** What it means that a work was stopped, or that its answer broke off. */
interface Endings {
	readonly stopped: string;
	readonly broken?: string;
}

/** Routes that answer in lines. */
type InLines = { [K in RouteName]: PartOf<K, 'lines'> extends true ? K : never }[RouteName];

/** Asks for a long work and follows it. */
export async function follow<K extends InLines>(
	name: K,
	asking: Asking<K>,
	{ signal, progress }: Watching,
	{ stopped, broken = brokenOff() }: Endings
): Promise<AnswerOf<K>> {
	const asked = asking as Asked;
	const headers = { accept: 'application/x-ndjson', ...asked.headers };
	try {
		const answer = await fetch(addressOf(name, asked), requestOf(name, { ...asked, headers, signal }));
		if (!answer.ok || !answer.body) return await refusalIn(answer);
		for await (const line of linesOf<SoFar | { readonly failed: string } | PartOf<K, 'answer'>>(answer.body)) {
			const told = line as object;
			if ('failed' in told) return { refused: wording.kephalonFailedItsLogTells(String(told.failed)) };
			if (!('done' in told)) return line as AnswerOf<K>;
			const { done, all = 0, last } = told as SoFar;
			progress(done, all, last);
		}
		return { refused: broken };
	} catch (error) {
		if (signal.aborted) return { refused: stopped };
		return error instanceof SyntaxError ? { refused: broken } : NO_ANSWER;
	}
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

async function* textsOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<string> {
	const reader = stream.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
	for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
}

/**
 * Counts the pages that an edit, or a starting set taken into a type, reaches. Where it cannot be counted, the sentence says
 * why; stopped, it ends with an error.
 */
export async function reach(
	site: string,
	body: AnyEdit | { readonly type: string; readonly set: string },
	signal: AbortSignal,
	progress: (seen: number, all: number) => void = () => undefined
): Promise<Answer<Reach>> {
	const told = await follow('POST /sites/{site}/reach', { site, body }, { signal, progress }, { stopped: '' });
	signal.throwIfAborted();
	return isRefused(told) ? told : told.reach;
}

/** What came of sending an edit: kept, refused with a sentence, or in conflict with what stands there now. */
export type Kept =
	| { readonly kind: 'kept' }
	| { readonly kind: 'refused'; readonly why: string }
	| { readonly kind: 'conflict'; readonly current: unknown };

const edited = (edit: AnyEdit) =>
	'changes' in edit ? ('PATCH /sites/{site}/settings' as const) : ('PUT /sites/{site}/rules' as const);

/** Keeps an edit. `expected` is what the sender saw there before: a rule's body, or the settings that it changes. */
export async function keep(site: string, edit: AnyEdit, expected: unknown): Promise<Kept> {
	const answer = await send(edited(edit), { site, body: { ...edit, expected } });
	if (!answer) return { kind: 'refused', why: unreachable() };
	if (answer.ok) return { kind: 'kept' };
	const told = (await answer.json().catch(() => ({}))) as Told;
	if (answer.status === 401) tellSignedOut(told);
	if (answer.status === 409) return { kind: 'conflict', current: told.current as RuleBody | null };
	return { kind: 'refused', why: sentenceOf(told, answer.status) };
}

/** The same as one leaves: the browser sends it though the page goes, and nobody hears the answer. */
export const keepOnLeaving = (site: string, edit: AnyEdit, expected: unknown) =>
	void send(edited(edit), { site, body: { ...edit, expected }, keepalive: true });

/** Does an edit that nobody else is asked about; gives its number, by which it is taken back. */
export const doEdit = (site: string, edit: AnyEdit): Promise<AnswerOf<'PUT /sites/{site}/rules'>> =>
	'changes' in edit
		? call('PATCH /sites/{site}/settings', { site, body: edit })
		: call('PUT /sites/{site}/rules', { site, body: edit });

/** Takes the last edit back, or does the one that was taken back last again, or takes one back by its number. */
export const takeBack = (
	site: string,
	which: 'last' | 'again' | number,
	{ removes, ...watching }: Watching & { removes: number | undefined }
) =>
	follow(
		'POST /sites/{site}/edits',
		{ site, body: { takeBack: which, ...(removes !== undefined && { removes }) } },
		watching,
		{ stopped: wording.stoppedNothingIsTakenBack }
	);

/** Makes the working copy what visitors see. */
export const release = (
	site: string,
	body: PartOf<'POST /sites/{site}/release', 'body'>,
	signal: AbortSignal,
	progress: Watching['progress']
) =>
	follow(
		'POST /sites/{site}/release',
		// Sent again by the browser or by what stands between, it is made once.
		{ site, body, headers: { 'idempotency-key': keyOfAsking() } },
		{ signal, progress },
		{ stopped: wording.stoppedNothingIsReleased }
	);

const keyOfAsking = () =>
	Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('');

/** Draws the share pictures of a type. */
export async function compose(site: string, type: string, signal: AbortSignal, progress: Watching['progress']) {
	const told = await follow(
		'POST /sites/{site}/compose',
		{ site, body: { type } },
		{ signal, progress },
		{
			stopped: wording.stoppedAskAgainItGoesOnWhere,
			broken: wording.theDrawingEndedBeforeItsTime
		}
	);
	return isRefused(told) ? told : told.composed;
}

/** A share picture as it would be. */
export async function drawShare(site: string, recipe: Recipe): Promise<Answer<Blob>> {
	const answer = await send('POST /sites/{site}/share', { site, body: recipe });
	if (!answer) return NO_ANSWER;
	return answer.ok ? answer.blob() : refusalIn(answer);
}
