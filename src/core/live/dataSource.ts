import type { DataSource } from '../model';
import { parseUrl } from '../text/url';

/** Where live data of a page is, by its path: both say the same names in braces. */

const NAME = /\{([A-Za-z_]\w{0,40})\}/g;
/** Paths and addresses are no longer than this. */
const LONGEST = 2000;

/** Why a source gives nothing, in words that finish “… is no source: …”; undefined where it is one. */
export function whyNoSource({ path, address }: DataSource): string | undefined {
	if (!path.startsWith('/')) return 'its path begins with /';
	if (/[?#\s]/.test(path)) return 'its path has no ?, # or space';
	const names = namesIn(path);
	if (names.length === 0) return 'its path says no {name}, so that it stands for no other pages';
	if (new Set(names).size < names.length) return 'its path says one {name} twice';
	if (/\}\{/.test(path)) return 'two names stand side by side in its path, so that nothing says where one ends';
	if (/[{}]/.test(path.replace(NAME, ''))) return 'its path has a brace that is part of no {name}';
	const unknown = namesIn(address).find((name) => !names.includes(name));
	if (unknown !== undefined) return `its address asks for {${unknown}}, which its path does not say`;
	if (/[{}]/.test(address.replace(NAME, ''))) return 'its address has a brace that is part of no {name}';
	const origin = /^https?:\/\/[^/?#{}]+(?=[/?#]|$)/.exec(address)?.[0];
	if (origin === undefined || !parseUrl(address.replace(NAME, 'x')))
		return 'its address begins with http:// or https:// and a host without a {name}';
	return undefined;
}

const namesIn = (text: string) => [...text.matchAll(NAME)].map(([, name]) => name!);

/** What the names of a pattern stand for in a path, as they stand in it; undefined where it does not fit. Each stands for something without a /. */
export function namedIn(pattern: string, path: string): ReadonlyMap<string, string> | undefined {
	if (path.length > LONGEST) return undefined;
	const [first = '', ...rest] = pattern.split(/\{\w+\}/);
	const names = namesIn(pattern);
	if (!path.startsWith(first)) return undefined;
	const found = new Map<string, string>();
	let at = first.length;
	for (const [index, name] of names.entries()) {
		const then = rest[index]!;
		const isLast = index === names.length - 1;
		// What follows the last one stands at the end; of all others the next place is taken.
		const end = then === '' ? path.length : isLast ? endOf(path, then) : path.indexOf(then, at + 1);
		if (end <= at) return undefined;
		const value = path.slice(at, end);
		if (value.includes('/')) return undefined;
		found.set(name, value);
		at = end + then.length;
	}
	return at === path.length ? found : undefined;
}

const endOf = (path: string, end: string) => (path.endsWith(end) ? path.length - end.length : -1);

/** The address of a page's record; undefined for a page that is none of the source's. */
export function recordAddress({ path: pattern, address }: DataSource, path: string): string | undefined {
	const named = namedIn(pattern, path);
	if (!named) return undefined;
	return address.replace(NAME, (_, name: string) => asInAddress(named.get(name) ?? ''));
}

/** As it stands in a path, where it is percent-encoded already; whatever could end a part of an address is. */
function asInAddress(value: string): string {
	let plain = value;
	try {
		plain = decodeURIComponent(value);
	} catch {
		// Not encoded, whatever it looks like.
	}
	const encoded = encodeURIComponent(plain.toWellFormed());
	// A part of a path that is a dot, or two, would lead elsewhere.
	return /^\.{1,2}$/.test(encoded) ? encoded.replaceAll('.', '%2E') : encoded;
}
