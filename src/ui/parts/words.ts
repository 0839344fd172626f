import { wording } from '$ui/words/en/parts';
import { counted, spoken } from '$ui/words/speaking';
import { sizeAsSent, type Picture } from '$core';
import { hasTyped } from './shown/typed';
export type { Families } from '$core';

/** A layer that a person can write at. */
export type EditableLayer = 'page' | 'type' | 'site';

/** Which layer decides when this one says nothing. */
export const describeBase = (layer: EditableLayer) =>
	layer === 'page' ? wording.elseItsTypeDecidesThenThe : layer === 'type' ? wording.elseTheSiteDecides : '';

/** A language by its tag, in words; the tag itself where it is none that is known. */
const names = new Map<string, Intl.DisplayNames>();
export function languageName(tag: string): string {
	const language = spoken();
	const inIt = names.get(language) ?? new Intl.DisplayNames([language], { type: 'language', fallback: 'code' });
	names.set(language, inIt);
	try {
		return (tag && tag !== 'und' && inIt.of(tag)) || tag || wording.noLanguage;
	} catch {
		return tag;
	}
}

/** A count of pages in words. */
export const pagesInWords = (count: number) => wording.pages(count, counted(count));

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
	/^pages?$/i.test(label) ? wording.pagesOfTheType(label.toLowerCase()) : wording.every(label.toLowerCase());

/** What a picture is, on one line: size, form, weight, and where it stands. */
export function factsInWords({ width, height, type, bytes, name, src, animated, alpha }: Picture): string {
	return [
		name ?? src.split('/').at(-1),
		width && height ? `${counted(width)} × ${counted(height)} px` : wording.sizeNotKnown,
		type?.replace('image/', '').toUpperCase(),
		bytes && wording.kb(counted(Math.max(1, Math.round(bytes / 1000)))),
		animated && wording.firstFrameOfAnAnimation,
		alpha && wording.transparentInParts
	]
		.filter(Boolean)
		.join(' · ');
}

/** What becomes of a picture of the library that is larger than readers use; undefined of others. */
export function sentInWords(picture: Picture): string | undefined {
	const sent = sizeAsSent(picture);
	if (!sent) return undefined;
	const size = ({ width = 0, height = 0 }: Pick<Picture, 'width' | 'height'>) =>
		`${counted(width)} × ${counted(height)}`;
	return sent.width === picture.width
		? wording.itIsHeavierThanReadersFetch
		: wording.itIsMoreThanAnyReaderShows(size(picture), size(sent));
}

/** What a picture is called: by its file's name as it came, else by the last part of where it stands. */
export const nameOfPicture = ({ name, alt, src }: Picture): string => name || alt || (src.split('/').at(-1) as string);

/** The pictures whose name, place or words hold all that is looked for. */
export function findPictures(pictures: readonly Picture[], wanted: string): readonly Picture[] {
	return pictures.filter(({ name, src, alt, alts }) => hasTyped(wanted, name, src, alt, ...Object.values(alts ?? {})));
}
