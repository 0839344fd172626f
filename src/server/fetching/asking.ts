import { Agent } from 'undici';
import { guardedLookup, RefusedName } from './guard';

/** What asks addresses that others named: through the guard, unless they may lie inside a network. */
export const agentFor = (isInside: boolean, patience: number) =>
	new Agent({
		connect: { timeout: patience, ...(!isInside && { lookup: guardedLookup() }) },
		headersTimeout: patience,
		bodyTimeout: patience
	});

const WORDS: ReadonlyMap<string, string> = new Map([
	['ECONNREFUSED', 'Nobody listens there.'],
	['ENOTFOUND', 'There is no such host.'],
	['EAI_AGAIN', 'The name could not be looked up.'],
	['ECONNRESET', 'The connection broke off.'],
	['UND_ERR_SOCKET', 'The connection broke off.'],
	['UND_ERR_CONNECT_TIMEOUT', 'It did not answer in time.'],
	['UND_ERR_HEADERS_TIMEOUT', 'It did not answer in time.'],
	['UND_ERR_BODY_TIMEOUT', 'It did not answer in time.']
]);

/** Why an address gave no answer, in a sentence. */
export function whyNoAnswer(error: unknown): string {
	if (!(error instanceof Error)) return 'It could not be reached.';
	if (error instanceof RefusedName) return `It ${error.message}.`;
	if (error.name === 'TimeoutError' || error.name === 'AbortError') return 'It did not answer in time.';
	const { code } = error as NodeJS.ErrnoException;
	return WORDS.get(code ?? '') ?? `It could not be reached: ${error.message.slice(0, 120)}.`;
}
