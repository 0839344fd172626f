import type { Sharp } from 'sharp';
import { sharp } from '../files/sharp';
import { measureCut, MOST_BYTES, type Cut, type IconFile } from '$core';

/** Tried one after the other until the file is light enough; the last stands whatever it weighs. */
export const QUALITIES = [86, 76, 66, 54, 42, 30];
/** Four bits a pixel, as with sixteen colours, are light enough whatever it shows. */
export const COLOURS = [64, 16];

/** Cuts a picture of the library, and writes it in its form, under the byte limit of readers. The same cut gives the same bytes. */
export async function writeCut(file: string, cut: Cut): Promise<Buffer> {
	const master = sharp(file);
	const { width, height } = await master.metadata();
	const to = measureCut(cut, { width, height });
	let picture = master.extract(to.box);
	if (to.width !== to.box.width || to.height !== to.box.height)
		picture = picture.resize(to.width, to.height, { fit: 'fill' });
	if (cut.play) picture = picture.composite([{ input: playMark(to.width, to.height), gravity: 'centre' }]);
	return lightEnough(await picture.png({ compressionLevel: 0 }).toBuffer(), cut.format);
}

async function lightEnough(pixels: Buffer, format: Cut['format']): Promise<Buffer> {
	let bytes: Buffer | undefined;
	for (const write of writersOf(format)) {
		bytes = await write(sharp(pixels)).toBuffer();
		if (bytes.length <= MOST_BYTES) break;
	}
	return bytes as Buffer;
}

function writersOf(format: Cut['format']): ((picture: Sharp) => Sharp)[] {
	if (format === 'webp') return QUALITIES.map((quality) => (picture) => picture.webp({ quality }));
	if (format === 'jpeg')
		return QUALITIES.map((quality) => (picture) => picture.flatten({ background: '#fff' }).jpeg({ quality }));
	return [
		(picture) => picture.png({ compressionLevel: 9 }),
		...COLOURS.map((colours) => (picture: Sharp) => picture.png({ palette: true, colours, effort: 1, dither: 0 }))
	];
}

/** The mark that says "this moves": a sail in a ring, a sixth of the shorter side. */
function playMark(width: number, height: number): Buffer {
	const side = Math.max(8, Math.round(Math.min(width, height) / 4));
	return Buffer.from(
		`<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}" viewBox="0 0 100 100">${PLAY_SHAPES}</svg>`
	);
}

/** In a box of 100 by 100. */
export const PLAY_SHAPES =
	'<circle cx="50" cy="50" r="46" fill="#101817" fill-opacity="0.62"/><circle cx="50" cy="50" r="43" fill="none" stroke="#fff" stroke-width="4"/><path d="M40 29 L74 50 L40 71 Z" fill="#fff" stroke="#fff" stroke-width="5" stroke-linejoin="round"/>';

/** How much of a `safe` icon its picture takes: whatever outline it is cut to, it stays whole. */
export const SAFE_SHARE = 0.7;
const WHITE = '#ffffff';

/** One size of an icon, as PNG. */
export async function writeIcon(file: string, { size, ground }: IconFile): Promise<Buffer> {
	const inner = ground === 'safe' ? Math.round(size * SAFE_SHARE) : size;
	const edge = size - inner;
	let picture = sharp(await sharp(file).resize(inner, inner, { kernel: 'lanczos3' }).png().toBuffer());
	if (edge > 0) {
		const before = Math.floor(edge / 2);
		const after = edge - before;
		picture = picture.extend({ top: before, left: before, bottom: after, right: after, background: WHITE });
	}
	if (ground !== 'clear') picture = picture.flatten({ background: WHITE });
	return picture.png({ compressionLevel: 9 }).toBuffer();
}
