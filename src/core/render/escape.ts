/** Escaping by context, after the HTML standard's serialisation rules (section 13.3), stricter by `<` and `>` in attributes. */

const REFERENCES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const toReference = (char: string) => REFERENCES[char] as string;

const AMPERSAND = 0x26;
const LESS = 0x3c;
const GREATER = 0x3e;
const QUOTE = 0x22;

/** Whether a text holds nothing to escape: nearly all do, and one pass over the units tells it fastest. */
export function isPlain(text: string): boolean {
	for (let i = 0; i < text.length; i++) {
		const unit = text.charCodeAt(i);
		if (unit === AMPERSAND || unit === LESS || unit === GREATER || unit === QUOTE) return false;
	}
	return true;
}

/** For the text of an element that holds text only, such as title. */
export function escapeText(text: string): string {
	return isPlain(text) ? text : text.replace(/[&<>]/g, toReference);
}

/** For an attribute's value between double quotation marks. */
export function escapeAttribute(text: string): string {
	return isPlain(text) ? text : text.replace(/[&<>"]/g, toReference);
}
