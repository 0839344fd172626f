import Negotiator from 'negotiator';
import { ALL_SPOKEN, type Spoken } from '$core';

/**
 * The language of whoever asks: as chosen, else the one of ours that the browser likes best (`Accept-Language`, RFC 9110,
 * 12.5.4), a region of it being as good; the first where it likes none.
 */
export function languageFor(chosen: string | undefined, accepted: string | null): Spoken {
	const isChosen = ALL_SPOKEN.find((one) => one === chosen);
	if (isChosen || accepted === null) return isChosen ?? ALL_SPOKEN[0]!;
	// Without their regions: whoever asks for another English is answered in the one that is here.
	const bare = new Map(ALL_SPOKEN.map((one) => [one.split('-')[0]!, one]));
	const [best] = new Negotiator({ headers: { 'accept-language': accepted.slice(0, 1000) } }).languages([
		...bare.keys()
	]);
	return bare.get(best ?? '') ?? ALL_SPOKEN[0]!;
}
