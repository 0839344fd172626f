import {
	keptCopyOf,
	measureCut,
	MEDIA_PATH,
	parseUrl,
	readCutName,
	type CropBox,
	type KeptCopy,
	type Picture
} from '$core';
import { fetchable, type StandIn } from '$ui/parts/words';

/** How a picture is shown: an image, and the part of it that is meant. */
export interface Look {
	readonly src: string;
	/** The part, in pixels of the whole, and the size of the whole. */
	readonly part?: { readonly box: CropBox; readonly width: number; readonly height: number };
	/** The mark for video lies over it. */
	readonly play?: boolean;
}

/**
 * How the picture of an address is shown. A cut is shown as that part of the picture it is cut from: while its focus
 * moves, nothing has to be fetched.
 */
export function lookAt(address: string, base: string, standIn: StandIn, pictures: readonly Picture[]): Look {
	const name = address.startsWith(`${base}${MEDIA_PATH.slice(1)}`) ? (address.split('/').at(-1) as string) : '';
	const cut = readCutName(name);
	const kept = cut && keptOfHash(cut.hash, pictures);
	if (!cut || !kept) return { src: fetchable(address, base, standIn) };
	const { box } = measureCut(cut, kept);
	return {
		src: MEDIA_PATH + kept.file,
		...(cut.shape !== 'whole' && { part: { box, width: kept.width, height: kept.height } }),
		...(cut.play && { play: true })
	};
}

function keptOfHash(hash: string, pictures: readonly Picture[]): KeptCopy | undefined {
	for (const picture of pictures) {
		const kept = keptCopyOf(picture);
		if (kept?.file.startsWith(hash)) return kept;
	}
	return undefined;
}

/** Where the whole of a picture can be seen from here. */
export function wholeOf(picture: Picture, base: string, standIn: StandIn): string {
	const kept = keptCopyOf(picture);
	if (kept) return MEDIA_PATH + kept.file;
	return fetchable(parseUrl(picture.src, base)?.href ?? picture.src, base, standIn);
}
