import { sha256 } from '@noble/hashes/sha256';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { lettersNotDrawn } from './letters';

/** Share pictures are drawn at this size, in pixels; boxes of a layout are in pixels of it. */
export const CANVAS = { width: 1200, height: 630 } as const;

export interface Box {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** One of the site's colours by its use, or a colour of its own as `#rrggbb`. */
export type Colour = string;
export const COLOUR_USES = ['paper', 'ink', 'accent'] as const;
export const FONTS = ['Literata', 'Commissioner'] as const;
export type Font = (typeof FONTS)[number];

/** The site's colours and type, for share pictures. */
export interface Look {
	readonly paper?: string;
	readonly ink?: string;
	readonly accent?: string;
	readonly titleFont?: Font;
	readonly textFont?: Font;
}
export const USUAL_LOOK: Required<Look> = {
	paper: '#f4f1e8',
	ink: '#16302d',
	accent: '#b4532a',
	titleFont: 'Literata',
	textFont: 'Commissioner'
};

/** A text in a layout: a template, drawn as large as fits between two sizes (pixels), in its box. */
export interface TextPart extends Box {
	readonly template: string;
	readonly font: 'title' | 'text';
	/** The size it would have, and the least it is brought down to before it is cut. */
	readonly size: number;
	readonly least: number;
	readonly weight: number;
	readonly colour: Colour;
	readonly align: 'start' | 'middle' | 'end';
	readonly stand: 'top' | 'middle' | 'bottom';
}

/** How the share pictures of a type are made. Drawn in this order. */
export interface ShareLayout {
	readonly background:
		| { readonly kind: 'colour'; readonly colour: Colour }
		| { readonly kind: 'gradient'; readonly from: Colour; readonly to: Colour; readonly angle: number };
	/** Where the page's picture stands, under a tint of a strength from 0 to 1. */
	readonly picture?: Box & { readonly tint: Colour; readonly strength: number };
	readonly frame?: { readonly colour: Colour; readonly width: number; readonly inset: number };
	readonly logo?: Box;
	readonly title: TextPart;
	readonly line?: TextPart;
}

/** A picture of the library as a share picture takes it, cut round a point. */
export interface PlacedPicture extends Box {
	readonly file: string;
	readonly focus: readonly [x: number, y: number];
	readonly zoom: number;
	readonly tint: string;
	readonly strength: number;
}
export type WrittenText = Omit<TextPart, 'template' | 'font'> & { readonly text: string; readonly font: Font };

/** All that a share picture is drawn from: the same recipe gives the same bytes. */
export interface Recipe {
	/** Counted up when the drawing itself changes, so that what was drawn before is drawn again. */
	readonly version: number;
	readonly language: string;
	readonly background: ShareLayout['background'];
	readonly picture?: PlacedPicture;
	readonly frame?: ShareLayout['frame'];
	readonly logo?: Box & { readonly file: string };
	readonly texts: readonly WrittenText[];
	/** The mark for video is laid over it. */
	readonly play?: true;
}
export const RECIPE_VERSION = 2;
/** What the second version draws as the first did keeps its name: it draws no letters by the machine's fonts. */
const versionFor = (texts: readonly string[]) => (lettersNotDrawn(texts.join('')).length > 0 ? RECIPE_VERSION : 1);

/** What one page brings to its type's layout. */
export interface RecipeParts {
	readonly title: string;
	readonly line: string;
	readonly language: string;
	readonly picture: Pick<PlacedPicture, 'file' | 'focus' | 'zoom'> | undefined;
	/** The file of the site's logo in the library. */
	readonly logo: string | undefined;
	readonly play: boolean;
}

const HEX = /^#[0-9a-f]{6}$/i;

/** A colour as `#rrggbb`; one that is none becomes the site's ink. */
export function colourOf(colour: Colour, look: Required<Look>): string {
	if (colour === 'paper' || colour === 'ink' || colour === 'accent') return colourOf(look[colour], USUAL_LOOK);
	return HEX.test(colour) ? colour.toLowerCase() : colourOf('ink', USUAL_LOOK);
}

/** The site's look, with what it does not say as usual. */
export const wholeLook = (look: Look | undefined): Required<Look> => ({ ...USUAL_LOOK, ...look });

/** Brings a layout and what a page has together. A part that the page has nothing for is left out. */
export function recipeOf(layout: ShareLayout, given: Look | undefined, parts: RecipeParts): Recipe {
	const look = wholeLook(given);
	const { background, picture, frame, logo } = layout;
	const write = (part: TextPart | undefined, text: string): WrittenText[] => {
		if (!part || text === '') return [];
		const { template: _template, font, colour, ...rest } = part;
		return [{ ...rest, text, font: look[`${font}Font`], colour: colourOf(colour, look) }];
	};
	return {
		version: versionFor([parts.title, layout.line ? parts.line : '']),
		language: parts.language,
		background:
			background.kind === 'colour'
				? { kind: 'colour', colour: colourOf(background.colour, look) }
				: {
						kind: 'gradient',
						from: colourOf(background.from, look),
						to: colourOf(background.to, look),
						angle: background.angle
					},
		...(picture && parts.picture && { picture: { ...picture, ...parts.picture, tint: colourOf(picture.tint, look) } }),
		...(frame && { frame: { ...frame, colour: colourOf(frame.colour, look) } }),
		...(logo && parts.logo !== undefined && { logo: { ...logo, file: parts.logo } }),
		texts: [...write(layout.title, parts.title), ...write(layout.line, parts.line)],
		...(parts.play && { play: true })
	};
}

/** The name of the file that a recipe is drawn into: the hash of all that goes into it. */
export function nameOfRecipe(recipe: Recipe): string {
	return `share-${bytesToHex(sha256(utf8ToBytes(JSON.stringify(recipe)))).slice(0, 24)}.jpg`;
}

export const RECIPE_NAME = /^share-[0-9a-f]{24}\.jpg$/;

/** The way of a gradient over the canvas at an angle (degrees, clockwise from upwards): its direction, from corner to corner. */
export function gradientLine(angle: number): { readonly x: number; readonly y: number; readonly length: number } {
	const turn = (angle * Math.PI) / 180;
	const [x, y] = [Math.sin(turn), -Math.cos(turn)];
	return { x, y, length: Math.abs(CANVAS.width * x) + Math.abs(CANVAS.height * y) };
}
