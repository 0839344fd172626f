import { refuseAddress } from '../fetching/guard';

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
	const [{ Webhook }, { request }, { agentFor, whyNoAnswer }] = await Promise.all([
		import('standardwebhooks'),
		import('undici'),
		import('../fetching/asking')
	]);
	const agent = agentFor(inside, PATIENCE);
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
		return { why: whyNoAnswer(error) };
	} finally {
		await agent.destroy();
	}
}
