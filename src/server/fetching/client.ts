import type { Agent, Dispatcher } from 'undici';
import type { IncomingHttpHeaders } from 'undici/types/header';
import { isIP, type LookupFunction } from 'node:net';
import { withOneLength } from './oneLength';

interface Asked {
	/** When it is over at the latest, by the clock of `performance.now()` (milliseconds). */
	readonly until: number;
	/** Ends it from outside. */
	readonly signal?: AbortSignal | undefined;
	readonly headers: Record<string, string>;
	readonly method?: 'GET' | 'HEAD';
	/** How many bytes of the body are wanted, by what came before it; with 0 the connection ends there. */
	readonly wants: (status: number, headers: IncomingHttpHeaders) => number;
}
type Options = Agent.Options & { readonly connect?: { readonly lookup?: LookupFunction; readonly timeout?: number } };

/** An answer, with as much of its body as was wanted. */
export interface Answered {
	readonly statusCode: number;
	readonly headers: IncomingHttpHeaders;
	/** When its head was there, by the clock of `performance.now()`. */
	readonly headAt: number;
	/** As it came; the last part may go beyond what was wanted. */
	readonly body: Buffer;
	/** All that was wanted came, and perhaps there is more. */
	readonly isCut: boolean;
	/** Why the body broke off. */
	readonly failed?: Error;
}

/** What came is over before it is all there, since nobody wants more of it. */
class Enough extends Error {}
class TimedOut extends Error {
	override readonly name = 'TimeoutError';
}

/** Whether an answer could not be read as HTTP: by the client, or by the runtime's own. */
export const isMalformed = (error: Error): boolean =>
	error.name === 'HTTPParserError' || ('code' in error && String(error.code).startsWith('HPE_'));

/** What the client takes for broken and readers need not. */
const isPedantic = (error: Error) =>
	// “100 Continue” unasked, which is allowed (RFC 9110, 15.2).
	error.message === 'bad response' ||
	// Two lengths, read as one number.
	(error as NodeJS.ErrnoException).code === 'UND_ERR_RES_CONTENT_LENGTH_MISMATCH' ||
	// A field folded, or lines that end by LF alone (RFC 9112, 2.2 and 5.2).
	isMalformed(error);

/** An HTTP client. Its package is loaded when it first fetches: that takes as long as most work that fetches nothing. */
export class Client {
	private agent: Agent | undefined;

	constructor(private readonly options: Options) {}

	/** Asks for an address; redirects are not followed. Rejects where no answer came. */
	async get(address: string, asked: Asked): Promise<Answered> {
		this.agent ??= new (await import('undici')).Agent(this.options);
		try {
			return await answerOf(this.agent, address, asked);
		} catch (error) {
			if (!(error instanceof Error && isPedantic(error))) throw error;
			return this.getPlainly(address, asked);
		}
	}

	/** The same by the runtime's own client, on a connection of its own: it takes what is not quite HTTP. */
	private async getPlainly(address: string, asked: Asked): Promise<Answered> {
		const { request, Agent } = address.startsWith('https:') ? await import('node:https') : await import('node:http');
		const connects = new Agent();
		const { connect, maxHeaderSize } = this.options;
		const { headers, method = 'GET' } = asked;
		return new Promise((done, fail) => {
			const limits = { ...(connect?.lookup && { lookup: connect.lookup }), ...(maxHeaderSize && { maxHeaderSize }) };
			const sent = request(address, {
				...{ headers, method, ...limits, insecureHTTPParser: true },
				createConnection: (options) => {
					// An agent would have said the name that a certificate is asked for by.
					const named = { ...options, servername: isIP(options.host ?? '') === 0 ? options.host : '' };
					const socket = connects.createConnection(named);
					return socket && withOneLength(socket);
				}
			});
			const coming = new Coming(asked, done, fail);
			coming.endsBy((error) => sent.destroy(error));
			sent
				.on('error', (error) => coming.breaksOff(error))
				.on('response', (body) => {
					body.on('error', (error) => coming.breaksOff(error));
					coming.begins(body.statusCode ?? 0, body.headers);
					body.on('data', (part: Buffer) => coming.brings(part)).on('end', () => coming.isWhole());
				})
				.end();
		});
	}

