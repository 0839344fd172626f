import { SHAPE_NAMES, type Area, type Picture } from '../model';
import { coverOf, isCutBy } from '../pictures/areas';
import { cutSettingOf, measureCut, SHAPES } from '../pictures/shapes';
import { READERS, type ReaderProfile } from '../readers/profiles';
import { finding, type Finding, type Target } from './finding';

/** What a picture is, as far as it is known, and the text that stands for it. */
export type JudgedPicture = Omit<Picture, 'src'> & { readonly src?: string };

/** The pages whose cards show a picture: how many, and the first of them. */
export interface UseOnCards {
	readonly shown: number;
	readonly shownOn: readonly string[];
}

/** Wide cards are about 1.91 to 1; beyond these shapes more than a third is cut away. */
const UNCUT = { least: 1.25, most: 2.9 };
/** From this share on, text in a picture is too much: small cards make it unreadable. */
const MUCH_TEXT = 0.2;
/** A picture on this many cards says little about each page. */
const MANY = 3;

/**
 * What is weak in a picture for a card, the gravest first. What is not known of it is not held against it. Pure.
 */
export function findInPicture(
	picture: JudgedPicture,
	use: UseOnCards = { shown: 0, shownOn: [] },
	readers: readonly ReaderProfile[] = READERS
): Finding[] {
	const target: Target = { of: 'picture', src: picture.src ?? '' };
	return [
		...tooSmall(picture, readers, target),
		...tooHeavy(picture, readers, target),
		...badShape(picture, target),
		...cutThrough(picture, 'faces', target),
		...cutThrough(picture, 'text', target),
		...muchText(picture, target),
		...(picture.alt ? [] : [finding('picture-no-alt', target, undefined, {})]),
		...(picture.alpha ? [finding('picture-transparent', target, undefined, {})] : []),
		...(picture.animated ? [finding('picture-animated', target, undefined, {})] : []),
		...(use.shown < MANY
			? []
			: [finding('picture-on-many', target, undefined, { pages: use.shown, named: use.shownOn.slice(0, MANY) })]),
		...(picture.repeated ? [finding('picture-repeated', target, undefined, { pages: picture.repeated })] : []),
		...(picture.mark ? [finding('picture-named-logo', target, undefined, {})] : []),
		...(picture.plain ? [finding('picture-like-logo', target, undefined, {})] : [])
	];
}

const namesOf = (readers: readonly ReaderProfile[]) => readers.map(({ name }) => name);

/** The readers whose large card a picture is too narrow for, and the width that would do for all. */
export function readersTooWide(width: number, readers: readonly ReaderProfile[] = READERS) {
	const missed = readers.filter(({ frame }) => frame && width < frame.minWidth);
	return { readers: namesOf(missed), needed: Math.max(0, ...missed.map(({ frame }) => frame?.minWidth ?? 0)) };
}

function tooSmall({ width }: JudgedPicture, readers: readonly ReaderProfile[], target: Target): Finding[] {
	if (!width) return [];
	const missed = readersTooWide(width, readers);
	return missed.readers.length > 0 ? [finding('picture-small', target, undefined, { width, ...missed })] : [];
}

function tooHeavy({ bytes }: JudgedPicture, readers: readonly ReaderProfile[], target: Target): Finding[] {
	if (!bytes) return [];
	const missed = readers.filter(({ frame }) => frame?.maxBytes !== undefined && bytes > frame.maxBytes);
	const most = Math.min(...missed.map(({ frame }) => frame?.maxBytes ?? Infinity));
	return missed.length > 0
		? [finding('picture-heavy', target, undefined, { bytes, most, readers: namesOf(missed) })]
		: [];
}

function badShape({ width, height }: JudgedPicture, target: Target): Finding[] {
	if (!width || !height) return [];
	const shape = width / height;
	if (shape < UNCUT.least) return [finding('picture-tall', target, undefined, { width, height })];
	return shape > UNCUT.most ? [finding('picture-long', target, undefined, { width, height })] : [];
}

/** The shapes in which a cut goes through an area. */
function cutThrough(picture: JudgedPicture, what: 'faces' | 'text', target: Target): Finding[] {
	const { width, height } = picture;
	const areas = picture[what] ?? [];
	if (!width || !height || areas.length === 0) return [];
	const shapes = SHAPE_NAMES.filter((shape) => {
		const { focus, zoom } = cutSettingOf({ src: '', ...picture }, shape);
		const { box } = measureCut(
			{ shape, focus: [focus[0] * 1000, focus[1] * 1000], zoom: zoom * 100 },
			{ width, height }
		);
		const shares: Area = [box.left / width, box.top / height, box.width / width, box.height / height];
		return areas.some((area) => isCutBy(area, shares));
	});
	const code = what === 'faces' ? 'picture-face-cut' : 'picture-text-cut';
	const ratios = shapes.map((shape) => SHAPES[shape].ratio);
	return ratios.length > 0 ? [finding(code, target, undefined, { ratios })] : [];
}

function muchText({ text = [] }: JudgedPicture, target: Target): Finding[] {
	const share = coverOf(text);
	if (share <= MUCH_TEXT) return [];
	return [finding('picture-much-text', target, undefined, { percent: Math.round(share * 100) })];
}
