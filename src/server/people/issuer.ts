import * as client from 'openid-client';
import { refuse } from '../errors';
import { askOnce } from '../fetching/askOnce';
import type { SignOnSettings } from './signOnSettings';

/** What is kept of a sign-on that is under way, of chance: RFC 7636 (PKCE), OpenID Connect Core 1.0, section 3.1.2.1. */
export interface UnderWay {
	readonly state: string;
	readonly nonce: string;
	readonly verifier: string;
}

/** What is asked of the issuer; done in a thread, since it reads what is not ours. */
export type IssuerTask = { readonly settings: SignOnSettings } & (
	| ({ readonly do: 'begin'; readonly back: string } & UnderWay)
	/** `at` is the address that the browser came back to. */
	| ({ readonly do: 'end'; readonly at: string } & UnderWay)
	| { readonly do: 'leave'; readonly to: string }
);

/** Where the browser goes (undefined where the issuer has no such place), or who came back. */
export interface IssuerSays {
	readonly address?: string | undefined;
	readonly subject?: string;
	readonly claims?: Readonly<Record<string, unknown>>;
}

/** The issuer is given so long (seconds) for each answer, of so many bytes at the most. */
const PATIENCE = 10;
const MOST_BYTES = 1_000_000;
/** What the issuer says of itself is asked again after so long (milliseconds). */
const FRESH = 600_000;
const known = new Map<string, { readonly config: client.Configuration; readonly at: number }>();

/** Speaks with the issuer (OpenID Connect Core 1.0, code flow with PKCE). Throws a `UserError`. */
export async function askIssuer(task: IssuerTask): Promise<IssuerSays> {
	try {
		const config = await configOf(task.settings);
		switch (task.do) {
			case 'begin':
				return { address: await begun(config, task) };
			case 'end':
				return await ended(config, task);
			case 'leave':
				return { address: leaving(config, task.to) };
		}
	} catch (error) {
		const { code = '', message, cause } = error as { code?: string; message: string; cause?: unknown };
		const why = cause instanceof Error ? `${message}: ${cause.message}` : message;
		throw refuse('sign-on-failed', { issuer: task.settings.name, why: `${code} ${why}`.trim().slice(0, 300) });
	}
}

async function configOf({ issuer, clientId, clientSecret }: SignOnSettings): Promise<client.Configuration> {
	const key = JSON.stringify([issuer, clientId, clientSecret]);
	const before = known.get(key);
	if (before && before.at > Date.now() - FRESH) return before.config;
	const url = new URL(issuer);
	const config = await client.discovery(
		url,
		clientId,
		undefined,
		clientSecret === undefined ? client.None() : client.ClientSecretBasic(clientSecret),
		{
			timeout: PATIENCE,
			[client.customFetch]: fetchLittle,
			// Only on this machine: the settings let no other through.
			...(url.protocol === 'http:' && { execute: [client.allowInsecureRequests] })
		}
	);
	config[client.customFetch] = fetchLittle;
	known.set(key, { config, at: Date.now() });
	return config;
}

/** What is longer than an issuer has to say is not read. */
const fetchLittle: client.CustomFetch = async (address, options) => {
	const answer = await askOnce(address, { ...options, body: options.body as BodyInit });
	const parts: Uint8Array[] = [];
	let size = 0;
	for await (const part of (answer.body ?? []) as AsyncIterable<Uint8Array>) {
		size += part.length;
		if (size > MOST_BYTES) throw new Error('its answer is too long');
		parts.push(part);
	}
	const hasBody = ![101, 204, 205, 304].includes(answer.status);
	return new Response(hasBody ? Buffer.concat(parts) : null, { status: answer.status, headers: answer.headers });
};

async function begun(
	config: client.Configuration,
	{ settings, back, state, nonce, verifier }: IssuerTask & { readonly do: 'begin' }
): Promise<string> {
	const challenge = await client.calculatePKCECodeChallenge(verifier);
	return client.buildAuthorizationUrl(config, {
		...{ redirect_uri: back, scope: settings.scope ?? 'openid profile email', state, nonce },
		...{ code_challenge: challenge, code_challenge_method: 'S256' }
	}).href;
}

async function ended(
	config: client.Configuration,
	{ at, state, nonce, verifier }: IssuerTask & { readonly do: 'end' }
): Promise<IssuerSays> {
	const tokens = await client.authorizationCodeGrant(config, new URL(at), {
		...{ pkceCodeVerifier: verifier, expectedState: state, expectedNonce: nonce, idTokenExpected: true }
	});
	const claims = tokens.claims()!;
	// Groups stand in the token with some issuers, and where one asks for them with others.
	const more = config.serverMetadata().userinfo_endpoint
		? await client.fetchUserInfo(config, tokens.access_token, claims.sub)
		: {};
	return { subject: claims.sub, claims: { ...more, ...claims } };
}

/** Where one signs out of the issuer (RP-Initiated Logout 1.0). */
function leaving(config: client.Configuration, to: string): string | undefined {
	if (!config.serverMetadata().end_session_endpoint) return undefined;
	const { client_id } = config.clientMetadata();
	return client.buildEndSessionUrl(config, { client_id, post_logout_redirect_uri: to }).href;
}
