import { refuse } from '../errors';
import { askOnce } from '../fetching/askOnce';
import { checkFor, type Check } from '../schemas/schemas';
import type { ShownCard } from '../store/state/looks';

/** What a reader shows of an address, and until when. */
export interface KeptCard {
	readonly reader: string;
	readonly address: string;
	/** What the card is kept under. */
	readonly key: string;
	/** When it was fetched, and until when it is kept (ISO 8601); null: it is not kept. */
	readonly fetched: string;
	readonly until: string | null;
	readonly isShutOut: boolean;
	/** Null where the page could not be read. */
	readonly card: ShownCard | null;
}

/** What a reader answers when it is told to fetch again. */
export type AskAnswer =
	| { readonly is: 'fetched'; readonly card: KeptCard }
	/** It wants to be asked once more. */
	| { readonly is: 'ask-again' }
	/** Nothing makes it fetch before its time, or at all, or only another address does. */
	| { readonly is: 'wait' | 'new-address' | 'never'; readonly until: string | null }
	/** It was asked too often; in so many seconds it listens again. */
	| { readonly is: 'limit'; readonly wait: number };

/** An answer of the service is waited for so long (milliseconds). */
const PATIENCE = 20_000;
/** More of an answer (bytes) is not read: a card is a few lines. */
const MOST_READ = 200_000;

const text = { type: 'string', maxLength: 20_000 } as const;
const moment = { type: ['string', 'null'], maxLength: 40 } as const;
const CARD = {
	type: 'object',
	required: ['reader', 'fetched', 'until', 'isShutOut', 'card'],
	properties: {
		...{ reader: text, address: text, key: text, fetched: { type: 'string', maxLength: 40 }, until: moment },
		isShutOut: { type: 'boolean' },
		card: {
			type: ['object', 'null'],
			required: ['title', 'description', 'picture'],
			properties: { title: text, description: text, picture: text, host: text, siteName: text }
		}
	}
} as const;
const isCard = checkFor<KeptCard>(CARD);
const isAnswer = checkFor<AskAnswer>({
	type: 'object',
	required: ['is'],
	oneOf: [
		{ properties: { is: { const: 'fetched' }, card: CARD }, required: ['card'] },
		{ properties: { is: { const: 'ask-again' } } },
		{ properties: { is: { enum: ['wait', 'new-address', 'never'] }, until: moment } },
		{ properties: { is: { const: 'limit' }, wait: { type: 'number', minimum: 0 } }, required: ['wait'] }
	]
});

/** Readers that keep cards, spoken to over HTTP. The address is named by the one who starts Kephalon. */
export class ReadersClient {
	constructor(private readonly origin: string) {}

	card = (reader: string, address: string, signal?: AbortSignal) =>
		this.ask('GET', '/card', { reader, address }, isCard, signal);
	again = (reader: string, address: string, signal?: AbortSignal) =>
		this.ask('POST', '/again', { reader, address }, isAnswer, signal);

	private async ask<T>(
		method: string,
		path: string,
		query: Readonly<Record<string, string>>,
		isWhole: Check<T>,
		signal: AbortSignal | undefined
	): Promise<T> {
		const patience = AbortSignal.timeout(PATIENCE);
		const address = `${this.origin}${path}?${new URLSearchParams(query)}`;
		const answer = await askOnce(address, {
			method,
			signal: signal ? AbortSignal.any([signal, patience]) : patience
		}).catch((error: Error) => {
			if (signal?.aborted) throw error;
			throw refuse('readers-silent', { origin: this.origin });
		});
		const body = await readJson(answer).catch((error: Error) => {
			if (signal?.aborted) throw error;
			return undefined;
		});
		// Too many asks are an answer like any other; half an answer is none.
		const isAnswered = answer.ok || answer.status === 429;
		if (isAnswered && isWhole(body) && isOf(body, query.reader)) return body;
		const { detail } = (body ?? {}) as { detail?: unknown };
		const why = isAnswered ? 'gave an answer that cannot be read' : `answered ${answer.status}`;
		throw refuse('readers-refuse', {
			origin: this.origin,
			why,
			said: typeof detail === 'string' ? detail.slice(0, 500) : undefined
		});
	}
}

/** Whether what was answered speaks of the reader that was asked. */
const isOf = (body: unknown, asked: string | undefined) => {
	const { reader, card } = body as { reader?: string; card?: { reader?: string } | null };
	return (reader ?? card?.reader ?? asked) === asked;
};

/** The JSON of an answer, no more than it may be; undefined where there is more, or it is none. */
async function readJson(answer: Response): Promise<unknown> {
	const parts: Uint8Array[] = [];
	let size = 0;
	for await (const part of answer.body ?? []) {
		parts.push(part);
		if ((size += (part as Uint8Array).length) > MOST_READ) return undefined;
	}
	return JSON.parse(Buffer.concat(parts).toString()) as unknown;
}

/** The readers that Kephalon speaks to, if any were named when it was started. */
export function readersClient(): ReadersClient | undefined {
	const origin = process.env.KEPHALON_READERS;
	return origin ? new ReadersClient(origin.replace(/\/$/, '')) : undefined;
}
