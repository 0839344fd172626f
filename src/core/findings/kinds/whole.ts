import { ENGLISH_REASONS, type NoPlace } from '../../readers/reasons';
import { kind } from './kind';

/** What is asked of pages that have something in common. */
export interface Shared {
	readonly value: string;
	readonly pages: number;
}

const { noPlace } = ENGLISH_REASONS;

const many = (pages: number) => `${pages.toLocaleString('en')} pages`;

let names: Intl.DisplayNames | undefined;
/** A language in words; its tag where it has none. */
function nameOfLanguage(tag: string): string {
	try {
		return (names ??= new Intl.DisplayNames('en', { type: 'language', fallback: 'code' })).of(tag) ?? tag;
	} catch {
		return tag;
	}
}

/** What only all pages together show. */
export const WHOLE_KINDS = {
	'shared-title': kind<Shared>(
		4,
		({ value, pages }) => `${many(pages)} have the title “${value}”`,
		() => 'Let the title template say what sets them apart, such as {page.section}.'
	),
	'shared-description': kind<Shared>(
		3,
		({ value, pages }) => `${many(pages)} have the description “${value.slice(0, 80)}”`,
		() => 'Give them summaries of their own, or let the description template say what sets them apart.'
	),
	'shared-picture': kind<Shared>(
		2,
		({ pages }) => `${many(pages)} show the same picture`,
		() => 'Give the type a default picture of its own, or let its share pictures be made from the page.'
	),
	'version-nowhere': kind<{
		readonly path: string;
		readonly language: string;
		readonly to: string;
		readonly why: NoPlace;
	}>(
		5,
		({ path, language, to, why }) => `The ${language} version of ${path} leads to ${to}, which ${noPlace(why)}`,
		() => 'Name the page that is the version, or take the version away.',
		({ language, why }) => `The ${language} version leads to what ${noPlace(why)}`
	),
	'version-one-way': kind<{ readonly path: string; readonly language: string; readonly to: string }>(
		3,
		({ path, language, to }) => `${path} names ${to} as its ${language} version, and is not named back`,
		() => 'Name it back: readers take versions only where both pages agree.',
		({ language }) => `A ${language} version is named, and does not name back`
	),
	'canonical-nowhere': kind<{ readonly path: string; readonly to: string; readonly why: NoPlace }>(
		6,
		({ path, to, why }) => `${path} says that it stands at ${to}, which ${noPlace(why)}`,
		() => 'Take the canonical rule away, or let it name a page that is there.',
		({ why }) => `The canonical address ${noPlace(why)}`
	),
	'redirect-nowhere': kind<{ readonly path: string; readonly to: string }>(
		4,
		({ path, to }) => `What was at ${path} leads to ${to}, where no page is`,
		() => 'Let it lead to a page that is there.'
	),
	'key-no-picture': kind<{ readonly path: string }>(
		5,
		({ path }) => `The key page ${path} has no picture of its own`,
		() => 'Choose a picture at the page.'
	),
	'words-elsewhere': kind<{
		readonly tag: string;
		/** Where the template stands, in words: `every reserve`, `the whole site`. */
		readonly of: string;
		readonly words: string;
		readonly language: string;
		readonly pages: number;
		/** More pages than were looked at have the language. */
		readonly isMore: boolean;
		/** A rule for that language is there, and says the same words still. */
		readonly isBegun: boolean;
	}>(
		4,
		({ tag, of, words, language, pages, isMore, isBegun }) =>
			isBegun
				? `The ${tag} of ${of} for pages in ${nameOfLanguage(language)} still says “${words}”, as the one for all languages does`
				: `The ${tag} of ${of} says “${words}” in words of its own, and ${isMore ? 'at least ' : ''}${pages === 1 ? 'one page' : many(pages)} in ${nameOfLanguage(language)} ${pages === 1 ? 'goes' : 'go'} out with it`,
		({ language, isBegun }) =>
			isBegun
				? `Translate its words into ${nameOfLanguage(language)} there.`
				: `Write a rule for ${nameOfLanguage(language)} there: it is begun with the words to translate.`
	),
	'target-twice': kind<Shared>(
		3,
		({ value, pages }) => `${many(pages)} are to be found by “${value}”`,
		() => 'Leave the phrase to one of them: they stand in each other’s way.'
	)
};
