import { canonicalLanguage } from '$core';

/**
 * The language that the place of a file tells: a suffix (`page.fr.html`, `page.html.fr`), or a folder named by a language
 * among others that are (`fr/page.html`). Undefined where nothing tells it: a guess would be stated to everyone.
 */
export type LanguageOfFile = (path: string) => string | undefined;

/** This share of the folders beside each other must be named by languages, and at least two, before one is taken for that. */
const LANGUAGE_FOLDERS = 0.6;

/** Looks at all paths of a folder together: one folder called `is` is no language, six beside `fr` and `de` are. */
export function languagesOfFiles(paths: Iterable<string>): LanguageOfFile {
	/** The names of the folders in each folder. */
	const folders = new Map<string, Set<string>>();
	/** How many files there are of a page, by its name without the language. */
	const versions = new Map<string, number>();
	for (const path of paths) {
		const [, stem, language, ending] = SUFFIX.exec(path) ?? [];
		const plain = stem !== undefined && languageNamed(language as string) ? stem + ending : path;
		versions.set(plain, (versions.get(plain) ?? 0) + 1);
		const parts = path.split('/');
		for (let depth = 0; depth < parts.length - 1; depth++) {
			const parent = parts.slice(0, depth).join('/');
			let names = folders.get(parent);
			if (!names) folders.set(parent, (names = new Set()));
			names.add(parts[depth] as string);
		}
	}
	const telling = new Set<string>();
	for (const [parent, names] of folders) {
		const languages = [...names].filter(languageNamed).length;
		if (languages >= 2 && languages >= names.size * LANGUAGE_FOLDERS) telling.add(parent);
	}
	return (path) => {
		const parts = path.split('/');
		const behind = SUFFIX_BEHIND.exec(path)?.[2];
		const inside = SUFFIX.exec(path);
		// `parser.pl.html` is the view of a program, unless the page stands there in another language too.
		const isVersion = inside !== null && (versions.get(inside[1] + (inside[3] as string)) ?? 0) >= 2;
		const suffix = behind ?? (isVersion ? inside[2] : undefined);
		const bySuffix = suffix === undefined ? undefined : languageNamed(suffix);
		if (bySuffix) return bySuffix;
		for (let depth = parts.length - 2; depth >= 0; depth--)
			if (telling.has(parts.slice(0, depth).join('/'))) {
				const language = languageNamed(parts[depth] as string);
				if (language) return language;
			}
		return undefined;
	};
}

/** A page's name, a language as tags write it (`NA` is a name like any other), and its ending. */
const SUFFIX = /^(.+)\.([a-z]{2}(?:[-_][A-Za-z]{2,4})?)(\.x?html?)$/;
const SUFFIX_BEHIND = /^(.+\.x?html?)\.([a-z]{2}(?:[-_][A-Za-z]{2,4})?)$/;

const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });

/** The language tag (BCP 47) that a name is, where it is one of a language that has a name. */
function languageNamed(name: string): string | undefined {
	if (!/^[A-Za-z]{2}([-_][A-Za-z]{4})?([-_]([A-Za-z]{2}|\d{3}))?$/.test(name)) return undefined;
	const tag = canonicalLanguage(name.replaceAll('_', '-'));
	return tag !== undefined && names.of(tag.split('-')[0] as string) !== undefined ? tag : undefined;
}

/**
 * What the versions of a page in several languages have in common: its path without the language in its name or its
 * folders; a path that names none stands for itself.
 */
export function versionOf(path: string): string {
	const behind = SUFFIX_BEHIND.exec(path);
	if (behind && languageNamed(behind[2] as string)) return behind[1] as string;
	const inside = SUFFIX.exec(path);
	if (inside && languageNamed(inside[2] as string)) return (inside[1] as string) + (inside[3] as string);
	const parts = path.split('/');
	const at = parts.slice(0, -1).findIndex((part) => languageNamed(part) !== undefined);
	return at < 0 ? path : parts.toSpliced(at, 1).join('/');
}
