/** A box to cut from a picture, in its pixels. */
export interface CropBox {
	readonly left: number;
	readonly top: number;
	readonly width: number;
	readonly height: number;
}

/**
 * The largest box of a wanted shape (width divided by height) that lies in a picture, as near to centred on the focus
 * point as its edges allow; with a zoom above 1, smaller by that. Whole pixels, never outside, never empty.
 */
export function cropBox(
	width: number,
	height: number,
	shape: number,
	focus: readonly [number, number] = [0.5, 0.5],
	zoom = 1
): CropBox {
	const isWide = width / height > shape;
	const side = (fitting: number, most: number) => Math.min(most, Math.max(1, Math.round(fitting / zoom)));
	const boxWidth = side(isWide ? height * shape : width, width);
	const boxHeight = side(isWide ? height : width / shape, height);
	const place = (whole: number, part: number, at: number) =>
		Math.min(whole - part, Math.max(0, Math.round(whole * Math.min(1, Math.max(0, at)) - part / 2)));
	return {
		left: place(width, boxWidth, focus[0]),
		top: place(height, boxHeight, focus[1]),
		width: boxWidth,
		height: boxHeight
	};
}
