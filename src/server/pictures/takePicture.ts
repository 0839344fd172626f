import type { Metadata } from 'sharp';
import { sharp } from '../files/sharp';
import type { Picture } from '$core';
import { UserError, refuse } from '../errors';
import { looksOf } from './looks';
import { drawVector } from './vector';

/** A picture as the library keeps it: decoded and written anew, so that nothing of the file it came in is left. */
export interface TakenPicture {
	readonly bytes: Buffer;
	readonly extension: 'jpg' | 'png';
	readonly facts: Omit<Picture, 'src'>;
}

/** Files and pictures larger than this are refused. */
export const MAX_BYTES = 20_000_000;
const MAX_PIXELS = 100_000_000;
/** Larger sides (pixels) are brought down to this: no reader of links shows more. */
const MAX_SIDE = 4096;

const FORMATS = new Set(['jpeg', 'png', 'webp', 'gif', 'heif', 'avif', 'tiff', 'svg']);
/** What a vector file may not hold: scripts, what runs by itself, and anything from elsewhere. */
const ACTIVE =
	/<\s*script|<\s*foreignObject|<!ENTITY|\bon[a-z]+\s*=|javascript:|(?:href|src)\s*=\s*(?:["']\s*)?(?!#|data:image\/|\s)[^\s"'>#]/i;

/**
 * Takes a picture in by its bytes; names and types that anyone claims are not looked at. Turned as its orientation
 * says, in sRGB, 8 bits; of an animation the first frame. Throws a `UserError` with the reason when it is refused.
 */
export async function takePicture(bytes: Buffer): Promise<TakenPicture> {
	if (bytes.length === 0) throw refuse('picture-empty');
	if (bytes.length > MAX_BYTES)
		throw refuse('picture-too-heavy', { size: megabytes(bytes.length), most: megabytes(MAX_BYTES) });
	const metadata = await reading(() => sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata());
	refuseFormat(metadata, bytes);
	if (metadata.format !== 'svg') return reading(() => writeAnew(bytes, metadata));
	return reading(async () => {
		const drawn = await drawVector(bytes, { pixels: MAX_PIXELS, side: MAX_SIDE });
		return writeAnew(drawn, { ...(await sharp(drawn).metadata()), format: 'svg' });
	});
}

function refuseFormat({ format, width, height }: Metadata, bytes: Buffer) {
	if (!FORMATS.has(format)) throw refuse('picture-format', { format: format.toUpperCase() });
	if (!width || !height) throw refuse('picture-without-size');
	if (width * height > MAX_PIXELS) throw tooManyPixels();
	if (format === 'svg' && ACTIVE.test(bytes.toString('utf8'))) throw refuse('vector-unsafe');
}

async function writeAnew(bytes: Buffer, metadata: Metadata): Promise<TakenPicture> {
	// The first frame alone, and an error rather than a grey rest for a file that ends too soon.
	const picture = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'truncated', pages: 1 })
		.autoOrient()
		.toColourspace('srgb')
		.resize({ width: MAX_SIDE, height: MAX_SIDE, fit: 'inside', withoutEnlargement: true });
	const isOpaque =
		!metadata.hasAlpha || (await sharp(bytes, { limitInputPixels: MAX_PIXELS, pages: 1 }).stats()).isOpaque;
	const asJpeg = isOpaque && metadata.format !== 'svg';
	const written = asJpeg
		? picture.flatten().jpeg({ quality: 86, mozjpeg: true })
		: picture.png({ compressionLevel: 9 });
	const { data, info } = await written.toBuffer({ resolveWithObject: true });
	return {
		bytes: data,
		extension: asJpeg ? 'jpg' : 'png',
		facts: {
			width: info.width,
			height: info.height,
			bytes: data.length,
			type: asJpeg ? 'image/jpeg' : 'image/png',
			...(!isOpaque && { alpha: true }),
			...((metadata.pages ?? 1) > 1 && metadata.format !== 'tiff' && { animated: true }),
			...(await looksOf(data))
		}
	};
}

const megabytes = (bytes: number) => `${Math.round(bytes / 100_000) / 10} MB`;
const tooManyPixels = () => refuse('picture-too-large', { most: MAX_PIXELS / 1e6 });

/** What the decoder throws, as a sentence. */
async function reading<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof UserError) throw error;
		const message = (error as Error).message;
		if (/pixel limit|exceeds/i.test(message)) throw tooManyPixels();
		if (/unsupported image format|corrupt header|bad seek/i.test(message) && !/premature|truncated/i.test(message))
			throw refuse('picture-unreadable');
		throw refuse('picture-damaged', { why: message.split('\n')[0]! });
	}
}
