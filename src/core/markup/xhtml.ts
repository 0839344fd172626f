const XHTML = /^\uFEFF?\s*<\?xml|<!DOCTYPE[^>]+XHTML|<html[^>]+xmlns\s*=/i;

/** Whether a file is written as XHTML: by its ending, an XML declaration, its doctype, or its namespace. */
export function isXhtml(source: string, fileName = ''): boolean {
	return /\.xht(ml)?$/i.test(fileName) || XHTML.test(source.slice(0, 2048));
}

/**
 * An empty element that closes itself would swallow the rest of the file in an HTML parser's eyes: it is blanked, its
 * length kept, so that places in the text stay what they were.
 */
export function hideSelfClosed(source: string): string {
	return source.replace(/<(script|style|title|iframe|noscript|textarea|template)\b[^<>]*\/>/gi, (tag) =>
		' '.repeat(tag.length)
	);
}
