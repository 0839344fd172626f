import type { Pieces } from '../template/pieces';
import type { ContentType, Field, Site, ValueWords, Words } from '../model';
import { numberFormat, safeLanguage } from '../template/formatters';
import { asNumber } from '../template/filters/spec';
import { isList, toText, type Value } from '../template/values';
import { isBlank } from '../text/text';
import { inLanguage } from './language';

/** The words for a language: for the exact one, its shorter forms, the site's first language, else the first there are. */
export function wordsIn(words: Words | undefined, language: string, first: string): string | undefined {
	if (!words) return undefined;
	const isSaid = (text: string) => typeof text === 'string' && !isBlank(text);
	return inLanguage(words, language, isSaid) ?? inLanguage(words, first, isSaid) ?? Object.values(words).find(isSaid);
}

/** What the fields of a type say for their values. */
export type Said = (field: string, value: Value) => Value;

/** Kept for each list of fields, by the language and the site's first. */
const made = new WeakMap<readonly Field[], Map<string, Said | undefined>>();

/** What is said for the values of a type's fields in a language; undefined where none has words. */
export function saidOf(type: ContentType | undefined, language: string, first: string): Said | undefined {
	const fields = type?.fields;
	if (!fields?.some?.(({ words }) => words && words.length > 0)) return undefined;
	let byLanguage = made.get(fields);
	if (!byLanguage) made.set(fields, (byLanguage = new Map<string, Said | undefined>()));
	const key = `${language} ${first}`;
	let said = byLanguage.get(key);
	if (!said) byLanguage.set(key, (said = makeSaid(fields, language, first)));
	return said;
}

function makeSaid(fields: readonly Field[], language: string, first: string): Said {
	const byName = new Map(fields.flatMap(({ name, words }) => (words?.length ? [[name, words] as const] : [])));
	const sayOne = (all: readonly ValueWords[], value: Value): Value => {
		const found = all.find((one) => isMeant(one, value));
		const text = found && wordsIn(found.words, language, first);
		// A value that no row is meant for stands for itself; one whose row has no words says nothing.
		if (text === undefined) return found ? undefined : value;
		return text.includes('{n}') ? text.replaceAll('{n}', inDigits(value, language)) : text;
	};
	return (field, value) => {
		const all = byName.get(field);
		if (!all) return value;
		return isList(value) ? (value.map((item) => sayOne(all, item)) as Value) : sayOne(all, value);
	};
}

/** A number as the language writes it; what is none as it is. */
function inDigits(value: Value, language: string): string {
	const count = asNumber(value);
	return Number.isFinite(count) ? numberFormat(safeLanguage(language), {}).format(count) : toText(value);
}

/** Whether a row of words is meant for a value. Nothing is the same as `no`. */
export function isMeant({ is, from, to }: ValueWords, value: Value): boolean {
	if (typeof is === 'boolean') return is === isYes(value);
	if (is !== undefined) return typeof is === 'number' ? is === asNumber(value) : is === toText(value);
	const count = asNumber(value);
	if (from === undefined && to === undefined) return false;
	return Number.isFinite(count) && count >= (from ?? -Infinity) && count <= (to ?? Infinity);
}

const isYes = (value: Value) => value === true || value === 'true';

/** Pieces, kept for each site and type: what is made of templates is kept with them. */
const piecesMade = new WeakMap<Site, Map<ContentType | undefined, Pieces | undefined>>();

/** The pieces that templates of a type may use, its own before the site's; undefined where there are none. */
export function piecesFor(site: Site, type: ContentType | undefined): Pieces | undefined {
	if (!site.pieces && !type?.pieces) return undefined;
	let byType = piecesMade.get(site);
	if (!byType) piecesMade.set(site, (byType = new Map<ContentType | undefined, Pieces | undefined>()));
	let pieces = byType.get(type);
	if (!pieces) byType.set(type, (pieces = new Map(Object.entries({ ...site.pieces, ...type?.pieces }).filter(isText))));
	return pieces;
}

/** Data that no check has seen may hold anything. */
const isText = (entry: [string, unknown]): entry is [string, string] => typeof entry[1] === 'string';
