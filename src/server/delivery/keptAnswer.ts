import type { IncomingMessage, ServerResponse } from 'node:http';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import Negotiator from 'negotiator';
import { namesTag } from '../http/etags';
import { SAFE } from './refuse';

/** Answers made ready: what a request wants of a head, and how one is written. */

/** A body shorter than this (bytes) is not compressed. */
const LEAST_COMPRESSED = 300;
export type Coding = 'br' | 'gzip' | '';
export type Format = 'html' | 'json';

/** An answer made ready; headers as names and values in turn, which is the fastest way to write them. */
export interface Kept {
	readonly etag: string;
	readonly headers: string[];
	readonly notModified: string[];
	readonly body: Buffer;
}
export interface KnownSite {
	readonly id: number;
	/** Of the newest release; null before the first. */
	readonly number: number | null;
	/** What is delivered of it asks for a right to read it. */
	readonly isPrivate: 0 | 1;
}

/** What a request wants of a head. */
export interface Wanted {
	readonly coding: Coding;
	readonly isJson: boolean;
	/** The tags that it has answers of. */
	readonly known: string | undefined;
	/** What lets it in, where anything asks. */
	readonly came: Came;
}

/** The fields of a request that may let someone in. */
export type Came = Pick<IncomingMessage['headers'], 'authorization' | 'cookie'>;

export function wantedBy({ headers }: IncomingMessage): Wanted {
	const { accept = '' } = headers;
	const coding = codingFor(headers['accept-encoding'] ?? '');
	const isJson = accept !== '' && accept.includes('application/json') && !accept.includes('text/html');
	return { coding, isJson, known: headers['if-none-match'], came: headers };
}

/** No more of what a client accepts is read. */
const LONGEST_ACCEPT = 1000;
/** What was asked for last, in its own words: clients ask in a few ways. */
const codings = new Map<string, Coding>();
const MOST_CODINGS = 200;

/** The coding that a client likes best of those that are made, ours where it has no liking (RFC 9110, section 12.5.3). */
export function codingFor(accepted: string): Coding {
	if (accepted === '') return '';
	const known = codings.get(accepted);
	if (known !== undefined) return known;
	const asker = new Negotiator({ headers: { 'accept-encoding': accepted.slice(0, LONGEST_ACCEPT) } });
	const [best] = asker.encodings(['br', 'gzip', 'identity'], { preferred: ['br', 'gzip'] });
	const coding = best === 'br' || best === 'gzip' ? best : '';
	if (codings.size >= MOST_CODINGS) codings.clear();
	if (accepted.length <= LONGEST_ACCEPT) codings.set(accepted, coding);
	return coding;
}

export function headersOf(hash: string, format: Format, coding: Coding, { number, isPrivate }: KnownSite) {
	return {
		...SAFE,
		'content-type': format === 'json' ? 'application/json' : 'text/html; charset=utf-8',
		etag: `"${hash}-${format}${coding && `-${coding}`}"`,
		...(isPrivate
			? { 'cache-control': 'private, no-store', vary: 'accept, accept-encoding, authorization, cookie' }
			: { 'cache-control': 'public, max-age=0, must-revalidate', vary: 'accept, accept-encoding' }),
		'kephalon-release': String(number)
	};
}

function compress(plain: Buffer, coding: Coding): Buffer {
	if (coding === 'br')
		return brotliCompressSync(plain, {
			params: { [constants.BROTLI_PARAM_QUALITY]: 5, [constants.BROTLI_PARAM_SIZE_HINT]: plain.length }
		});
	return coding === 'gzip' ? gzipSync(plain) : plain;
}

/** An answer with its body, packed as is wanted. */
export function packed(text: string, coding: Coding, headers: ReturnType<typeof headersOf>): Kept {
	const plain = Buffer.from(text);
	const body = plain.length < LEAST_COMPRESSED ? plain : compress(plain, coding);
	const whole = {
		...headers,
		...(body !== plain && { 'content-encoding': coding }),
		'content-length': String(body.length)
	};
	return { etag: headers.etag, headers: inTurn(whole), notModified: inTurn(withoutBody(headers)), body };
}

const inTurn = (headers: Readonly<Record<string, string>>) => Object.entries(headers).flat();

/** What RFC 9110, section 15.4.5 asks of an answer without a body, and which release it is of. */
const FOR_NOT_MODIFIED = new Set(['etag', 'cache-control', 'vary', 'kephalon-release']);
const withoutBody = (headers: Readonly<Record<string, string>>) =>
	Object.fromEntries(Object.entries(headers).filter(([name]) => FOR_NOT_MODIFIED.has(name)));

export function answerKept(
	{ etag, headers, notModified, body }: Kept,
	known: string | undefined,
	response: ServerResponse
) {
	if (known !== undefined && namesTag(known, etag)) response.writeHead(304, notModified).end();
	else response.writeHead(200, headers).end(body);
}

export function notModified(response: ServerResponse, headers: Readonly<Record<string, string>>) {
	response.writeHead(304, inTurn(withoutBody(headers))).end();
}
