import {
	CANVAS,
	cropBox,
	fitText,
	gradientLine,
	isDrawn,
	isWrittenToTheLeft,
	LINE_HEIGHT,
	type Measure,
	type PlacedPicture,
	type Recipe,
	type WrittenText
} from '$core';
import type { Canvas, Image, SKRSContext2D } from '@napi-rs/canvas';
import { registerFonts, stackOf } from './fonts';

type Drawing = typeof import('@napi-rs/canvas');

/** Decoded pictures are held up to so many pixels together: the site's own stands on many pages. */
const MOST_HELD = 12_000_000;

/** The drawing program with what is costly to make anew: its fonts, one canvas, the pictures used last. */
class Drawer {
	private readonly pictures = new Map<string, Image>();
	readonly canvas: Canvas;

	private constructor(private readonly drawing: Drawing) {
		this.canvas = drawing.createCanvas(CANVAS.width, CANVAS.height);
	}

	/** With our fonts and none of the machine's: the same text must look the same everywhere. */
	static async open(): Promise<Drawer> {
		process.env.DISABLE_SYSTEM_FONTS_LOAD = '1';
		const drawing = await import('@napi-rs/canvas');
		registerFonts((bytes, name) => drawing.GlobalFonts.register(bytes, name));
		return new Drawer(drawing);
	}

	/** A picture of the library, decoded. Its name is the hash of its bytes: it never changes. */
	async picture(file: string, bytes: Buffer | undefined): Promise<Image | undefined> {
		const known = this.pictures.get(file);
		if (known || !bytes) return known;
		const image = await this.drawing.loadImage(bytes);
		this.pictures.set(file, image);
		let held = 0;
		for (const [name, { width, height }] of [...this.pictures].reverse())
			if ((held += width * height) > MOST_HELD && name !== file) this.pictures.delete(name);
		return image;
	}
}

/** Opened with the first picture, once for each thread. */
let drawer: Promise<Drawer> | undefined;

export const QUALITY = 88;

/**
 * Draws a share picture: a JPEG of 1200 by 630. `readFile` gives the bytes of a picture of the library, or undefined
 * when it is gone: then its place stays as the background is. The same recipe and files give the same bytes.
 */
export async function drawShare(recipe: Recipe, readFile: (file: string) => Buffer | undefined): Promise<Buffer> {
	const program = await (drawer ??= Drawer.open());
	const open = async (file: string | undefined) =>
		file === undefined ? undefined : program.picture(file, readFile(file));
	const [picture, logo] = [await open(recipe.picture?.file), await open(recipe.logo?.file)];
	// From here on nothing waits: the canvas is shared.
	const pen = program.canvas.getContext('2d');
	paintBackground(pen, recipe.background);
	if (picture && recipe.picture) paintPicture(pen, picture, recipe.picture);
	if (recipe.frame) paintFrame(pen, recipe.frame);
	if (logo && recipe.logo) paintWhole(pen, logo, recipe.logo);
	for (const text of recipe.texts) paintText(pen, text, recipe.language);
	if (recipe.play) paintPlayMark(pen);
	return program.canvas.encodeSync('jpeg', QUALITY);
}

function paintBackground(pen: SKRSContext2D, background: Recipe['background']) {
	const { width, height } = CANVAS;
	if (background.kind === 'colour') pen.fillStyle = background.colour;
	else {
		// Through the middle at an angle, clockwise from upwards, as far as the corners.
		const { x: dx, y: dy, length } = gradientLine(background.angle);
		const half = length / 2;
		const [x, y] = [width / 2, height / 2];
		const gradient = pen.createLinearGradient(x - dx * half, y - dy * half, x + dx * half, y + dy * half);
		gradient.addColorStop(0, background.from);
		gradient.addColorStop(1, background.to);
		pen.fillStyle = gradient;
	}
	pen.fillRect(0, 0, width, height);
}

function paintPicture(pen: SKRSContext2D, image: Image, { x, y, width, height, ...how }: PlacedPicture) {
	if (width < 1 || height < 1) return;
	const from = cropBox(image.width, image.height, width / height, how.focus, how.zoom);
	pen.imageSmoothingQuality = 'high';
	pen.drawImage(image, from.left, from.top, from.width, from.height, x, y, width, height);
	pen.globalAlpha = how.strength;
	pen.fillStyle = how.tint;
	pen.fillRect(x, y, width, height);
	pen.globalAlpha = 1;
}

