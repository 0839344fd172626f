import { ownOf, type Fields } from '$core';
import { UserError } from '../errors';
import { request, type Agent } from 'undici';
import { agentFor, whyNoAnswer } from '../fetching/asking';
import { refuseAddress } from '../fetching/guard';
import { leadsTo } from '../fetching/location';
import { fieldsOfRecord, type RecordMapping } from '../heads/records';

/** A record to be asked for. */
export interface RecordTask {
	readonly address: string;
	/** Origins that whoever started the server named: they may lie inside a network. */
	readonly inside: readonly string[];
	/** Where its fields stand; without it, its own members are the fields. */
	readonly mapping?: RecordMapping | undefined;
	/** Fields of a request that ask whether what is known still holds. */
	readonly known?: Readonly<Record<string, string>>;
	/** The record itself is wanted, too, as text. */
	readonly whole?: true;
}

/** What was answered: a status with its fields, or, where nothing was, why. */
export interface RecordAnswer {
	readonly status?: number;
	/** Those that say how long it may be kept, and what it is called. */
	readonly headers: Readonly<Record<string, string>>;
	readonly fields?: Fields;
	readonly record?: string;
	/** Fields that could not be read where the mapping says, with why; told with the whole record. */
	readonly problems?: Readonly<Record<string, string>>;
	/** In a sentence. */
	readonly why?: string;
}

/** A record may take so long (milliseconds), and have so many bytes, and lead on so often. */
const PATIENCE = 5000;
const MOST_BYTES = 5_000_000;
const MOST_HOPS = 3;
/** So much of one is shown. */
const SHOWN = 20_000;
const KEPT_HEADERS = ['cache-control', 'expires', 'date', 'age', 'etag', 'last-modified', 'vary', 'pragma'];

/** Connections to a source are kept: another record is asked for over them. */
const agents: { inside?: Agent; guarded?: Agent } = {};

/** Asks for a record, through the guard, and reads its fields. Never throws. */
export async function readRecord(task: RecordTask): Promise<RecordAnswer> {
	try {
		return await ask(task);
	} catch (error) {
		return { headers: {}, why: whyNot(error) };
	}
}

async function ask({ address, inside, mapping, known = {}, whole }: RecordTask): Promise<RecordAnswer> {
	const signal = AbortSignal.timeout(PATIENCE);
	let next = address;
	for (let hop = 0; hop <= MOST_HOPS; hop++) {
		const isInside = inside.includes(new URL(next).origin);
		const refused = isInside ? undefined : refuseAddress(next);
		if (refused) return { headers: {}, why: `${next} is not asked: it ${refused}.` };
		const agent = (agents[isInside ? 'inside' : 'guarded'] ??= agentFor(isInside, PATIENCE));
		const answer = await get(next, {
			...{ dispatcher: agent, signal },
			headers: { accept: 'application/json', 'user-agent': 'Kephalon', ...known }
		});
		const headers = keptOf(answer.headers);
		if (answer.statusCode === 200) {
			const read = readFields(await textOf(answer.body), mapping, whole);
			return { ...('why' in read ? {} : { status: 200 }), headers, ...read };
		}
		await answer.body.dump();
		const { location } = answer.headers;
		const to = typeof location === 'string' ? leadsTo(location, next) : undefined;
		if (![301, 302, 303, 307, 308].includes(answer.statusCode) || !to) return { status: answer.statusCode, headers };
		next = to.href;
	}
	return { headers: {}, why: `${address} leads on more than ${MOST_HOPS} times.` };
}

/** A kept connection may be closed while one asks over it: then it is asked once more (RFC 9112, section 9.3.1). */
async function get(address: string, asked: NonNullable<Parameters<typeof request>[1]>) {
	try {
		return await request(address, asked);
	} catch (error) {
		if (!BROKEN_OFF.has((error as NodeJS.ErrnoException).code ?? '')) throw error;
		return request(address, asked);
	}
}
const BROKEN_OFF: ReadonlySet<string> = new Set(['UND_ERR_SOCKET', 'ECONNRESET', 'EPIPE']);

const keptOf = (headers: Readonly<Record<string, string | string[] | undefined>>) =>
	Object.fromEntries(
		KEPT_HEADERS.flatMap((name) => {
			const value = ownOf(headers, name);
			return value === undefined ? [] : [[name, [value].flat().join(', ')]];
		})
	);

async function textOf(body: AsyncIterable<Buffer>): Promise<string> {
	const parts: Buffer[] = [];
	let size = 0;
	for await (const part of body) {
		if ((size += part.length) > MOST_BYTES) throw new TooLong();
		parts.push(part);
	}
	// RFC 8259, section 8.1: it is UTF-8, and begins with no mark, which may be passed over.
	return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
}

class TooLong extends Error {}

function readFields(text: string, mapping: RecordMapping | undefined, whole: true | undefined) {
	const record = JSON.parse(text) as unknown;
	if (typeof record !== 'object' || record === null)
		return { why: 'What it answers is no record: an object in JSON is.' };
	const own = Object.fromEntries(
		Object.keys(record).map((name) => [name, `/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`])
	);
	if (!whole) return { fields: fieldsOfRecord(mapping ?? own, record) };
	const problems: [string, string][] = [];
	const read = Object.entries(mapping ?? own).flatMap(([name, where]) => {
		try {
			return Object.entries(fieldsOfRecord({ [name]: where }, record));
		} catch (error) {
			problems.push([name, whyNot(error)]);
			return [];
		}
	});
	return {
		fields: Object.fromEntries(read),
		problems: Object.fromEntries(problems),
		record: JSON.stringify(record, null, 2).slice(0, SHOWN)
	};
}

function whyNot(error: unknown): string {
	if (error instanceof UserError) return error.message;
	if (error instanceof TooLong) return `It answers more than ${MOST_BYTES / 1_000_000} MB.`;
	if (error instanceof SyntaxError) return 'What it answers is no JSON.';
	const { code } = error as NodeJS.ErrnoException;
	return code === 'ERR_ENCODING_INVALID_ENCODED_DATA' ? 'What it answers is not UTF-8.' : whyNoAnswer(error);
}
