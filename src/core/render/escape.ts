/** Escaping by context, after the HTML standard's serialisation rules (section 13.3), stricter by `<` and `>` in attributes. */

const REFERENCES: ReadonlyMap<string, string> = new Map([
	['&', '&amp;'],
	['<', '&lt;'],
	['>', '&gt;'],
	['"', '&quot;']
]);
const toReference = (char: string) => REFERENCES.get(char) as string;

/** Whether a text holds nothing to escape, as nearly all do. Four searches for one sign each are the fastest way to tell. */
export function isPlain(text: string): boolean {
	return !text.includes('&') && !text.includes('<') && !text.includes('>') && !text.includes('"');
}

/** For the text of an element that holds text only, such as title. */
export function escapeText(text: string): string {
	return isPlain(text) ? text : text.replace(/[&<>]/g, toReference);
}

/** For an attribute's value between double quotation marks. */
export function escapeAttribute(text: string): string {
	return isPlain(text) ? text : text.replace(/[&<>"]/g, toReference);
}
