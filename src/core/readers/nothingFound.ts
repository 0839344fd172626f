import { ALL_READERS } from './profiles';
import { seenWords } from './seenWords';

/** What of a probe tells whether all was looked at. */
export interface Looked {
	readonly readers: readonly { readonly reader: string; readonly card?: { readonly picture?: unknown } | undefined }[];
	readonly picture: { readonly facts: unknown } | undefined;
	/** So many pictures stand on cards that nobody fetched. */
	readonly unseen: number;
}

/** What it means that nothing was found: every reader must have made a card, of a picture that was fetched. */
export function nothingFound({ readers, picture, unseen }: Looked): string {
	const without = readers.filter(({ card }) => !card).map(({ reader }) => nameOf(reader));
	const isPictured = readers.some(({ card }) => card?.picture);
	const words = seenWords();
	if (readers.length === 0) return words.nobody;
	if (without.length > 0) return words.without(without);
	if (isPictured && !picture?.facts) return words.noPicture;
	return unseen > 0 ? words.unseen(unseen) : words.right;
}

const nameOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)?.name ?? id;
