/** How languages set quotation marks (CLDR, delimiters): outer and inner. French has no-break spaces inside. */
const QUOTES: ReadonlyMap<string, readonly [open: string, close: string, openInner: string, closeInner: string]> =
	new Map([
		['en', ['“', '”', '‘', '’']],
		['fr', ['«\u00a0', '\u00a0»', '“', '”']],
		['fr-CH', ['«\u202f', '\u202f»', '‹\u202f', '\u202f›']],
		['de', ['„', '“', '‚', '‘']],
		['de-CH', ['«', '»', '‹', '›']],
		['es', ['«', '»', '“', '”']],
		['it', ['«', '»', '“', '”']],
		['pt', ['“', '”', '‘', '’']],
		['pt-PT', ['«', '»', '“', '”']],
		['nl', ['“', '”', '‘', '’']],
		['da', ['»', '«', '›', '‹']],
		['nb', ['«', '»', '‘', '’']],
		['sv', ['”', '”', '’', '’']],
		['fi', ['”', '”', '’', '’']],
		['pl', ['„', '”', '«', '»']],
		['cs', ['„', '“', '‚', '‘']],
		['sk', ['„', '“', '‚', '‘']],
		['hu', ['„', '”', '»', '«']],
		['ro', ['„', '”', '«', '»']],
		['ru', ['«', '»', '„', '“']],
		['uk', ['«', '»', '„', '“']],
		['el', ['«', '»', '“', '”']],
		['tr', ['“', '”', '‘', '’']],
		['ja', ['「', '」', '『', '』']],
		['zh', ['“', '”', '‘', '’']]
	]);

const quotesOf = (language: string) => {
	const [primary = 'en'] = language.split('-', 1);
	return QUOTES.get(language) ?? QUOTES.get(primary) ?? QUOTES.get('en')!;
};

/** A text is set this far (UTF-16 code units): no template may come to more. */
const LONGEST = 10_000;
/** A quotation mark opens at the beginning, and behind white space, a dash or an opening bracket. */
const OPENS = /[\s([{«“„‘‚–—/-]/;

/**
 * Straight quotation marks and apostrophes, a hyphen between spaces and three stops as a language sets them; in French a
 * narrow no-break space before `; ! ?` and a no-break one before `:`. What is set already stays.
 */
export function typeset(whole: string, language: string): string {
	const text = whole.slice(0, LONGEST);
	const [open, close, openInner, closeInner] = quotesOf(language);
	const out: string[] = [];
	let isOpen = false;
	for (let at = 0; at < text.length; at++) {
		const [sign, before, after] = [text[at] as string, text[at - 1] ?? ' ', text[at + 1] ?? ' '];
		if (sign === '"') {
			const opens: boolean = !isOpen && OPENS.test(before);
			out.push(opens ? open : close);
			isOpen = opens;
		} else if (sign === "'") {
			const opens = OPENS.test(before) && /\p{L}/u.test(after) && isQuoted(text, at);
			out.push(opens ? openInner : isInner(out, openInner, closeInner) ? closeInner : '’');
		} else out.push(sign);
	}
	return spacesOf(
		out
			.join('')
			.replaceAll('...', '…')
			.replace(/ (?:-|--) /g, ' – '),
		language
	);
}

/** How far the mark that closes is looked for (UTF-16 code units). */
const LONGEST_INNER = 200;

/** Whether what begins with a single mark is closed by one at the end of a word. */
function isQuoted(text: string, at: number): boolean {
	const rest = text.slice(at + 1, at + LONGEST_INNER);
	return /^[^']*'(?!\p{L})/u.test(rest);
}

/** Whether an inner quotation is open at the end of what is set so far. */
function isInner(out: readonly string[], openInner: string, closeInner: string): boolean {
	if (openInner === closeInner) return false;
	const near = out.slice(-LONGEST_INNER);
	const from = near.lastIndexOf(openInner);
	return from >= 0 && !near.includes(closeInner, from + 1);
}

function spacesOf(text: string, language: string): string {
	if (!/^fr(-|$)/.test(language)) return text;
	const narrow = '\u202f';
	return text
		.replace(/(?<=[\p{L}\p{N})»”])[ \u00a0]?([;!?])(?!\S)/gu, `${narrow}$1`)
		.replace(/(?<=[\p{L}\p{N})»”])[ \u00a0]?:(?!\S)/gu, '\u00a0:')
		.replace(/« ?(?=\S)/g, '«\u00a0')
		.replace(/(?<=\S) ?»/g, '\u00a0»');
}
