import type { CutSetting, KeptCopy, Picture, Shape } from '../model';
import { READERS, type PictureFormat, type ReaderProfile } from '../readers/profiles';
import { cropBox, type CropBox } from './crop';

/** The shapes that pictures are cut to, with the size in pixels that a cut is brought down to. */
export const SHAPES = {
	wide: { width: 1200, height: 630, ratio: '1.91 : 1', says: 'for wide cards' },
	double: { width: 1024, height: 512, ratio: '2 : 1', says: 'for large timeline cards' },
	square: { width: 800, height: 800, ratio: '1 : 1', says: 'for messengers and small cards' },
	tall: { width: 1000, height: 1500, ratio: '2 : 3', says: 'for pin boards' }
} as const satisfies Record<Shape, object>;

export const MOST_ZOOM = 4;

/** Where the library's pictures stand under a site's base address. */
export const MEDIA_PATH = '/media/';
const KEPT_NAME = /^[0-9a-f]{24}\.(?:jpg|png)$/;

/** The library's copy of a picture, or undefined when it has none. */
export function keptCopyOf(picture: Picture): KeptCopy | undefined {
	if (picture.kept) return picture.kept;
	const { src, width, height } = picture;
	const file = src.startsWith(MEDIA_PATH) ? src.slice(MEDIA_PATH.length) : '';
	return KEPT_NAME.test(file) && width && height ? { file, width, height } : undefined;
}

/** What is written into a file of its own: a picture cut to a shape, or whole with the mark for video on it. */
export interface Cut {
	/** The hash of the picture it is cut from. */
	readonly hash: string;
	readonly shape: Shape | 'whole';
	/** In thousandths of the sides. */
	readonly focus: readonly [x: number, y: number];
	/** In hundredths. */
	readonly zoom: number;
	/** The mark for video is laid over it. */
	readonly play: boolean;
	readonly format: PictureFormat;
	/** The version of the cutting that it is written by. */
	readonly version: number;
}

/**
 * Counted up when what is written into files changes: their sizes, their quality, the mark on them. A file is served for
 * ever under its name, so that another way of writing it needs another name.
 */
export const CUT_VERSION = 1;
/** Of whole pictures: from the second on they are brought down to what readers use. */
const WHOLE_VERSION = 2;
/** The longest side (pixels) of a whole picture that goes out: twice what the largest card shows. */
const WHOLE_SIDE = 2400;
/** What a name says of the version; the first said nothing. */
export const versionPart = (version: number) => (version > 1 ? [`v${version}`] : []);
export const versionIn = (part: string | undefined) => (part === undefined ? 1 : Number(part));

const EXTENSIONS: Readonly<Record<PictureFormat, string>> = { jpeg: 'jpg', png: 'png', webp: 'webp' };

/**
 * The name of a cut's file. It says all there is to know, so that the same cut has the same address everywhere, and one
 * that was never written can be written when it is asked for.
 */
export function nameOfCut({ hash, shape, focus, zoom, play, format, version }: Cut): string {
	const place = shape === 'whole' ? [] : [...focus, ...(zoom === 100 ? [] : [zoom])];
	return `${[hash, shape, ...place, ...(play ? ['play'] : []), ...versionPart(version)].join('-')}.${EXTENSIONS[format]}`;
}

const CUT_NAME =
	/^([0-9a-f]{24})-(?:(whole)|(wide|double|square|tall)-(\d{1,4})-(\d{1,4})(?:-(\d{3}))?)(-play)?(?:-v(\d{1,4}))?\.(jpg|png|webp)$/;

/** The cut that a file's name stands for; undefined for any other name, and for one not written as it is above. */
export function readCutName(name: string): Cut | undefined {
	const found = CUT_NAME.exec(name);
	if (!found) return undefined;
	const [, hash, whole, shape, x, y, zoom, play, version, extension] = found;
	const cut: Cut = {
		hash: hash as string,
		shape: (whole ?? shape) as Cut['shape'],
		focus: [Number(x ?? 500), Number(y ?? 500)],
		zoom: Number(zoom ?? 100),
		play: play !== undefined,
		format: extension === 'jpg' ? 'jpeg' : (extension as PictureFormat),
		version: versionIn(version)
	};
	const isLegal =
		Math.max(...cut.focus) <= 1000 &&
		cut.zoom >= 100 &&
		cut.zoom <= MOST_ZOOM * 100 &&
		cut.version <= (cut.shape === 'whole' ? WHOLE_VERSION : CUT_VERSION);
	return isLegal && nameOfCut(cut) === name ? cut : undefined;
}

