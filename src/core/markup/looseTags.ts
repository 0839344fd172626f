/** A tag that a browser passes over, and where it stands (UTF-16 code units). */
export interface LooseTag {
	readonly start: number;
	readonly end: number;
	/** As a reader would write it, such as `</div>`. */
	readonly tag: string;
	/** Whether it is of a whole page, which has its own; else it ends nothing. */
	readonly isOfThePage: boolean;
}

/**
 * A remark, or a tag with its slash and its name. Signs in an attribute's value are no tags. What is not ended goes on to
 * the end, so that every sign is looked at once.
 */
const TAG = /<!--[^]*?(?:-->|$)|<(\/?)([a-z][^\s/>]*)((?=[\s/>]|$)(?:"[^"]*(?:"|$)|'[^']*(?:'|$)|[^'">])*(?:>|$))/gi;
/** Elements whose text holds no tags, each with its end. */
const PLAIN: ReadonlyMap<string, RegExp> = new Map(
	['script', 'style', 'title', 'textarea', 'iframe', 'noembed', 'noframes', 'xmp'].map((name) => [
		name,
		new RegExp(`</${name}|$`, 'gi')
	])
);
const OF_THE_PAGE = new Set(['html', 'head', 'body']);

/** The tags in a piece of markup that belong to a whole page, and the ends of what was never opened. Accepts any string. */
export function looseTags(markup: string): LooseTag[] {
	const loose: LooseTag[] = [];
	const open = new Map<string, number>();
	const tags = new RegExp(TAG);
	for (let found = tags.exec(markup); found; found = tags.exec(markup)) {
		if (found[2] === undefined) continue;
		const [slash, name] = [found[1] as string, found[2].toLowerCase()];
		const count = open.get(name) ?? 0;
		const isOfThePage = OF_THE_PAGE.has(name);
		if (isOfThePage || (slash && count === 0)) {
			const span = { start: found.index, end: found.index + found[0].length };
			loose.push({ ...span, tag: `<${slash}${name}>`, isOfThePage });
			continue;
		}
		open.set(name, count + (slash ? -1 : 1));
		const end = slash ? undefined : PLAIN.get(name);
		if (!end) continue;
		end.lastIndex = tags.lastIndex;
		tags.lastIndex = end.exec(markup)?.index ?? markup.length;
	}
	return loose;
}
