import { UserError } from '../errors';

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
export interface ShownCard {
	readonly title: string;
	readonly description: string;
	readonly picture: string;
	readonly host: string;
	readonly siteName: string;
}

/** What a reader answers when it is told to fetch again. */
export type AskAnswer =
	| { readonly is: 'fetched'; readonly card: KeptCard }
	/** It wants to be asked once more. */
	| { readonly is: 'ask-again' }
	/** Nothing makes it fetch before its time, or only another address does. */
	| { readonly is: 'wait' | 'new-address'; readonly until: string | null }
	/** It was asked too often; in so many seconds it listens again. */
	| { readonly is: 'limit'; readonly wait: number };

/** An answer of the service is waited for so long (milliseconds). */
const PATIENCE = 20_000;

/** Readers that keep cards, spoken to over HTTP. The address is named by the one who starts Kephalon. */
export class ReadersClient {
	constructor(private readonly origin: string) {}

	card = (reader: string, address: string, signal?: AbortSignal) =>
		this.ask<KeptCard>('GET', '/card', { reader, address }, signal);
	again = (reader: string, address: string, signal?: AbortSignal) =>
		this.ask<AskAnswer>('POST', '/again', { reader, address }, signal);

	private async ask<T>(
		method: string,
		path: string,
		query: Readonly<Record<string, string>>,
		signal: AbortSignal | undefined
	): Promise<T> {
		const patience = AbortSignal.timeout(PATIENCE);
		const address = `${this.origin}${path}?${new URLSearchParams(query)}`;
		const answer = await fetch(address, {
			method,
			signal: signal ? AbortSignal.any([signal, patience]) : patience
		}).catch((error: Error) => {
			if (signal?.aborted) throw error;
			throw new UserError(`The readers at ${this.origin} do not answer. Are they still running?`, 1, 502);
		});
		const body = (await answer.json().catch(() => ({}))) as T & { detail?: string };
		// Too many asks are an answer like any other.
		if (answer.ok || answer.status === 429) return body;
		throw new UserError(body.detail ?? `The readers at ${this.origin} answered ${answer.status}.`, 1, 502);
	}
}

/** The readers that Kephalon speaks to, if any were named when it was started. */
export function readersClient(): ReadersClient | undefined {
	const origin = process.env.KEPHALON_READERS;
	return origin ? new ReadersClient(origin.replace(/\/$/, '')) : undefined;
}
