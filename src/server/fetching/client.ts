import type { Agent, Dispatcher } from 'undici';

type Asked = { readonly signal: AbortSignal; readonly headers: Record<string, string> };

/** An HTTP client. Its package is loaded when it first fetches: that takes as long as most work that fetches nothing. */
export class Client {
	private agent: Agent | undefined;

	constructor(private readonly options: Agent.Options) {}

	/** Asks for an address; redirects are not followed. */
	async get(address: string, asked: Asked): Promise<Dispatcher.ResponseData> {
		const { request, Agent } = await import('undici');
		this.agent ??= new Agent(this.options);
		return request(address, { ...asked, dispatcher: this.agent });
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
