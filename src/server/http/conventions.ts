import type { Actor } from '$core';
import { ownOf } from '$core';
import { refuse } from '../errors';
import { leftFor, MOST_AT_ONCE } from './busy';

/** What holds of every route alike. */

/** Since when routes without their number are old (RFC 9745), in seconds since 1970: 1 December 2026. */
const OLD_SINCE = 1_796_083_200;

/** What an answer says beside itself: how much more may be asked at once, and, where the address is an old one, which one is not. */
export function saidBeside(address: URL, who: Actor, from: () => string): readonly (readonly [string, string])[] {
	const told: [string, string][] = [];
	if (!address.pathname.startsWith('/api/v1/')) {
		told.push(['deprecation', `@${OLD_SINCE}`]);
		told.push(['link', `<${address.pathname.replace('/api/', '/api/v1/')}${address.search}>; rel="successor-version"`]);
	}
	if (who.kind !== 'alone') {
		told.push(['ratelimit-policy', `"at-once";q=${MOST_AT_ONCE};qu="concurrent-requests"`]);
		told.push(['ratelimit', `"at-once";r=${leftFor(who, from)}`]);
	}
	return told;
}

/** So many members are named at the most. */
const MOST_FIELDS = 50;

/** Which members of an answer are wanted, taken out of its query: `fields=path,title`, `fields=pages.path,next`; undefined for all. */
export function fieldsIn(query: URLSearchParams): readonly (readonly string[])[] | undefined {
	const said = query.get('fields');
	if (said === null) return undefined;
	query.delete('fields');
	const names = said.split(',').map((name) => name.trim());
	if (names.length > MOST_FIELDS || names.some((name) => !/^[\w$-]+(?:\.[\w$-]+)*$/.test(name)))
		throw refuse('fields-broken', { fields: said.slice(0, 100) });
	return names.map((name) => name.split('.'));
}

/** An answer with the members that are wanted, of a list those of each; what it has not is left out. */
export function withFields(answer: unknown, wanted: readonly (readonly string[])[]): unknown {
	if (Array.isArray(answer)) return answer.map((one) => withFields(one, wanted));
	if (typeof answer !== 'object' || answer === null) return answer;
	const deeper = new Map<string, (readonly string[])[]>();
	for (const [name = '', ...rest] of wanted) {
		const known = deeper.get(name) ?? [];
		deeper.set(name, rest.length > 0 ? [...known, rest] : known);
	}
	const whole = new Set(wanted.filter((path) => path.length === 1).map(([name]) => name));
	return Object.fromEntries(
		[...deeper].flatMap(([name, rest]) => {
			const value = ownOf(answer as Readonly<Record<string, unknown>>, name);
			if (value === undefined) return [];
			return [[name, whole.has(name) ? value : withFields(value, rest)]];
		})
	);
}