	/** Ends it when all that is under way has been answered. */
	async close() {
		await this.agent?.close();
	}

	/** Ends it at once. */
	async destroy() {
		await this.agent?.destroy();
	}
}

/** Without a stream between: a page is read by eight readers at once, and most bodies are one part. */
function answerOf(agent: Agent, address: string, asked: Asked): Promise<Answered> {
	const { origin, pathname, search } = new URL(address);
	const { headers, method = 'GET' } = asked;
	return new Promise((done, fail) => {
		const coming = new Coming(asked, done, fail);
		const handler: Dispatcher.DispatchHandler = {
			onRequestStart: (controller) => coming.endsBy((error) => controller.abort(error)),
			onResponseStart: (_, status, said) => {
				// What comes before the answer is none (1xx; RFC 9110, 15.2).
				if (status >= 200) coming.begins(status, said);
			},
			onResponseData: (_, part) => coming.brings(part),
			onResponseEnd: () => coming.isWhole(),
			onResponseError: (_, error) => coming.breaksOff(error)
		};
		agent.dispatch({ origin, path: pathname + search, method, headers }, handler);
	});
}

/** An answer on its way, until it is whole, enough of it came, it breaks off, or its time is over. */
class Coming {
	private readonly parts: Buffer[] = [];
	private received = 0;
	private wanted = 0;
	private head: Pick<Answered, 'statusCode' | 'headers' | 'headAt'> | undefined;
	private end: ((error: Error) => void) | undefined;
	/** Why it is to end, also where there is no connection yet that could be ended. */
	private over: Error | undefined;
	private readonly timer: NodeJS.Timeout;
	private readonly stop = () => this.stopFor(this.asked.signal?.reason as Error);

	constructor(
		private readonly asked: Asked,
		private readonly done: (answer: Answered) => void,
		private readonly fail: (error: Error) => void
	) {
		const left = Math.max(0, asked.until - performance.now());
		this.timer = setTimeout(() => this.stopFor(new TimedOut()), left);
		asked.signal?.addEventListener('abort', this.stop, { once: true });
		if (asked.signal?.aborted) this.stop();
	}

	/** How the connection is ended. */
	endsBy(end: (error: Error) => void): void {
		this.end = end;
		if (this.over) end(this.over);
	}
	begins(statusCode: number, headers: IncomingHttpHeaders): void {
		if (this.over) return;
		this.head = { statusCode, headers, headAt: performance.now() };
		this.wanted = this.asked.wants(statusCode, headers);
		if (this.wanted === 0) this.isEnough();
	}
	brings(part: Buffer): void {
		if (this.over) return;
		this.parts.push(part);
		this.received += part.length;
		// A body without end is not waited for.
		if (this.received >= this.wanted) this.isEnough();
	}
	isWhole(): void {
		if (!this.over) this.settle(false);
	}
	breaksOff(error: Error): void {
		if (this.over) return;
		this.over = error;
		this.settle(false, error);
	}

	private isEnough(): void {
		this.over = new Enough();
		this.settle(true);
		this.end?.(this.over);
	}
	private stopFor(error: Error): void {
		if (this.over) return;
		this.over = error;
		this.settle(false, error);
		this.end?.(error);
	}
	private settle(isCut: boolean, failed?: Error): void {
		clearTimeout(this.timer);
		this.asked.signal?.removeEventListener('abort', this.stop);
		if (!this.head) return this.fail(failed ?? new Error('The answer had no head.'));
		const { statusCode, headers, headAt } = this.head;
		const body = this.parts.length === 1 ? this.parts[0]! : Buffer.concat(this.parts);
		this.done({ statusCode, headers, headAt, body, isCut, ...(failed && { failed }) });
	}
}
