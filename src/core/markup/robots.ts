/**
 * Whether robots directives tell search not to list a page, as a `meta` or a header says them: by directive, so that
 * `max-image-preview:none` is not taken for `none`.
 */
export const hidesFromSearch = (directives: string): boolean =>
	directives.split(',').some((one) => ['noindex', 'none'].includes(one.trim().toLowerCase()));

/** Directives whose value stands behind a colon, as a reader's rules stand behind its name. */
const WITH_VALUE = new Set(['max-snippet', 'max-image-preview', 'max-video-preview', 'unavailable_after']);
/** So much of a header is read (UTF-16 code units). */
const MOST_HEADER = 2000;

/** What an `X-Robots-Tag` says to a reader of a name, or to every reader: a rule for one begins with its name, and what follows is for it. */
export function directivesFor(header: string, name = ''): string {
	const said: string[] = [];
	let of = '';
	for (const part of header.slice(0, MOST_HEADER).split(',')) {
		const [before = '', ...rest] = part.split(':');
		const isNamed = rest.length > 0 && !WITH_VALUE.has(before.trim().toLowerCase());
		if (isNamed) of = before.trim().toLowerCase();
		if (of === name) said.push(isNamed ? rest.join(':') : part);
	}
	return said.join(',');
}
