import type { FindingWords } from '../findings/finding';

/** What French sentences on findings are made of. */

type Words<D> = {
	readonly says: (data: D) => string;
	readonly mend: (data: D) => string;
	readonly ofMany?: (data: D) => string;
};
export const words = <D>(
	says: (data: D) => string,
	mend: (data: D) => string,
	ofMany?: (data: D) => string
): Words<D> => ({
	...{ says, mend },
	...(ofMany && { ofMany })
});
export type Data<C extends keyof FindingWords> = Parameters<FindingWords[C]['says']>[0];

const list = new Intl.ListFormat('fr', { type: 'conjunction' });
export const listed = (names: readonly string[]) => list.format(names);
export const many = (pages: number) => `${pages.toLocaleString('fr')} ${pages < 2 ? 'page' : 'pages'}`;
/** Where one reader does a thing, or several do. */
export const by = (readers: readonly unknown[], one: string, more: string) => (readers.length === 1 ? one : more);
export const kilobytes = (bytes: number) => `${Math.round(bytes / 1000).toLocaleString('fr')} ko`;
export const inThe = (tag: string) => (tag === 'description' ? 'la description' : tag === 'title' ? 'le titre' : tag);
const languages = new Intl.DisplayNames('fr', { type: 'language', fallback: 'code' });
export function nameOfLanguage(tag: string): string {
	try {
		return languages.of(tag) ?? tag;
	} catch {
		return tag;
	}
}
export const atStart = (tag: string) => (tag === 'description' ? 'La description' : tag === 'title' ? 'Le titre' : tag);
export const TAKE_ANOTHER = () =>
	'Prenez une autre image, ou placez-en une qui convient avant elle dans la liste des sources.';
export const MOVE_POINT = () => 'Déplacez le point qui reste visible, ou le format seul.';
