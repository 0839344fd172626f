import picomatch from 'picomatch';
import { canonicalLanguage, nearestName } from '$core';
import { refuse } from '../errors';
import { NO_TRIMS, type TitleTrims } from './titles';

/** What is said about reading a folder; kept with the site for the next reading. */
export interface FolderSource {
	readonly folder: string;
	/** Files that are no pages of the site, by patterns such as `src/**`. */
	readonly ignore: readonly string[];
	/** Which files are of which type: the first pattern that fits decides. */
	readonly types: readonly { readonly pattern: string; readonly type: string }[];
	/** Which files are in which language, where a person says so: it goes before all else. */
	readonly languages: readonly { readonly pattern: string; readonly language: string }[];
	readonly trims: TitleTrims;
	/** Pages of one name in several languages are kept as alternates of each other. */
	readonly link: boolean;
	/** Addresses leave out the ending `.html`. */
	readonly bare: boolean;
	/** What a program wrote of each page by a formula is taken as its author's words. */
	readonly keepFormulas: boolean;
}

export const PLAIN_SOURCE: Omit<FolderSource, 'folder'> = {
	ignore: [],
	types: [],
	languages: [],
	trims: NO_TRIMS,
	link: false,
	bare: false,
	keepFormulas: false
};

const matcher = (pattern: string) => picomatch(pattern, { basename: !pattern.includes('/'), dot: true });

/** Which files are left out. */
export function ignorer({ ignore }: Pick<FolderSource, 'ignore'>): (path: string) => boolean {
	const fits = ignore.map(matcher);
	return (path) => fits.some((one) => one(path));
}

/**
 * The type of a file by the patterns, and its language. A pattern that fits no file is an error, nobody means that; but
 * one that was `known` before may have lost its files.
 */
export function sorterOf(
	{ types, languages }: FolderSource,
	paths: readonly string[],
	known: FolderSource | undefined
) {
	const before = new Set([...(known?.types ?? []), ...(known?.languages ?? [])].map(({ pattern }) => pattern));
	const typed = types.map(({ pattern, type }) => ({ pattern, fits: matcher(pattern), type }));
	const spoken = languages.map(({ pattern, language }) => ({ pattern, fits: matcher(pattern), language }));
	for (const { pattern, fits } of [...typed, ...spoken])
		if (!before.has(pattern) && !paths.some((path) => fits(path)))
			throw refuse('pattern-fits-none', { why: noneFits(pattern, paths) });
	return {
		typeOf: (path: string) => typed.find(({ fits }) => fits(path))?.type,
		languageOf: (path: string) => spoken.find(({ fits }) => fits(path))?.language
	};
}

function noneFits(pattern: string, paths: readonly string[]): string {
	const whole = paths.filter((path) => matcher(`**/${pattern}`)(path));
	if (whole.length > 0)
		return `The pattern “${pattern}” fits no file. “**/${pattern}” would fit ${whole.length}, such as ${whole[0]}.`;
	const folders = new Set(paths.flatMap((path) => path.split('/').slice(0, -1)));
	const [first = ''] = pattern.split(/[*?{]/);
	const near = nearestName(first.split('/').filter(Boolean).at(-1) ?? first, [...folders]);
	return `The pattern “${pattern}” fits no file.${near ? ` There is a folder “${near}”.` : ` The first file is ${paths[0]}.`}`;
}

/** Reads `pattern=language`. Throws a `UserError` when the language is none. */
export function languagePattern(text: string): FolderSource['languages'][number] {
	const at = text.lastIndexOf('=');
	const language = canonicalLanguage(text.slice(at + 1).trim());
	if (at < 1 || !language) throw refuse('pattern-broken', { text });
	return { pattern: text.slice(0, at), language };
}
