import { stat } from 'node:fs/promises';
import type { Picture } from '$core';
import { MEDIA_TYPES } from './mediaTypes';
import { sharp } from './sharp';

/** The reader of pictures calls AVIF by what it is packed in. */
const TYPES: typeof MEDIA_TYPES = { ...MEDIA_TYPES, heif: 'image/avif' };

/**
 * What a file, by its path or its bytes, is; read from the bytes and never from a name: media type, size in pixels as shown (turned as its
 * orientation says), size in bytes. Undefined when it is no picture.
 */
export async function readPictureFacts(file: string | Buffer): Promise<Omit<Picture, 'src'> | undefined> {
	try {
		const [size, facts] = await Promise.all([
			typeof file === 'string' ? stat(file).then((found) => found.size) : file.length,
			sharp(file, { limitInputPixels: 200_000_000 }).metadata()
		]);
		const type = TYPES[facts.format];
		if (!type || !facts.width || !facts.height) return undefined;
		const turned = (facts.orientation ?? 1) >= 5;
		const height = facts.pageHeight ?? facts.height;
		return { ...(turned ? { width: height, height: facts.width } : { width: facts.width, height }), bytes: size, type };
	} catch {
		return undefined;
	}
}

/** Whether a picture moves: it has several frames, or is a PNG that says so before its first image data (PNG, 11.3.2). */
export async function isAnimated(picture: Buffer): Promise<boolean> {
	const start = picture.toString('latin1', 0, 12);
	if (start.startsWith('\x89PNG')) {
		const control = picture.indexOf('acTL');
		return control > 0 && control < picture.indexOf('IDAT');
	}
	if (!start.startsWith('GIF8') && !start.endsWith('WEBP')) return false;
	try {
		const { pages = 1 } = await sharp(picture, { limitInputPixels: 200_000_000 }).metadata();
		return pages > 1;
	} catch {
		return false;
	}
}
