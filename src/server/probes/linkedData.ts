import { finding, isLocalAddress, type Finding, type ServedHead, type Target } from '$core';
import { leftIn } from './slips';

/** Names under which JSON-LD gives addresses, and days (schema.org). */
const ADDRESSES = new Set([
	'url',
	'@id',
	'image',
	'contentUrl',
	'thumbnailUrl',
	'logo',
	'mainEntityOfPage',
	'sameAs',
	'item'
]);
const DAYS = /^(?:date(?:Published|Modified|Created)|uploadDate|startDate|endDate)$/;
/** A day, or a moment of one (ISO 8601), also a year or a month alone. */
const DAY = /^\d{4}(?:-(?:0[1-9]|1[0-2])(?:-(?:0[1-9]|[12]\d|3[01])(?:[T ]\d\d:?\d\d.{0,24})?)?)?$/;

/** What is wrong with what JSON-LD says; each once. */
export function findInData({ data, more }: ServedHead, target: Target): Finding[] {
	const found = new Map<string, Finding>();
	for (const { name, value, line } of data) {
		const tag = `JSON-LD ${name}`;
		const left = leftIn(name === 'headline' ? 'title' : name, value, more.get('h1'));
		if (left !== undefined)
			found.set(`left ${name}`, finding('template-left', target, undefined, { tag, line, seen: left.slice(0, 60) }));
		if (ADDRESSES.has(name) && isLocalAddress(value))
			found.set(`local ${name}`, finding('local-served', target, undefined, { tag, line, value: value.slice(0, 200) }));
		if (DAYS.test(name) && !DAY.test(value.trim()))
			found.set(
				`day ${name}`,
				finding('value-broken', target, undefined, {
					...{ tag, line, value: value.slice(0, 80), expected: 'a date such as 2026-05-03', meant: undefined }
				})
			);
	}
	return [...found.values()];
}
