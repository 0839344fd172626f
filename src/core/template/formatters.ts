import { FALLBACK_LANGUAGE, isLanguageTag, withData } from '../text/text';

/** Formatters, and names of months and days, cost far more to make than to use; data from outside could ask for any number. */
const MOST_KEPT = 2000;
const kept = new Map<string, unknown>();

export function keep<T>(key: string, make: () => T): T {
	let made = kept.get(key) as T | undefined;
	if (made === undefined) {
		if (kept.size >= MOST_KEPT) kept.clear();
		kept.set(key, (made = make()));
	}
	return made;
}

/** The language itself when it is a known one, else English: a bad tag in data from outside must not throw. */
export const safeLanguage = (language: string): string =>
	keep(`language ${language}`, () => (isLanguageTag(language) && language !== 'und' ? language : FALLBACK_LANGUAGE));

export const numberFormat = (language: string, options: Intl.NumberFormatOptions) =>
	keep(
		`number ${language} ${JSON.stringify(options)}`,
		() => new Intl.NumberFormat(withData(Intl.NumberFormat, language), options)
	);

export const pluralRules = (language: string) =>
	keep(`plural ${language}`, () => new Intl.PluralRules(withData(Intl.PluralRules, language)));

export const listFormat = (language: string) =>
	keep(`list ${language}`, () => new Intl.ListFormat(withData(Intl.ListFormat, language), { type: 'conjunction' }));

/** In UTC, by the Gregorian calendar and with Latin digits: the patterns name the fields themselves. */
export const dateFormat = (language: string, options: Intl.DateTimeFormatOptions) =>
	keep(
		`date ${language} ${JSON.stringify(options)}`,
		() =>
			new Intl.DateTimeFormat(withData(Intl.DateTimeFormat, language), {
				...options,
				...{ timeZone: 'UTC', calendar: 'gregory', numberingSystem: 'latn' }
			})
	);
