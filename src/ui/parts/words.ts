import { sizeAsSent, type Picture } from '$core';
import { hasTyped } from './shown/typed';
export type { Families } from '$core';

/** A layer that a person can write at. */
export type EditableLayer = 'page' | 'type' | 'site';

/** Which layer decides when this one says nothing. */
export const describeBase = (layer: EditableLayer) =>
	layer === 'page' ? 'Else its type decides, then the site.' : layer === 'type' ? 'Else the site decides.' : '';

const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' });
/** A language by its tag, in words; the tag itself where it is none that is known. */
export function languageName(tag: string): string {
	try {
		return (tag && tag !== 'und' && names.of(tag)) || tag || 'no language';
	} catch {
		return tag;
	}
}

/** A count of pages in words. */
export const pagesInWords = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;

/** The server that stands in for a site that is not on the net. */
export type StandIn = { readonly base: string; readonly origin: string } | null;

/**
 * Where a picture of the site can be fetched from now: those of the library from Kephalon itself, others from the
 * stand-in's server, if there is one.
 */
export function fetchable(address: string, base: string, standIn: StandIn): string {
	if (address.startsWith(`${base}media/`)) return `/${address.slice(base.length)}`;
	return standIn && address.startsWith(standIn.base)
		? `${standIn.origin}/${address.slice(standIn.base.length)}`
		: address;
}

/** What the layer of a type is called; one whose pages are called pages is not every page. */
export const everyInWords = (label: string): string =>
	/^pages?$/i.test(label) ? `Pages of the type “${label.toLowerCase()}”` : `Every ${label.toLowerCase()}`;

/** What a picture is, on one line: size, form, weight, and where it stands. */
export function factsInWords({ width, height, type, bytes, name, src, animated, alpha }: Picture): string {
	return [
		name ?? src.split('/').at(-1),
		width && height ? `${width.toLocaleString('en')} × ${height.toLocaleString('en')} px` : 'size not known',
		type?.replace('image/', '').toUpperCase(),
		bytes && `${Math.max(1, Math.round(bytes / 1000)).toLocaleString('en')} kB`,
		animated && 'first frame of an animation',
		alpha && 'transparent in parts'
	]
		.filter(Boolean)
		.join(' · ');
}

/** What becomes of a picture of the library that is larger than readers use; undefined of others. */
export function sentInWords(picture: Picture): string | undefined {
	const sent = sizeAsSent(picture);
	if (!sent) return undefined;
	const size = ({ width = 0, height = 0 }: Pick<Picture, 'width' | 'height'>) =>
		`${width.toLocaleString('en')} × ${height.toLocaleString('en')}`;
	return sent.width === picture.width
		? 'It is heavier than readers fetch: it goes out lighter, and is kept as it is to be cut from.'
		: `It is ${size(picture)}, more than any reader shows: it goes out at ${size(sent)}, and is kept whole to be cut from.`;
}

/** What a picture is called: by its file's name as it came, else by the last part of where it stands. */
export const nameOfPicture = ({ name, alt, src }: Picture): string => name || alt || (src.split('/').at(-1) as string);

/** The pictures whose name, place or words hold all that is looked for. */
export function findPictures(pictures: readonly Picture[], wanted: string): readonly Picture[] {
	return pictures.filter(({ name, src, alt, alts }) => hasTyped(wanted, name, src, alt, ...Object.values(alts ?? {})));
}
