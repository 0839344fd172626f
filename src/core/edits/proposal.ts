import type { ContentType, Field, Page } from '../model';
import { asNumber } from '../template/filters/spec';
import { isEmpty, isList, ownValue, toText, type Value } from '../template/values';
import { parseDate } from '../template/dates';
import { countGraphemes, settleText } from '../text/text';

/** What some records of a type have in a field. */
interface RecordUse {
	readonly field: Field;
	/** The share of them that have it, 0 to 1. */
	readonly share: number;
	/** Of those that have it: the longest text, in graphemes, and how many say something of their own, 0 to 1. */
	readonly longest: number;
	readonly distinct: number;
	/** Whether all of them are dates, numbers, or codes of currencies. */
	readonly kind: 'date' | 'number' | 'currency' | 'text';
}

/** Counts what the records of a type have in the fields that it declares. */
function usesOfFields(type: ContentType, pages: readonly Page[]): RecordUse[] {
	return type.fields.map((field) => {
		const values = pages.map(({ fields }) => ownValue(fields, field.name)).filter((value) => !isEmpty(value));
		const texts = values.map((value) => settleText(toText(value)));
		const count = Math.max(1, values.length);
		return {
			field,
			share: pages.length === 0 ? 0 : values.length / pages.length,
			longest: Math.max(0, ...texts.map((text) => countGraphemes(text))),
			distinct: new Set(texts).size / count,
			kind: kindOf(values, texts)
		};
	});
}

function kindOf(values: readonly Value[], texts: readonly string[]): RecordUse['kind'] {
	if (values.length === 0 || values.some(isList)) return 'text';
	if (texts.every((text) => /^[A-Z]{3}$/.test(text))) return 'currency';
	if (texts.every((text) => parseDate(text) !== undefined)) return 'date';
	return values.every((value) => typeof value !== 'boolean' && Number.isFinite(asNumber(value))) ? 'number' : 'text';
}

/** A template to begin with, and what of the records speaks for each of its parts. */
export interface Proposal {
	readonly template: string;
	readonly reasons: readonly string[];
}

/** What most records have is taken up; what fewer have is not. */
const MOST_HAVE = 0.5;
/** A text is short where it fits beside a title. */
const SHORT = 28;
/** So many fields are taken up at the most. */
const MOST_PARTS = 3;

/** A part of a template for a field, without the words round it. */
interface Part {
	readonly write: string;
	readonly why: string;
	/** The less, the sooner it is taken up. */
	readonly rank: number;
}

/**
 * A first template for the title or the description of a type, from what its records have. Undefined for other tags, and where
 * nothing but what is built in could be said.
 */
export function proposeTemplate(tag: string, type: ContentType, pages: readonly Page[]): Proposal | undefined {
	const isTitle = /(?:^|:)title$/.test(tag);
	if ((!isTitle && !/(?:^|:)description$/.test(tag)) || pages.length === 0) return undefined;
	const parts = partsOf(usesOfFields(type, pages), isTitle, pages.length)
		.sort((a, b) => a.rank - b.rank)
		.slice(0, MOST_PARTS);
	if (parts.length === 0) return undefined;
	const reasons = parts.map(({ why }) => why);
	if (isTitle) {
		// From the end they go first: what tells pages of a type apart best stands first.
		const stretches = parts.map(({ write }) => `[[ – {${write}}]]`).join('');
		return {
			template: `{fit 60}{page.title}${stretches}[[{goes 1}{separator}{site.name | unless page.title}]]`,
			reasons
		};
	}
	const stretches = parts.map(({ write }) => `[[ {${write}}.]]`).join('');
	return { template: `{fit 155}{page.summary ?? page.title | stop}${stretches}`, reasons };
}

function partsOf(uses: readonly RecordUse[], isTitle: boolean, count: number): Part[] {
	const had = uses.filter(({ share }) => share >= MOST_HAVE);
	const told = ({ field, share }: RecordUse) =>
		`${field.label ?? field.name}: on ${Math.round(share * count)} of ${count}`;
	const dates = had.filter(({ kind }) => kind === 'date');
	const currency = had.find(({ kind }) => kind === 'currency');
	return had.flatMap((use): Part[] => {
		const name = `page.${use.field.name}`;
		if (use.kind === 'currency') return [];
		if (use.kind === 'date') {
			if (use !== dates[0]) return [];
			const last = dates[1] ? ` | to page.${dates[1].field.name}` : '';
			const why = dates[1] ? `${told(use)}, with ${told(dates[1])}` : told(use);
			return [{ write: `${name}${last} | date "${isTitle ? 'medium' : 'long'}"`, why, rank: 1 }];
		}
		if (use.kind === 'number') {
			// A number alone says nothing beside a title, but for a price.
			if (currency && use === had.find(({ kind }) => kind === 'number'))
				return [
					{ write: `${name} | money page.${currency.field.name} "short"`, why: `${told(use)}, in a currency`, rank: 2 }
				];
			return [];
		}
		switch (use.field.kind) {
			case 'page':
				return [{ write: `${name}.title`, why: `${told(use)}, another page`, rank: 0 }];
			case 'pages':
				return isTitle ? [] : [{ write: `${name} | each "title" | some 3`, why: `${told(use)}, other pages`, rank: 3 }];
			case 'list':
			case 'people':
				return isTitle ? [] : [{ write: `${name} | some 3`, why: `${told(use)}, several`, rank: 3 }];
			case 'choice':
				return [{ write: name, why: `${told(use)}, one of a few`, rank: 1 }];
			case 'text':
				if (use.longest > SHORT) return [];
				return use.distinct < 1 || count < 4
					? [{ write: name, why: `${told(use)}, short, shared by several`, rank: 0 }]
					: [];
			default:
				return [];
		}
	});
}
