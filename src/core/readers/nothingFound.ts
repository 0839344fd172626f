import { ALL_READERS } from './profiles';

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
	if (readers.length === 0) return 'No reader looked at it.';
	if (without.length > 0)
		return `No fault was found, but not all could be looked at: no card in ${without.join(', ')}.`;
	if (isPictured && !picture?.facts) return 'No fault was found in the tags; the picture could not be looked at.';
	return unseen > 0
		? `No fault was found, but ${unseen === 1 ? 'one of its pictures was' : `${unseen} of its pictures were`} not looked at.`
		: 'Nothing is wrong with what is served.';
}

const nameOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)?.name ?? id;
