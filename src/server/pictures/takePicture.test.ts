import sharp from 'sharp';
import { beforeAll, describe, expect, test } from 'vitest';
import { takePicture } from './takePicture';

const plain = (width: number, height: number, channels: 3 | 4 = 3) =>
	sharp({ create: { width, height, channels, background: { r: 40, g: 90, b: 120, alpha: channels === 4 ? 0.5 : 1 } } });
const noise = (width: number, height: number) =>
	sharp(Buffer.from(Array.from({ length: width * height * 3 }, (_, i) => (i * 7919) % 251)), {
		raw: { width, height, channels: 3 }
	});

/** A PNG that says it is 40,000 pixels wide and high, and holds next to nothing. */
async function bomb(): Promise<Buffer> {
	const small = await plain(10, 10).png().toBuffer();
	const header = Buffer.from(small);
	header.writeUInt32BE(40_000, 16);
	header.writeUInt32BE(40_000, 20);
	return header;
}
const vector = (inner: string, more = '') =>
	Buffer.from(
		`<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40" ${more}>${inner}<rect width="9" height="9"/></svg>`
	);

const files: Record<string, Buffer> = {};
beforeAll(async () => {
	const jpeg = await noise(300, 200).jpeg().toBuffer();
	files['a photograph'] = jpeg;
	files['turned by its orientation'] = await noise(300, 200).withMetadata({ orientation: 6 }).jpeg().toBuffer();
	files['in CMYK'] = await plain(80, 60).toColourspace('cmyk').jpeg().toBuffer();
	files['of 16 bits'] = await plain(80, 60).toColourspace('rgb16').png().toBuffer();
	files['half transparent'] = await plain(80, 60, 4).png().toBuffer();
	files['with an opaque alpha channel'] = await plain(80, 60).ensureAlpha().png().toBuffer();
	files['very wide'] = await plain(6000, 300).png().toBuffer();
	files['animated'] = await sharp(Buffer.from(Array.from({ length: 20 * 40 * 3 }, (_, i) => (i < 1200 ? 20 : 200))), {
		raw: { width: 20, height: 40, channels: 3, pageHeight: 20 }
	})
		.gif()
		.toBuffer();
	files['a vector file'] = vector('');
	files['truncated'] = jpeg.subarray(0, Math.floor(jpeg.length / 2));
	files['a decompression bomb'] = await bomb();
	files['a zip named .png'] = Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(200, 7)]);
	files['a page'] = Buffer.from('<!doctype html><title>x</title>');
	files['empty'] = Buffer.alloc(0);
	files['too heavy'] = Buffer.alloc(20_000_001, 1);
	files['a vector file with a script'] = vector('<script>alert(1)</script>');
	files['a vector file with a handler'] = vector('', 'onload="x()"');
	files['a vector file that fetches'] = vector('<image href="http://10.0.0.1/x.png" width="9" height="9"/>');
	files['a vector file with an entity'] = Buffer.from(`<!DOCTYPE svg [<!ENTITY x "y">]>${vector('&x;').toString()}`);
});

describe('taken in', () => {
	test.each<[string, string, number, number, object]>([
		['a photograph', 'jpg', 300, 200, {}],
		['turned by its orientation', 'jpg', 200, 300, {}],
		['in CMYK', 'jpg', 80, 60, {}],
		['of 16 bits', 'jpg', 80, 60, {}],
		['half transparent', 'png', 80, 60, { alpha: true }],
		['with an opaque alpha channel', 'jpg', 80, 60, {}],
		['very wide', 'jpg', 4096, 205, {}],
		['animated', 'jpg', 20, 20, { animated: true }],
		['a vector file', 'png', 60, 40, { alpha: true }]
	])('%s as %s, %i by %i', async (name, extension, width, height, more) => {
		const taken = await takePicture(files[name]!);
		const {
			bytes: size,
			type,
			light,
			plain: _plain,
			text: _text,
			faces: _faces,
			focus: _focus,
			...facts
		} = taken.facts;
		expect(light).toMatch(/^[0-9a-f]{128}$/);
		expect([taken.extension, facts]).toEqual([extension, { width, height, ...more }]);
		expect(size).toBe(taken.bytes.length);
		const read = await sharp(taken.bytes).metadata();
		expect([read.width, read.height, read.space, read.depth, read.orientation, read.exif]).toEqual([
			width,
			height,
			'srgb',
			'uchar',
			undefined,
			undefined
		]);
		expect(type).toBe(extension === 'jpg' ? 'image/jpeg' : 'image/png');
	});
	test('the same file gives the same bytes', async () => {
		const [a, b] = await Promise.all([takePicture(files['a photograph']!), takePicture(files['a photograph']!)]);
		expect(a.bytes.equals(b.bytes)).toBe(true);
	});
});

describe('refused with its reason', () => {
	test.each([
		['truncated', /damaged or ends too soon/],
		['a decompression bomb', /more than 100 million pixels/],
		['a zip named .png', /no picture that can be read/],
		['a page', /no picture that can be read/],
		['empty', /The file is empty/],
		['too heavy', /at most 20 MB/],
		['a vector file with a script', /a script or something from elsewhere/],
		['a vector file with a handler', /a script or something from elsewhere/],
		['a vector file that fetches', /a script or something from elsewhere/],
		['a vector file with an entity', /a script or something from elsewhere|no picture/]
	])('%s', async (name, why) => {
		await expect(takePicture(files[name]!)).rejects.toThrow(why);
	});
});
