/** Words as a template that renders to just them: the signs of the language are made plain. */
export const toTemplate = (text: string) => text.replace(/[\\{}[\]]/g, '\\$&');
