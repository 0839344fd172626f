import type { Recipe } from '../pictures/layout';

/** A picture that won, with the facts that travel with it (R6). */
export interface ChosenPicture {
	readonly kind: 'picture';
	/** Absolute address. */
	readonly address: string;
	readonly secure: string | undefined;
	readonly type: string | undefined;
	/** Pixels; both or neither are known. */
	readonly width: number | undefined;
	readonly height: number | undefined;
	readonly alt: string | undefined;
	/** The key it is known by in the site's pictures. */
	readonly src: string;
	/** What a share picture is drawn from. */
	readonly recipe?: Recipe;
}

/** A value with attributes of its own, such as an alternate with its language or an icon with its size. */
export interface Link {
	readonly kind: 'link';
	readonly address: string;
	readonly attributes: Readonly<Record<string, string>>;
}

/** What a tag came to. One text in the common case; a list for repeated tags, pictures and links. */
export type TagValue = string | readonly TagItem[];
export type TagItem = string | ChosenPicture | Link;

/** One item as a text: itself, or the address of a picture or a link. */
export const textOfItem = (item: TagItem): string => (typeof item === 'string' ? item : item.address);

/** A value as one text: the first of several; '' for none. */
export function textOfValue(value: TagValue | undefined): string {
	if (value === undefined || typeof value === 'string') return value ?? '';
	const [first] = value;
	return first === undefined ? '' : textOfItem(first);
}

/** The first picture of a value. */
export function pictureOfValue(value: TagValue | undefined): ChosenPicture | undefined {
	const first = typeof value === 'object' ? value[0] : undefined;
	return typeof first === 'object' && first.kind === 'picture' ? first : undefined;
}
