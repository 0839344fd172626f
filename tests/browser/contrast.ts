import axe from 'axe-core';
import sharp from 'sharp';
import type { WebDriver } from 'selenium-webdriver';

/** A text whose contrast axe-core cannot decide, and where it stands in the window. */
interface Undecided {
	readonly at: string;
	readonly text: string;
	/** Red, green and blue up to 255, and how much of it covers what lies under it. */
	readonly colour: readonly [number, number, number, number];
	/** Its least contrast: less for large letters (WCAG 2.2, 1.4.3). */
	readonly least: number;
	readonly boxes: readonly (readonly [x: number, y: number, width: number, height: number])[];
}

const FIND = `const done = arguments[arguments.length - 1];
axe.run({ runOnly: ['color-contrast'], resultTypes: ['incomplete'] }).then(({ incomplete }) => done(
	incomplete.flatMap(({ nodes }) => nodes).flatMap(({ target: [at] }) => {
		const element = document.querySelector(at);
		const style = getComputedStyle(element);
		let cover = 1;
		for (let one = element; one; one = one.parentElement) cover *= Number(getComputedStyle(one).opacity);
		const boxes = [];
		const texts = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
		while (texts.nextNode()) {
			if (texts.currentNode.data.trim() === '') continue;
			const range = document.createRange();
			range.selectNodeContents(texts.currentNode);
			for (const { left, top, width, height } of range.getClientRects()) {
				const above = document.elementFromPoint(left + width / 2, top + height / 2);
				const isDrawing = element instanceof SVGElement;
				if (isDrawing || (above && (element.contains(above) || above.contains(element)))) boxes.push([left, top, width, height]);
			}
		}
		const [red, green, blue, alpha = 1] = (element instanceof SVGElement ? style.fill : style.color).match(/[\\d.]+/g).map(Number);
		const size = parseFloat(style.fontSize);
		const least = size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 700) ? 3 : 4.5;
		return [{ at, text: element.textContent.trim().slice(0, 40), colour: [red, green, blue, alpha * cover], least, boxes }];
	})));`;
/** All letters vanish, and what lies under them stays. */
const BLANK = `const style = document.createElement('style');
style.id = 'blank';
style.nonce = document.body.nonce;
style.textContent = \`*, ::placeholder { color: transparent !important; -webkit-text-fill-color: transparent !important;
	text-decoration-color: transparent !important; caret-color: transparent !important; transition: none !important; }
	svg text { fill: transparent !important; }\`;
document.head.append(style);`;

/** How light a colour is (WCAG 2.2, relative luminance). */
function lightness(colour: readonly number[]): number {
	const [red, green, blue] = colour.map((part) =>
		part / 255 <= 0.04045 ? part / 255 / 12.92 : ((part / 255 + 0.055) / 1.055) ** 2.4
	) as [number, number, number];
	return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
function contrast(one: readonly number[], other: readonly number[]): number {
	const [light, dark] = [lightness(one), lightness(other)].sort((a, b) => b - a) as [number, number];
	return (light + 0.05) / (dark + 0.05);
}

/**
 * What axe-core leaves undecided on contrast is measured: each text against what is drawn under it. Gives how many were
 * measured, and in words those that stand out too little or are nowhere to be seen. A twentieth of what lies under a text
 * may come closer: lines and edges.
 */
export async function weakContrasts(driver: WebDriver): Promise<{ measured: number; weak: string[] }> {
	await driver.executeScript(axe.source);
	const texts = await driver.executeAsyncScript<Undecided[]>(FIND);
	await driver.executeScript(BLANK);
	const picture = Buffer.from(await driver.takeScreenshot(), 'base64');
	await driver.executeScript(`document.getElementById('blank').remove()`);
	const { data, info } = await sharp(picture).removeAlpha().raw().toBuffer({ resolveWithObject: true });
	const weak = texts.flatMap(({ at, text, colour, least, boxes }) => {
		const cover = colour[3];
		const all: number[] = [];
		for (const [left, top, width, height] of boxes)
			for (let y = Math.max(0, Math.round(top)); y < Math.min(info.height, top + height); y++)
				for (let x = Math.max(0, Math.round(left)); x < Math.min(info.width, left + width); x++) {
					const from = (y * info.width + x) * 3;
					const under = [...data.subarray(from, from + 3)];
					const over = under.map((part, at) => (colour[at] as number) * cover + part * (1 - cover));
					all.push(contrast(over, under));
				}
		all.sort((a, b) => a - b);
		const found = all[Math.floor(all.length / 20)];
		if (found !== undefined && found >= least) return [];
		return [`${found?.toFixed(2) ?? 'out of sight'}: “${text}” at ${at}`];
	});
	return { measured: texts.length, weak };
}
