/** Words as a template that renders to just them: the signs of the language are made plain. */
export const toTemplate = (text: string) => text.replace(/[\\{}[\]]/g, '\\$&');

/** The same for a text that stands alone, with no sign escaped that would be read as itself. */
export const toWholeTemplate = (text: string) => text.replace(/[\\{}]|\[(?=\[)|\](?=\])/g, '\\$&');
