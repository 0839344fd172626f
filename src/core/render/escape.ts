/** Escaping by context, after the HTML standard's serialisation rules (section 13.3), stricter by `<` and `>` in attributes. */

const IN_TEXT = /[&<>]/;
const IN_ATTRIBUTE = /[&<>"]/;
const REFERENCES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const toReference = (char: string) => REFERENCES[char] as string;

/** For the text of an element that holds text only, such as title. */
export function escapeText(text: string): string {
	return IN_TEXT.test(text) ? text.replace(/[&<>]/g, toReference) : text;
}

/** For an attribute's value between double quotation marks. */
export function escapeAttribute(text: string): string {
	return IN_ATTRIBUTE.test(text) ? text.replace(/[&<>"]/g, toReference) : text;
}
