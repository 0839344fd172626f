import { READERS } from './profiles';

/** What of a probe tells whether all was looked at. */
export interface Looked {
	readonly readers: readonly { readonly reader: string; readonly card?: { readonly picture?: unknown } | undefined }[];
	readonly picture: { readonly facts: unknown } | undefined;
}

/** What it means that nothing was found: every reader must have made a card, of a picture that was fetched. */
export function nothingFound({ readers, picture }: Looked): string {
	const without = readers.filter(({ card }) => !card).map(({ reader }) => nameOf(reader));
	const isPictured = readers.some(({ card }) => card?.picture);
	if (readers.length === 0) return 'No reader looked at it.';
	if (without.length > 0)
		return `No fault was found, but not all could be looked at: no card in ${without.join(', ')}.`;
	return isPictured && !picture?.facts
		? 'No fault was found in the tags; the picture could not be looked at.'
		: 'Nothing is wrong with what is served.';
}

const nameOf = (id: string) => READERS.find((reader) => reader.id === id)?.name ?? id;
