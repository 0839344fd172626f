/**
 * Reads an address as the URL standard does; undefined when it is none. The one place where addresses are parsed: the
 * standard's question whether a text can be parsed answers wrongly in Node 20 once its caller is optimised, for texts
 * kept with one byte a character, so that it is forbidden everywhere.
 */
export function parseUrl(text: string, base?: string): URL | undefined {
	try {
		return new URL(text, base);
	} catch {
		return undefined;
	}
}
