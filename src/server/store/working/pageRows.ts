import type { Page, Rule } from '$core';

/** All of a page's row, with what was read out of its body but not the body itself. */
export const WHOLE = `SELECT id, path, type, page.language, state, modified, hidden, fields, settings, b.page_id AS bodied, b.opening, b.language AS spoken
	FROM page LEFT JOIN page_body b ON b.page_id = page.id`;

export interface PageRow {
	id: number;
	path: string;
	type: string;
	language: string | null;
	state: Page['state'];
	modified: string | null;
	hidden: 0 | 1;
	fields: string;
	settings: string;
	/** The page's id where it has a body. */
	bodied: number | null;
	opening: string | null;
	spoken: string | null;
}

/** Makes pages of their rows; a body is read when someone asks for it. */
export class PageRows {
	/** The ids of pages with a body, by their fields, and the property that reads it: one for all, so that all have one shape. */
	private readonly bodied = new WeakMap<object, number>();
	private readonly body: PropertyDescriptor;

	constructor(bodyOf: (page: number) => string | undefined) {
		const { bodied } = this;
		this.body = {
			get(this: object) {
				return bodyOf(bodied.get(this) as number);
			},
			enumerable: true,
			configurable: true
		};
	}

	/** A page as its row says. */
	toPage(row: PageRow, rules: readonly Rule[]): Page {
		const { path, type, language, state, modified, opening, spoken } = row;
		const fields = JSON.parse(row.fields) as Page['fields'];
		const page: Page = {
			...{ path, type },
			...(language && { language }),
			state,
			...(modified && { modified }),
			...(row.hidden && { hidden: true }),
			fields,
			// Most pages have none, and many are read at a time.
			...(row.settings !== '{}' && (JSON.parse(row.settings) as object)),
			rules
		};
		if (row.bodied === null) return page;
		this.bodied.set(fields, row.id);
		Object.defineProperty(fields, 'body', this.body);
		// Not part of what the page is: a copy of it with another body must not carry it along.
		if (opening !== null && spoken !== null)
			Object.defineProperty(page, 'reading', { value: { opening, language: spoken }, enumerable: false });
		return page;
	}
}

/** The body, where it is a text, apart from the other fields; another kind of value stays among them. */
export function splitBody(fields: Page['fields']): {
	readonly body: string | undefined;
	readonly rest: Page['fields'];
} {
	const { body, ...rest } = fields;
	return typeof body === 'string' ? { body, rest } : { body: undefined, rest: fields };
}
