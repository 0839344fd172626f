import type { Box, ShareLayout, TextPart } from './layout';

const WHOLE: Box = { x: 0, y: 0, width: 1200, height: 630 };

const title = (part: Partial<TextPart> & Box): TextPart => ({
	template: '{page.title}',
	font: 'title',
	size: 84,
	least: 40,
	weight: 650,
	colour: 'ink',
	align: 'start',
	stand: 'top',
	...part
});
const line = (part: Partial<TextPart> & Box): TextPart => ({
	template: '{type.label}',
	font: 'text',
	size: 32,
	least: 22,
	weight: 500,
	colour: 'ink',
	align: 'start',
	stand: 'top',
	...part
});

/** Layouts to start from. */
export const STARTING_LAYOUTS: readonly {
	readonly name: string;
	readonly says: string;
	readonly layout: ShareLayout;
}[] = [
	{
		name: 'Horizon',
		says: 'the picture over the whole, words at its foot',
		layout: {
			background: { kind: 'gradient', from: 'ink', to: 'accent', angle: 20 },
			picture: { ...WHOLE, tint: 'ink', strength: 0.55 },
			logo: { x: 72, y: 60, width: 84, height: 84 },
			title: title({ x: 72, y: 250, width: 1010, height: 240, colour: 'paper', stand: 'bottom' }),
			line: line({ x: 72, y: 512, width: 1010, height: 52, colour: 'paper' })
		}
	},
	{
		name: 'Gatepost',
		says: 'words on paper, the picture down one side',
		layout: {
			background: { kind: 'colour', colour: 'paper' },
			picture: { x: 756, y: 0, width: 444, height: 630, tint: 'accent', strength: 0 },
			logo: { x: 64, y: 64, width: 72, height: 72 },
			title: title({ x: 64, y: 176, width: 628, height: 300, size: 76, stand: 'middle' }),
			line: line({ x: 64, y: 510, width: 628, height: 60, colour: 'accent', weight: 600 })
		}
	},
	{
		name: 'Nameplate',
		says: 'no picture: words in a frame',
		layout: {
			background: { kind: 'colour', colour: 'paper' },
			frame: { colour: 'accent', width: 6, inset: 34 },
			logo: { x: 564, y: 78, width: 72, height: 72 },
			title: title({ x: 130, y: 176, width: 940, height: 290, align: 'middle', stand: 'middle' }),
			line: line({ x: 130, y: 490, width: 940, height: 56, align: 'middle' })
		}
	},
	{
		name: 'Shelf',
		says: 'the picture above, words on a shelf below',
		layout: {
			background: { kind: 'colour', colour: 'ink' },
			picture: { x: 0, y: 0, width: 1200, height: 392, tint: 'ink', strength: 0 },
			logo: { x: 1060, y: 468, width: 84, height: 84 },
			title: title({ x: 56, y: 416, width: 960, height: 126, size: 60, least: 30, colour: 'paper', stand: 'middle' }),
			line: line({ x: 56, y: 552, width: 960, height: 46, size: 28, colour: 'paper' })
		}
	}
];
