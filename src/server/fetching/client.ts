import type { Agent, Dispatcher } from 'undici';
import { isIP, type LookupFunction } from 'node:net';
import type { Readable } from 'node:stream';
import { withOneLength } from './oneLength';

interface Asked {
	readonly signal: AbortSignal;
	readonly headers: Record<string, string>;
	readonly method?: 'GET' | 'HEAD';
}
type Options = Agent.Options & { readonly connect?: { readonly lookup?: LookupFunction; readonly timeout?: number } };
/** What is read of an answer. */
export type Answered = Pick<Dispatcher.ResponseData, 'statusCode' | 'headers'> & { readonly body: Readable };

/** A body that nobody wants; its connection ends. */
export const passOver = (body: Readable): unknown => body.on('error', () => undefined).destroy();

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

	/** Asks for an address; redirects are not followed. */
	async get(address: string, asked: Asked): Promise<Answered> {
		const { request, Agent } = await import('undici');
		this.agent ??= new Agent(this.options);
		try {
			return await request(address, { ...asked, dispatcher: this.agent });
		} catch (error) {
			if (!(error instanceof Error && isPedantic(error))) throw error;
			return this.getPlainly(address, asked);
		}
	}

	/** The same by the runtime's own client, on a connection of its own: it takes what is not quite HTTP. */
	private async getPlainly(address: string, { signal, headers, method = 'GET' }: Asked): Promise<Answered> {
		const { request, Agent } = address.startsWith('https:') ? await import('node:https') : await import('node:http');
		const connects = new Agent();
		const { connect, maxHeaderSize } = this.options;
		return new Promise((done, fail) => {
			const limits = { ...(connect?.lookup && { lookup: connect.lookup }), ...(maxHeaderSize && { maxHeaderSize }) };
			request(address, {
				...{ signal, headers, method, ...limits, insecureHTTPParser: true },
				createConnection: (options) => {
					// An agent would have said the name that a certificate is asked for by.
					const named = { ...options, servername: isIP(options.host ?? '') === 0 ? options.host : '' };
					const socket = connects.createConnection(named);
					return socket && withOneLength(socket);
				}
			})
				.on('error', fail)
				.on('response', (body) => done({ statusCode: body.statusCode ?? 0, headers: body.headers, body }))
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
