import type { Picture } from '../model';
import { READERS, type ReaderProfile } from '../readers/profiles';

/** What a picture is, as far as it is known, and the text that stands for it. */
export type JudgedPicture = Omit<Picture, 'src'>;

/** Wide cards are about 1.91 to 1; beyond these shapes more than a third is cut away. */
const SHAPES = { least: 1.25, most: 2.9 };

/**
 * What is weak in a picture for a card, in sentences, the gravest first. What is not known of it is not held against
 * it. Pure.
 */
export function weaknessesOf(picture: JudgedPicture, readers: readonly ReaderProfile[] = READERS): string[] {
	return [
		...tooSmall(picture, readers),
		...tooHeavy(picture, readers),
		...cut(picture),
		...(picture.alt ? [] : ['It has no alt text: those who cannot see it are told nothing.']),
		...(picture.alpha ? ['Parts of it are transparent: each reader puts it on a ground of its own.'] : []),
		...(picture.animated ? ['It came as an animation: readers show its first frame.'] : []),
		...(picture.repeated ? [`It stands on ${picture.repeated} pages: it says little about this one.`] : []),
		...(picture.mark ? ['It is a logo or an icon by its name.'] : [])
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
	if (shape < SHAPES.least) return [`It is ${width} × ${height}: wide cards cut much of its top and bottom away.`];
	return shape > SHAPES.most ? [`It is ${width} × ${height}: cards cut much of its sides away.`] : [];
}