function paintFrame(pen: SKRSContext2D, { colour, width, inset }: NonNullable<Recipe['frame']>) {
	if (width === 0) return;
	pen.strokeStyle = colour;
	pen.lineWidth = width;
	pen.lineJoin = 'miter';
	const edge = inset + width / 2;
	pen.strokeRect(edge, edge, CANVAS.width - 2 * edge, CANVAS.height - 2 * edge);
}

/** The whole picture, as large as its box lets it be. */
function paintWhole(pen: SKRSContext2D, image: Image, box: NonNullable<Recipe['logo']>) {
	const scale = Math.min(box.width / image.width, box.height / image.height);
	const [width, height] = [image.width * scale, image.height * scale];
	pen.imageSmoothingQuality = 'high';
	pen.drawImage(image, box.x + (box.width - width) / 2, box.y + (box.height - height) / 2, width, height);
}

function paintText(pen: SKRSContext2D, text: WrittenText, language: string) {
	const fontAt = (size: number) => `${text.weight} ${size}px ${stackOf(text.font)}`;
	pen.font = fontAt(MEASURED_AT);
	// Widths grow with the size: each text is measured once, however many sizes are tried.
	const widths = new Map<string, number>();
	const measure: Measure = (line, size) => {
		let width = widths.get(line);
		if (width === undefined) widths.set(line, (width = widthOf(pen, line)));
		return (width * size) / MEASURED_AT;
	};
	const { size, lines } = fitText(withOurLetters(text.text), text, language, measure);
	const isRightToLeft = isWrittenToTheLeft(language);
	const step = size * LINE_HEIGHT;
	const spare = text.height - lines.length * step;
	const top = text.y + (text.stand === 'top' ? 0 : text.stand === 'middle' ? spare / 2 : spare);
	const side = text.align === 'middle' ? 'center' : (text.align === 'start') === isRightToLeft ? 'right' : 'left';
	const x = side === 'center' ? text.x + text.width / 2 : side === 'left' ? text.x : text.x + text.width;
	pen.font = fontAt(size);
	pen.direction = isRightToLeft ? 'rtl' : 'ltr';
	pen.textAlign = side;
	pen.textBaseline = 'alphabetic';
	pen.fillStyle = text.colour;
	// The base line lies where a line of this height has room for what hangs below it.
	lines.forEach((line, at) => pen.fillText(line, x, top + at * step + step * 0.78, text.width));
}

/** Stands for a letter that no font here has: the drawing program would ask the machine for one. */
const NO_LETTER = '〓';
const withOurLetters = (text: string) => [...text].map((letter) => (isDrawn(letter) ? letter : NO_LETTER)).join('');

/** Pixels. */
const MEASURED_AT = 100;

/** How wide a line is with what hangs over its ends, in the font that is set. */
function widthOf(pen: SKRSContext2D, line: string): number {
	const { width, actualBoundingBoxLeft, actualBoundingBoxRight } = pen.measureText(line);
	return Math.max(width, actualBoundingBoxLeft + actualBoundingBoxRight);
}

/** The same mark as on pictures that are not drawn. */
function paintPlayMark(pen: SKRSContext2D) {
	const side = CANVAS.height / 4;
	pen.save();
	pen.translate((CANVAS.width - side) / 2, (CANVAS.height - side) / 2);
	pen.scale(side / 100, side / 100);
	const ring = (radius: number) => {
		pen.beginPath();
		pen.arc(50, 50, radius, 0, 2 * Math.PI);
	};
	ring(46);
	pen.fillStyle = 'rgba(16, 24, 23, 0.62)';
	pen.fill();
	ring(43);
	pen.strokeStyle = '#fff';
	pen.lineWidth = 4;
	pen.stroke();
	pen.beginPath();
	pen.moveTo(40, 29);
	pen.lineTo(74, 50);
	pen.lineTo(40, 71);
	pen.closePath();
	pen.fillStyle = '#fff';
	pen.lineWidth = 5;
	pen.lineJoin = 'round';
	pen.fill();
	pen.stroke();
	pen.restore();
}
