import type { Edit, Reach } from '$core';

/** The calls of the bench to its server. Refusals come back as the sentence that the server gives. */

export interface Pending {
	readonly release: { readonly number: number; readonly created: string; readonly pages: number } | null;
	readonly changed: number;
	readonly added: number;
	readonly removed: number;
	readonly paths: readonly string[];
}

const at = (site: string, what: string) => `/api/sites/${encodeURIComponent(site)}/${what}`;
const sending = (method: string, body: unknown): RequestInit => ({
	method,
	headers: { 'content-type': 'application/json' },
	body: JSON.stringify(body)
});

async function refusalOf(answer: Response): Promise<string> {
	const told = (await answer.json().catch(() => ({}))) as { detail?: string; message?: string };
	return (
		told.detail ?? told.message ?? `The server answered ${answer.status}. Try again; what you wrote is still here.`
	);
}

const UNREACHABLE = 'Kephalon does not answer. Is it still running? What you wrote is still here.';

export async function reach(site: string, edit: Edit, signal: AbortSignal): Promise<Reach | undefined> {
	const answer = await fetch(at(site, 'reach'), { ...sending('POST', edit), signal });
	return answer.ok ? ((await answer.json()) as Reach) : undefined;
}

/** Undefined when it was kept, else why not. */
export async function setRule(site: string, edit: Edit): Promise<string | undefined> {
	const answer = await fetch(at(site, 'rules'), sending('PUT', edit)).catch(() => undefined);
	if (!answer) return UNREACHABLE;
	return answer.ok ? undefined : refusalOf(answer);
}

export async function pending(site: string): Promise<Pending> {
	const answer = await fetch(at(site, 'pending'));
	if (!answer.ok) throw new Error(await refusalOf(answer));
	return (await answer.json()) as Pending;
}

export async function release(site: string): Promise<{ number: number; pages: number } | { refused: string }> {
	const answer = await fetch(at(site, 'release'), sending('POST', {})).catch(() => undefined);
	if (!answer) return { refused: UNREACHABLE };
	return answer.ok
		? ((await answer.json()) as { number: number; pages: number })
		: { refused: await refusalOf(answer) };
}
