import { PAGE_FIELDS, type Field, type Fields, type FieldValue, type Person, type PictureMention } from '$core';

/** No editor has more fields than this, and no text is longer. */
const MOST = { fields: 500, text: 2_000_000, list: 1000 } as const;

/**
 * What an editor elsewhere says that it holds, as fields of a page. It comes from a page of others: what is no value of a field is
 * left out. Texts are read by what their field is: a number, a list by its lines or commas, a picture by its address.
 * @param declared the fields of the page's type
 */
export function readTyped(said: unknown, declared: readonly Field[]): Fields {
	if (typeof said !== 'object' || said === null || Array.isArray(said)) return {};
	const kinds = new Map([...PAGE_FIELDS, ...declared].map(({ name, kind }) => [name, kind]));
	const read: [string, FieldValue][] = [];
	for (const [name, value] of Object.entries(said).slice(0, MOST.fields)) {
		const is = valueIn(value, kinds.get(name));
		if (is !== undefined && name !== '__proto__') read.push([name, is]);
	}
	return Object.fromEntries(read);
}

function valueIn(value: unknown, kind: Field['kind'] | undefined): FieldValue | undefined {
	if (typeof value === 'string') return ofText(value.slice(0, MOST.text), kind);
	if (value === null || typeof value === 'boolean' || Number.isFinite(value)) return value as FieldValue;
	if (!Array.isArray(value)) return ofThing(value);
	const all: (string | number | PictureMention | Person)[] = [];
	for (const one of value.slice(0, MOST.list) as unknown[]) {
		const is = typeof one === 'string' || Number.isFinite(one) ? (one as string | number) : ofThing(one);
		if (is === undefined) return undefined;
		all.push(is);
	}
	return all;
}

function ofText(text: string, kind: Field['kind'] | undefined): FieldValue {
	if (text.trim() === '') return null;
	switch (kind) {
		case 'number':
			return Number.isFinite(Number(text)) ? Number(text) : text;
		case 'flag':
			return /^(?:true|yes|on|1)$/i.test(text) ? true : /^(?:false|no|off|0)$/i.test(text) ? false : text;
		case 'list':
			return text
				.split(/[\n,]/)
				.map((one) => one.trim())
				.filter(Boolean);
		case 'picture':
			return { src: text.trim() };
		default:
			return text;
	}
}

/** A picture, or a person. */
function ofThing(value: unknown): PictureMention | Person | undefined {
	if (typeof value !== 'object' || value === null) return undefined;
	const { src, alt, name, handle, address } = value as Readonly<Record<string, unknown>>;
	const text = (one: unknown) => (typeof one === 'string' ? one.slice(0, MOST.text) : undefined);
	const [source, called] = [text(src), text(name)];
	if (source !== undefined) return { src: source, ...optional({ alt: text(alt) }) };
	return called === undefined
		? undefined
		: { name: called, ...optional({ handle: text(handle), address: text(address) }) };
}

const optional = <T extends object>(all: T) =>
	Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)) as {
		[K in keyof T]?: NonNullable<T[K]>;
	};
