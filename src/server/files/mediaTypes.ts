/** Media types of pictures, by what their form is called. */
export const MEDIA_TYPES: Readonly<Record<string, string>> = {
	jpeg: 'image/jpeg',
	png: 'image/png',
	webp: 'image/webp',
	gif: 'image/gif',
	svg: 'image/svg+xml',
	avif: 'image/avif',
	tiff: 'image/tiff'
};
