import type { Area, Picture } from '../model';
import { coverOf, isCutBy } from '../pictures/areas';
import { cutSettingOf, measureCut, SHAPE_NAMES, SHAPES } from '../pictures/shapes';
import { READERS, type ReaderProfile } from '../readers/profiles';

/** What a picture is, as far as it is known, and the text that stands for it. */
export type JudgedPicture = Omit<Picture, 'src'>;

/** The pages whose cards show a picture: how many, and the first of them. */
export interface UseOnCards {
	readonly shown: number;
	readonly shownOn: readonly string[];
}

/** Wide cards are about 1.91 to 1; beyond these shapes more than a third is cut away. */
const UNCUT = { least: 1.25, most: 2.9 };

/**
 * What is weak in a picture for a card, in sentences, the gravest first. What is not known of it is not held against
 * it. Pure.
 */
export function weaknessesOf(
	picture: JudgedPicture,
	use: UseOnCards = { shown: 0, shownOn: [] },
	readers: readonly ReaderProfile[] = READERS
): string[] {
	return [
		...tooSmall(picture, readers),
		...tooHeavy(picture, readers),
		...cut(picture),
		...cutThrough(picture, 'faces', 'what may be a face'),
		...cutThrough(picture, 'text', 'what seems to be text'),
		...muchText(picture),
		...(picture.alt ? [] : ['It has no alt text: those who cannot see it are told nothing.']),
		...(picture.alpha ? ['Parts of it are transparent: each reader puts it on a ground of its own.'] : []),
		...(picture.animated ? ['It came as an animation: readers show its first frame.'] : []),
		...onMany(use),
		...(picture.repeated ? [`It stands on ${picture.repeated} pages: it says little about this one.`] : []),
		...(picture.mark ? ['It is a logo or an icon by its name.'] : []),
		...(picture.plain ? ['It looks like a logo: of few colours, and small or cut out.'] : [])
	];
}

const namesOf = (readers: readonly ReaderProfile[]) =>
	new Intl.ListFormat('en', { type: 'conjunction' }).format(readers.map(({ name }) => name));

function tooSmall({ width }: JudgedPicture, readers: readonly ReaderProfile[]): string[] {
	if (!width) return [];
	const missed = readers.filter(({ frame }) => frame && width < frame.minWidth);
	const needed = Math.max(...missed.map(({ frame }) => frame?.minWidth ?? 0));
	return missed.length > 0
		? [`Too small for ${namesOf(missed)}: ${width} pixels wide, ${needed} would do for all.`]
		: [];
}

function tooHeavy({ bytes }: JudgedPicture, readers: readonly ReaderProfile[]): string[] {
	if (!bytes) return [];
	const missed = readers.filter(({ frame }) => frame?.maxBytes !== undefined && bytes > frame.maxBytes);
	const most = Math.min(...missed.map(({ frame }) => frame?.maxBytes ?? Infinity));
	return missed.length > 0
		? [`Too heavy for ${namesOf(missed)}: ${kilobytes(bytes)}, at most ${kilobytes(most)} are fetched.`]
		: [];
}

const kilobytes = (bytes: number) => `${Math.round(bytes / 1000).toLocaleString('en')} kB`;

function cut({ width, height }: JudgedPicture): string[] {
	if (!width || !height) return [];
	const shape = width / height;
	if (shape < UNCUT.least) return [`It is ${width} × ${height}: wide cards cut much of its top and bottom away.`];
	return shape > UNCUT.most ? [`It is ${width} × ${height}: cards cut much of its sides away.`] : [];
}

/** The shapes in which a cut goes through an area. */
function cutThrough(picture: JudgedPicture, what: 'faces' | 'text', called: string): string[] {
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
	const ratios = new Intl.ListFormat('en', { type: 'conjunction' }).format(shapes.map((shape) => SHAPES[shape].ratio));
	return shapes.length > 0 ? [`Cut to ${ratios}, it loses part of ${called}.`] : [];
}

/** From this share on, text in a picture is too much: small cards make it unreadable. */
const MUCH_TEXT = 0.2;

function muchText({ text = [] }: JudgedPicture): string[] {
	const share = coverOf(text);
	return share > MUCH_TEXT
		? [`Text seems to cover ${Math.round(share * 100)} % of it, more than a fifth: on small cards no one can read it.`]
		: [];
}

/** A picture on this many cards says little about each page. */
const MANY = 3;

function onMany({ shown, shownOn }: UseOnCards): string[] {
	if (shown < MANY) return [];
	const named = shownOn.slice(0, MANY).join(', ');
	return [`It is on the cards of ${shown} pages: ${named}${shown > MANY ? ` and ${shown - MANY} more` : ''}.`];
}
