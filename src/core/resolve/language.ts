import type { Page, Site } from '../model';

/** The tag (ISO 639-2) for a language that is not known: nothing is stated of it. */
export const UNKNOWN_LANGUAGE = 'und';

/** The language of a page: its own, else the site's first. What is no text, in data that no check has seen, is none. */
export function languageOf({ language }: Page, { languages }: Site): string {
	return typeof language === 'string' ? language : (languages[0] ?? 'en');
}

/** A language tag and its shorter forms: `pt-BR` gives `pt-br`, `pt`, and '' for what is said for any language (R1). */
export function languageChain(language: string): readonly string[] {
	let chain = chains.get(language);
	if (!chain) {
		const parts = language.toLowerCase().split('-');
		chain = [...parts.map((_, i) => parts.slice(0, parts.length - i).join('-')), ''];
		if (chains.size >= MOST_CHAINS) chains.clear();
		chains.set(language, chain);
	}
	return chain;
}

/** Sites have a handful of languages; data from outside may name any number. */
const MOST_CHAINS = 500;
const chains = new Map<string, readonly string[]>();

/** What a record keyed by language tags says for a language: for the exact one, else for its shorter forms. */
export function inLanguage<T>(
	byTag: Readonly<Record<string, T>> | undefined,
	language: string,
	isSaid: (value: T) => boolean
): T | undefined {
	if (!byTag) return undefined;
	for (const step of languageChain(language)) {
		const value = Object.entries(byTag).find(([one]) => one.toLowerCase() === step)?.[1];
		if (value !== undefined && isSaid(value)) return value;
	}
	return undefined;
}
