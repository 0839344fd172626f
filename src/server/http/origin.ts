import { parseUrl } from '$core';
import { refuse, type UserError } from '../errors';

/** Fields of a request by their names in small letters. */
type Fields = (name: string) => string | null | undefined;

/** Types of bodies that no form of another site can send without its browser asking first. */
const TAKEN = /^(application\/(?:json|octet-stream|x-ndjson)|image\/[\w.+-]+)\b/;

/** The refusal of a request that a page of the open web makes in somebody's name; undefined for one that only reads, or is our own. */
export function refusalOfOrigin(method: string, field: Fields): UserError | undefined {
	if (method === 'GET' || method === 'HEAD') return undefined;
	if (!['same-origin', 'none'].includes(field('sec-fetch-site') ?? 'none')) return refuse('other-origin');
	const origin = field('origin') ?? undefined;
	if (origin !== undefined && parseUrl(origin)?.host !== field('host')) return refuse('other-origin');
	// Nothing but POST can be sent without asking.
	return method === 'POST' && !TAKEN.test(field('content-type') ?? '') ? refuse('body-of-other-kind') : undefined;
}
