import { readFileSync, statSync } from 'node:fs';
import { refuse } from '../errors';
import { log } from '../log';
import type { PageArea, Role } from '$core';
import { checkFor } from '../schemas/schemas';
import schema from './sign-on.schema.json';

/** What a claim of the issuer makes of a person: an owner of every site, or something at one. */
export interface SignOnRule {
	/** The name of a claim, such as `groups`. */
	readonly claim: string;
	/** What it says, or what is among what it says; without it, that it says anything. */
	readonly is?: string;
	readonly owner?: true;
	readonly site?: string;
	readonly role?: Role;
	readonly area?: PageArea;
}

/** The one issuer (OpenID Connect) by which people sign on. */
export interface SignOnSettings {
	/** Its address, under which `/.well-known/openid-configuration` stands. */
	readonly issuer: string;
	readonly clientId: string;
	readonly clientSecret?: string;
	/** What people call it. */
	readonly name: string;
	readonly scope?: string;
	readonly rules: readonly SignOnRule[];
}

const check = checkFor<SignOnSettings>(schema);

/** The settings of a file. Throws a `UserError` that says what is wrong with it. */
export function readSignOn(file: string): SignOnSettings {
	let data: unknown;
	try {
		data = JSON.parse(readFileSync(file, 'utf8'));
	} catch (error) {
		throw refuse('sign-on-file', { file, why: (error as Error).message });
	}
	if (check(data)) return data;
	const first = check.errors![0]!;
	throw refuse('sign-on-file', { file, why: `${first.instancePath || 'it'} ${first.message ?? 'is wrong'}` });
}

let known: { readonly file: string; readonly read: number; readonly settings: SignOnSettings | undefined } | undefined;

/**
 * How people sign on, as the file says that the server was started with; undefined without one. One that was spoiled since leaves
 * it as it was, and the log says so: nobody is kept from signing in otherwise, or out.
 */
export function signOnSettings(): SignOnSettings | undefined {
	const file = process.env.KEPHALON_SIGN_ON;
	if (!file) return undefined;
	const read = statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;
	if (known?.file !== file || known.read !== read)
		known = { file, read, settings: readOrBefore(file, known?.file === file ? known.settings : undefined) };
	return known.settings;
}

function readOrBefore(file: string, before: SignOnSettings | undefined): SignOnSettings | undefined {
	try {
		return readSignOn(file);
	} catch (error) {
		log.error(error);
		return before;
	}
}

/** What a page tells of a sign-on that was refused, as its address says it: nothing else can be put there. */
export function refusedIn(query: URLSearchParams): string {
	const code = query.get('refused') ?? '';
	const name = (query.get('name') ?? '').slice(0, 80);
	switch (code) {
		case 'sign-on-none':
		case 'sign-on-late':
		case 'sign-on-nobody':
			return refuse(code).message;
		case 'sign-on-name':
		case 'sign-on-other':
			return refuse(code, { name }).message;
		case '':
			return '';
		default:
			return 'Signing on did not work. Try again, or sign in otherwise.';
	}
}
