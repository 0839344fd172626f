import { wording } from '$ui/words/en/settings';
import { PAGE_FIELDS, type ContentType, type Field, type FieldKind, type FieldValue, type Page } from '$core';

/** Texts that people write into the fields of a page, and the values they stand for. */

/** A number as either mark for decimals writes it; undefined for none. */
export function numberOf(text: string): number | undefined {
	const plain = text.trim().replaceAll(/[\s\u00a0\u202f’']/g, '');
	if (!/^[+-]?\d+(?:[.,]\d+)?$/.test(plain)) return undefined;
	return Number(plain.replace(',', '.'));
}

/** The lines that say something; undefined for none. */
export function listOf(text: string): string[] | undefined {
	const lines = text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
	return lines.length > 0 ? lines : undefined;
}

/** A date taken apart: its day and time as the fields of the browser write them. Empty where it is none. */
export function dateOf(text: string): { readonly day: string; readonly time: string; readonly offset?: string } {
	const found = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2})(?::\d{2}(?:\.\d+)?)?\s*(Z|[+-]\d{2}:?\d{2})?)?$/i.exec(
		text.trim()
	);
	if (!found) return { day: '', time: '' };
	return { day: found[1] as string, time: found[2] ?? '', ...(found[3] && { offset: found[3] }) };
}

/** Put together again; undefined without a day. */
export function joinDate(day: string, time: string, offset: string | undefined): string | undefined {
	if (day === '') return undefined;
	return time === '' ? day : `${day}T${time}${offset ?? ''}`;
}

/** Why a text is no address that a tag could carry, in a sentence; undefined for one that is. */
export function whyNotLink(text: string): string | undefined {
	if (text.startsWith('/') && !/\s/.test(text)) return undefined;
	try {
		const { protocol } = new URL(text);
		return protocol === 'http:' || protocol === 'https:' ? undefined : wording.isNoHttpOrHttpsAddressNo(text);
	} catch {
		return wording.isNoAddressWriteItWithHttps(text);
	}
}

/** Why a picture's path or address, as a page or a site names it, gives no picture to any card; undefined where it may. */
export function whyNotPicture(text: string): string | undefined {
	try {
		const { protocol } = new URL(text, 'https://site.example/');
		return protocol === 'http:' || protocol === 'https:' ? undefined : wording.isNoHttpOrHttpsAddressNo2(text);
	} catch {
		return wording.isNoAddressWriteAPathSuch(text);
	}
}

/** What an editor looks for first. */
const FIRST = ['title', 'summary', 'picture'];

/**
 * The fields of a page in the order of the work: what cards show, what its type declares, what every page has, and what
 * came with it that nobody declares.
 */
export function fieldsOfPage(
	type: Pick<ContentType, 'fields'> | undefined,
	page: Pick<Page, 'fields'>
): { readonly field: Field; readonly isOwn: boolean }[] {
	const declared = new Map((type?.fields ?? []).map((field) => [field.name, field]));
	const shared = PAGE_FIELDS.filter(({ name }) => !declared.has(name));
	const isFirst = ({ name }: Field) => FIRST.includes(name);
	const known = new Set([...declared.keys(), ...shared.map(({ name }) => name)]);
	const others = Object.keys(page.fields)
		.filter((name) => !known.has(name))
		.map((name): Field => ({ name, kind: kindOf(page.fields[name]) }));
	return [
		...shared.filter(isFirst).map((field) => ({ field, isOwn: false })),
		...[...declared.values()].map((field) => ({ field, isOwn: true })),
		...[...shared.filter((field) => !isFirst(field)), ...others].map((field) => ({ field, isOwn: false }))
	];
}

/** The kind of a field that nobody declares, by what it holds. */
function kindOf(value: FieldValue | undefined): Field['kind'] {
	if (typeof value === 'number') return 'number';
	if (typeof value === 'boolean') return 'flag';
	if (Array.isArray(value)) return value.some((one) => typeof one === 'object') ? 'pictures' : 'list';
	if (typeof value === 'object' && value !== null) return 'src' in value ? 'picture' : 'person';
	return 'text';
}

/** Whether a text can be the name of a piece or of words. */
export const isOwnName = (text: string) => /^[A-Za-z_][\w-]{0,60}$/.test(text);

/** How the values of a kind get words; undefined where they get none. */
export const wordedKind = (kind: FieldKind): 'choice' | 'flag' | 'number' | undefined =>
	kind === 'flag' || kind === 'number' ? kind : kind === 'choice' || kind === 'list' ? 'choice' : undefined;

/** Kinds of fields in words. */
export const kindNames = (): Readonly<Record<FieldKind, string>> => ({
	text: wording.kindText,
	rich: wording.textWithMarkup,
	number: wording.kindNumber,
	date: wording.dateAndTime,
	choice: wording.oneOfAFew,
	people: wording.kindPeople,
	page: wording.anotherPage,
	pages: wording.otherPages,
	flag: wording.yesOrNo,
	link: wording.kindLink,
	list: wording.kindList,
	picture: wording.kindPicture,
	pictures: wording.kindPictures,
	person: wording.kindPerson
});
