import { kind, listed } from './kind';

type Nothing = Readonly<Record<string, never>>;
interface Size {
	readonly width: number;
	readonly height: number;
}

const kilobytes = (bytes: number) => `${Math.round(bytes / 1000).toLocaleString('en')} kB`;
const TAKE_ANOTHER = () => 'Take another picture, or set one that fits before it in the list of sources.';
const MOVE_POINT = () => 'Move the point that stays in view, or the shape alone.';

/** What can be weak in a picture for a card, the gravest first. */
export const PICTURE_KINDS = {
	'picture-small': kind<{ readonly width: number; readonly needed: number; readonly readers: readonly string[] }>(
		5,
		({ width, needed, readers }) =>
			`Too small for ${listed(readers)}: ${width} pixels wide, ${needed} would do for all.`,
		TAKE_ANOTHER
	),
	'picture-heavy': kind<{ readonly bytes: number; readonly most: number; readonly readers: readonly string[] }>(
		5,
		({ bytes, most, readers }) =>
			`Too heavy for ${listed(readers)}: ${kilobytes(bytes)}, at most ${kilobytes(most)} are fetched.`,
		() => 'Let it be cut to a shape: what is cut is made light enough for all.'
	),
	'picture-tall': kind<Size>(
		3,
		({ width, height }) => `It is ${width} × ${height}: wide cards cut much of its top and bottom away.`,
		MOVE_POINT
	),
	'picture-long': kind<Size>(
		3,
		({ width, height }) => `It is ${width} × ${height}: cards cut much of its sides away.`,
		MOVE_POINT
	),
	'picture-face-cut': kind<{ readonly ratios: readonly string[] }>(
		4,
		({ ratios }) => `Cut to ${listed(ratios)}, it loses part of what may be a face.`,
		MOVE_POINT
	),
	'picture-text-cut': kind<{ readonly ratios: readonly string[] }>(
		4,
		({ ratios }) => `Cut to ${listed(ratios)}, it loses part of what seems to be text.`,
		MOVE_POINT
	),
	'picture-much-text': kind<{ readonly percent: number }>(
		3,
		({ percent }) => `Text seems to cover ${percent} % of it, more than a fifth: on small cards no one can read it.`,
		TAKE_ANOTHER
	),
	'picture-no-alt': kind<Nothing>(
		2,
		() => 'It has no alt text: those who cannot see it are told nothing.',
		() => 'Say what it shows, in a few words.'
	),
	'picture-transparent': kind<Nothing>(
		1,
		() => 'Parts of it are transparent: each reader puts it on a ground of its own.',
		TAKE_ANOTHER
	),
	'picture-animated': kind<Nothing>(
		1,
		() => 'It came as an animation: readers show its first frame.',
		() => 'Take a still picture that says more.'
	),
	'picture-on-many': kind<{ readonly pages: number; readonly named: readonly string[] }>(
		2,
		({ pages, named }) =>
			`It is on the cards of ${pages} pages: ${named.join(', ')}${pages > named.length ? ` and ${pages - named.length} more` : ''}.`,
		() => 'Give these pages pictures of their own.'
	),
	'picture-repeated': kind<{ readonly pages: number }>(
		2,
		({ pages }) =>
			`It stands on ${pages} ${pages === 1 ? 'page' : 'pages'} as part of the frame: it says little about this one.`,
		TAKE_ANOTHER
	),
	'picture-named-logo': kind<Nothing>(4, () => 'It is a logo or an icon by its name.', TAKE_ANOTHER),
	'picture-like-logo': kind<Nothing>(
		4,
		() => 'It looks like a logo: of few colours, and small or cut out.',
		TAKE_ANOTHER
	)
};
