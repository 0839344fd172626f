/** How light colours and pictures are. The light of a picture is known in this many cells across, and as many down. */
export const LIGHT_CELLS = 8;

/** sRGB's curve (IEC 61966-2-1), from 0 to 255 to a linear share, and back. */
export const linear = (value: number) => {
	const share = value / 255;
	return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};
export const greyOf = (share: number) =>
	255 * (share <= 0.0031308 ? share * 12.92 : 1.055 * share ** (1 / 2.4) - 0.055);

/** The relative luminance of a colour `#rrggbb`, from 0 to 1 (WCAG 2.2), or of a mixture of two as screens mix them. */
export function luminanceOf(colour: string, other = colour, share = 0): number {
	const part = (of: string, at: number) => Number.parseInt(of.slice(at, at + 2), 16);
	const at = (place: number) => linear(part(colour, place) * (1 - share) + part(other, place) * share);
	return 0.2126 * at(1) + 0.7152 * at(3) + 0.0722 * at(5);
}

/** Worked out at so many steps of the way; between two the light is as good as a straight line. */
const STEPS = 256;
/** So many gradients are known at a time: the pages of a type share theirs. */
const MOST_KNOWN = 64;
const known = new Map<string, Float64Array>();

/** The relative luminance along a gradient from one colour `#rrggbb` to another, by the share of its way. */
export function lightAlong(from: string, to: string): (share: number) => number {
	const key = from + to;
	let lights = known.get(key);
	if (!lights) {
		lights = Float64Array.from({ length: STEPS + 1 }, (_, step) => luminanceOf(from, to, step / STEPS));
		if (known.size >= MOST_KNOWN) known.clear();
		known.set(key, lights);
	}
	const steps = lights;
	return (share) => {
		const at = Math.min(1, Math.max(0, share)) * STEPS;
		const before = steps[Math.floor(at)] as number;
		return before + ((steps[Math.ceil(at)] as number) - before) * (at % 1);
	};
}