/** The box (pixels of the picture) that a cut takes, and the size it is brought down to; nothing is ever enlarged. */
export function measureCut(
	{ shape, focus, zoom, version }: Pick<Cut, 'shape' | 'focus' | 'zoom'> & Partial<Pick<Cut, 'version'>>,
	{ width, height }: Pick<KeptCopy, 'width' | 'height'>
): { readonly box: CropBox; readonly width: number; readonly height: number } {
	if (shape === 'whole') {
		const box = { left: 0, top: 0, width, height };
		const share = version === 1 ? 1 : Math.min(1, WHOLE_SIDE / Math.max(width, height));
		return { box, width: Math.max(1, Math.round(width * share)), height: Math.max(1, Math.round(height * share)) };
	}
	const aim = SHAPES[shape];
	const box = cropBox(width, height, aim.width / aim.height, [focus[0] / 1000, focus[1] / 1000], zoom / 100);
	if (box.width >= aim.width && box.height >= aim.height) return { box, width: aim.width, height: aim.height };
	return { box, width: box.width, height: box.height };
}

const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

/** How a shape is cut from a picture: as set for the shape, else round the picture's own point, else its middle. */
export function cutSettingOf(picture: Picture, shape: Shape): Required<CutSetting> {
	const { focus, zoom = 1 } = picture.cuts?.[shape] ?? { focus: picture.focus ?? [0.5, 0.5] };
	return { focus, zoom: clamp(zoom, 1, MOST_ZOOM) };
}

/** The cut of a picture that the library holds, in the lightest form that all its readers take. */
export function cutOf(
	picture: Picture,
	shape: Shape | 'whole',
	readers: readonly ReaderProfile[],
	play = false
): (Cut & KeptCopy) | undefined {
	const kept = keptCopyOf(picture);
	if (!kept) return undefined;
	const { focus, zoom } = shape === 'whole' ? { focus: [0.5, 0.5] as const, zoom: 1 } : cutSettingOf(picture, shape);
	const cut: Cut = {
		hash: kept.file.slice(0, 24),
		shape,
		focus: [Math.round(clamp(focus[0], 0, 1) * 1000), Math.round(clamp(focus[1], 0, 1) * 1000)],
		zoom: Math.round(zoom * 100),
		play,
		format: formatFor(readers, picture.alpha === true),
		// One that is no larger comes out the same by either.
		version: shape === 'whole' && isLarge(kept) ? WHOLE_VERSION : CUT_VERSION
	};
	const { width, height } = measureCut(cut, kept);
	return { ...cut, file: nameOfCut(cut), width, height };
}

/**
 * Whether a picture of the library is more than readers use: larger than any shows, or heavier than the strictest fetches. One that is
 * transparent in parts is not made lighter for its weight alone: that would cost it most of its colours.
 */
export function isMoreThanUsed({ src, width = 0, height = 0, bytes = 0, alpha }: Picture): boolean {
	return src.startsWith(MEDIA_PATH) && (isLarge({ width, height }) || (bytes > MOST_BYTES && alpha !== true));
}
/** The size (pixels) that a whole picture of the library goes out in, where that is not its own; undefined where it is, and of others. */
export function sizeAsSent(picture: Picture): { readonly width: number; readonly height: number } | undefined {
	const kept = isMoreThanUsed(picture) ? keptCopyOf(picture) : undefined;
	if (!kept) return undefined;
	const { width, height } = measureCut({ shape: 'whole', focus: [500, 500], zoom: 100 }, kept);
	return { width, height };
}
const isLarge = ({ width, height }: Pick<KeptCopy, 'width' | 'height'>) => Math.max(width, height) > WHOLE_SIDE;

/** For each tag, the readers that ask for it before its twin; and those of them that take every picture. */
const READERS_OF = new Map(
	[...new Set(READERS.map(({ picture }) => picture[0]))].map((tag) => {
		const first = READERS.filter(({ picture, frame }) => frame && picture[0] === tag);
		return [tag, { first, later: first.filter(({ frame }) => frame?.every) }] as const;
	})
);
const NO_READERS: readonly ReaderProfile[] = [];

/** The readers that ask for a tag before its twin: of its first picture, or of those after it. */
export function readersOfTag(tag: string, isFirst: boolean): readonly ReaderProfile[] {
	return READERS_OF.get(tag)?.[isFirst ? 'first' : 'later'] ?? NO_READERS;
}

/** The lightest form that all of some readers take, for a picture that is transparent in parts or not. */
export function formatFor(readers: readonly ReaderProfile[], isTransparent: boolean): PictureFormat {
	if (readers.length > 0 && readers.every(({ frame }) => frame?.takes.includes('webp'))) return 'webp';
	return isTransparent ? 'png' : 'jpeg';
}

/** The most bytes that a file written for readers of links may have: what the strictest of them fetches. */
export const MOST_BYTES = Math.min(...READERS.map(({ frame }) => frame?.maxBytes ?? Infinity));
