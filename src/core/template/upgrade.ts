/**
 * A template of before version 2 of the site file, in which the separator was written `{sep}`. Escapes, texts in
 * quotation marks and longer names are left as they are; what could not be read stays unread.
 */
export function renameSeparator(source: string): string {
	let out = '';
	for (let at = 0; at < source.length;) {
		const part = partAt(source, at);
		const isSeparator = /^\{\s*sep\s*\}$/.test(part);
		out += isSeparator ? part.replace('sep', 'separator') : part;
		at += part.length;
	}
	return out;
}

/** The escape, the placeholder or the one sign that begins at a place. */
function partAt(source: string, at: number): string {
	if (source[at] === '\\') return source.slice(at, at + 2);
	if (source[at] !== '{') return source[at] as string;
	return /^\{(?:[^{}"]|"(?:[^"\\]|\\[\s\S])*")*\}/.exec(source.slice(at))?.[0] ?? '{';
}
