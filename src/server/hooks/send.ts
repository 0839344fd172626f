import { guardedLookup, RefusedName, refuseAddress } from '../fetching/guard';

/** A message on its way. */
export interface HookTask {
	readonly address: string;
	readonly secret: string;
	readonly inside: boolean;
	readonly id: string;
	readonly body: string;
	/** When it is sent (milliseconds). */
	readonly at: number;
}
/** What came of it. */
export interface HookAnswer {
	readonly status?: number;
	readonly why?: string;
}

/** An address is given so long (milliseconds) to take a message. */
const PATIENCE = 15_000;

/** Sends one message, signed as the Standard Webhooks say (version 1: `v1,` and HMAC with SHA-256). Redirects are not followed. */
export async function sendHook({ address, secret, inside, id, body, at }: HookTask): Promise<HookAnswer> {
	const refused = inside ? undefined : refuseAddress(address);
	if (refused) return { why: `It ${refused}.` };
	const [{ Webhook }, { request, Agent }] = await Promise.all([import('standardwebhooks'), import('undici')]);
	const agent = new Agent({
		connect: { timeout: PATIENCE, ...(!inside && { lookup: guardedLookup() }) },
		headersTimeout: PATIENCE,
		bodyTimeout: PATIENCE
	});
	try {
		const answer = await request(address, {
			method: 'POST',
			dispatcher: agent,
			signal: AbortSignal.timeout(PATIENCE),
			headers: {
				'content-type': 'application/json',
				'user-agent': 'Kephalon',
				'webhook-id': id,
				'webhook-timestamp': String(Math.floor(at / 1000)),
				'webhook-signature': new Webhook(secret).sign(id, new Date(at), body)
			},
			body
		});
		// What it says is for nobody.
		answer.body.on('error', () => undefined).destroy();
		return { status: answer.statusCode };
	} catch (error) {
		return { why: whyNot(error) };
	} finally {
		await agent.destroy();
	}
}

const WORDS: ReadonlyMap<string, string> = new Map([
	['ECONNREFUSED', 'Nobody listens there.'],
	['ENOTFOUND', 'There is no such host.'],
	['EAI_AGAIN', 'The name could not be looked up.'],
	['ECONNRESET', 'The connection broke off.'],
	['UND_ERR_SOCKET', 'The connection broke off.'],
	['UND_ERR_CONNECT_TIMEOUT', 'It did not answer in time.'],
	['UND_ERR_HEADERS_TIMEOUT', 'It did not answer in time.']
]);
function whyNot(error: unknown): string {
	if (!(error instanceof Error)) return 'It could not be sent.';
	if (error instanceof RefusedName) return `It ${error.message}.`;
	if (error.name === 'TimeoutError') return 'It did not answer in time.';
	const { code } = error as NodeJS.ErrnoException;
	return WORDS.get(code ?? '') ?? `It could not be sent: ${error.message.slice(0, 120)}.`;
}
