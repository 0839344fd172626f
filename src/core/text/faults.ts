/** What a variable with nothing in it leaves behind: a sign that leads on with nothing before it, or empty brackets. */
const GAP = /(^|\s)[,.;:]|[,;]\s*[,.;]|\(\s*\)/;

/** Whether a text shows by its signs that something is missing in it. */
export const hasGap = (text: string) => GAP.test(text);

/** Whether a name stands in a text more than once; names of one or two letters are not looked for. */
export const hasTwice = (text: string, name: string) =>
	name.length > 2 && text.toLowerCase().split(name.toLowerCase()).length > 2;
