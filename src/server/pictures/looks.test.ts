import { createCanvas, GlobalFonts, type SKRSContext2D } from '@napi-rs/canvas';
import { beforeAll, describe, expect, test } from 'vitest';
import { coverOf, type Area } from '$core';
import { registerFonts, stackOf } from './fonts';
import { looksOf } from './looks';

/**
 * The set that docs/pictures.md tells of: pictures drawn here, some with text of known places, some with what is easily
 * taken for text.
 */
const [W, H] = [800, 420];

/** Pseudo-random numbers from 0 to 1, the same for the same seed. */
function seeded(seed: number) {
	return () => {
		seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
		return seed / 2 ** 32;
	};
}

type Draw = (pen: SKRSContext2D, random: () => number) => void;
const hills: Draw = (pen, random) => {
	for (let ridge = 0; ridge < 4; ridge++) {
		pen.fillStyle = `hsl(${90 + random() * 90} 25% ${65 - ridge * 13}%)`;
		pen.beginPath();
		pen.moveTo(0, H);
		const [a, b] = [random() * 6, random() * 6];
		for (let x = 0; x <= W; x += 8)
			pen.lineTo(x, H * (0.3 + ridge * 0.16) + 22 * Math.sin(x / 90 + a) + 9 * Math.sin(x / 23 + b));
		pen.lineTo(W, H);
		pen.fill();
	}
};
const BACKGROUNDS: Readonly<Record<string, Draw>> = {
	plain: (pen) => pen.fillRect(0, 0, 0, 0),
	fading(pen) {
		const gradient = pen.createLinearGradient(0, 0, W, H);
		gradient.addColorStop(0, '#24505a');
		gradient.addColorStop(1, '#d9a066');
		pen.fillStyle = gradient;
		pen.fillRect(0, 0, W, H);
	},
	hills,
	leaves(pen, random) {
		for (let leaf = 0; leaf < 900; leaf++) {
			pen.fillStyle = `hsl(${70 + random() * 60} ${30 + random() * 30}% ${20 + random() * 45}%)`;
			pen.beginPath();
			pen.ellipse(random() * W, random() * H, 4 + random() * 16, 2 + random() * 7, random() * 6, 0, 7);
			pen.fill();
		}
	},
	waves(pen, random) {
		pen.fillStyle = '#35607a';
		pen.fillRect(0, 0, W, H);
		pen.fillStyle = '#dfeaf0';
		for (let wave = 0; wave < 160; wave++)
			pen.fillRect(random() * W, random() * H, 10 + random() * 60, 1 + random() * 3);
	},
	birds(pen, random) {
		hills(pen, random);
		pen.strokeStyle = '#1d262b';
		for (let bird = 0; bird < 70; bird++) {
			const [x, y, s] = [random() * W, random() * H * 0.5, 4 + random() * 9];
			pen.lineWidth = s * 0.25;
			pen.beginPath();
			pen.moveTo(x - s, y);
			pen.quadraticCurveTo(x - s / 2, y - s * 0.7, x, y);
			pen.quadraticCurveTo(x + s / 2, y - s * 0.7, x + s, y);
			pen.stroke();
		}
	},
	wall(pen) {
		pen.fillStyle = '#8d4b37';
		pen.fillRect(0, 0, W, H);
		pen.strokeStyle = '#d8cfc4';
		pen.lineWidth = 2;
		for (let row = 0; row < 21; row++)
			for (let brick = -1; brick < 17; brick++) pen.strokeRect(brick * 50 + (row % 2) * 25, row * 20, 50, 20);
	},
	grass(pen, random) {
		pen.fillStyle = '#506b34';
		pen.fillRect(0, 0, W, H);
		for (let blade = 0; blade < 1500; blade++) {
			pen.strokeStyle = `hsl(${75 + random() * 40} 40% ${25 + random() * 45}%)`;
			const [x, y] = [random() * W, random() * H];
			pen.beginPath();
			pen.moveTo(x, y);
			pen.lineTo(x + (random() - 0.5) * 14, y - 12 - random() * 26);
			pen.stroke();
		}
	},
	stars(pen, random) {
		pen.fillStyle = '#0c1424';
		pen.fillRect(0, 0, W, H);
		pen.fillStyle = '#f6f2e4';
		for (let star = 0; star < 260; star++) {
			pen.beginPath();
			pen.arc(random() * W, random() * H, 0.6 + random() * 2.4, 0, 7);
			pen.fill();
		}
	}
};

const TEXTS: readonly (readonly [script: string, text: string])[] = [
	['Latin', 'Boats go out when the sea lets them, one day in three'],
	['Latin', 'WINTER WADERS ON THE WALL'],
	['Greek', 'Τα πουλιά της ακτής το χειμώνα'],
	['Cyrillic', 'Птицы на берегу в начале зимы'],
	['Arabic', 'الطيور على الشاطئ في أول الشتاء'],
	['Hebrew', 'ציפורים על החוף בתחילת החורף'],
	['Devanagari', 'सर्दियों की शुरुआत में तट पर पक्षी'],
	['Japanese', '冬のはじめの海辺の鳥たちを見に行く']
];

interface Drawn {
	readonly file: Buffer;
	/** Where the text is: its lines' boxes. */
	readonly text: readonly Area[];
}

function draw(
	background: string,
	seed: number,
	text?: { readonly words: string; readonly size: number; readonly lines: number }
): Drawn {
	const canvas = createCanvas(W, H);
	const pen = canvas.getContext('2d');
	const random = seeded(seed);
	pen.fillStyle = '#e9e2d0';
	pen.fillRect(0, 0, W, H);
	BACKGROUNDS[background]!(pen, random);
	const areas: Area[] = [];
	if (text) {
		const isLight = background !== 'plain';
		// Text on a picture that is busy stands on a veil, as it does where people want it to be read.
		if (isLight) {
			pen.fillStyle = 'rgb(10 24 28 / 0.6)';
			pen.fillRect(0, 0, W, H);
		}
		pen.fillStyle = isLight ? '#fbf7ec' : '#1b2a2e';
		pen.font = `600 ${text.size}px ${stackOf(seed % 2 ? 'Literata' : 'Commissioner')}`;
		pen.textBaseline = 'top';
		const top = 14 + random() * 30;
		for (let line = 0; line < text.lines; line++) {
			const y = top + line * text.size * 1.35;
			const { width, actualBoundingBoxAscent: up, actualBoundingBoxDescent: down } = pen.measureText(text.words);
			const wide = Math.min(width, W - 40);
			if (y + down > H) break;
			pen.fillText(text.words, 20, y, W - 40);
			areas.push([20 / W, (y - up) / H, wide / W, (up + down) / H]);
		}
	}
	return { file: canvas.encodeSync('jpeg', 90), text: areas };
}

beforeAll(() => registerFonts((bytes, name) => GlobalFonts.register(bytes, name)));
const shareOf = async (file: Buffer) => coverOf((await looksOf(file)).text ?? []);
/** From this share on, readers and people find that it is too much. */
const MUCH = 0.2;

describe('text in pictures', () => {
	test('is not seen where there is none: at most one in twenty is said to hold much, the mean is under a fiftieth', async () => {
		const shares: number[] = [];
		for (const background of Object.keys(BACKGROUNDS))
			for (let seed = 1; seed <= 6; seed++) shares.push(await shareOf(draw(background, seed).file));
		const mean = shares.reduce((sum, share) => sum + share, 0) / shares.length;
		if (process.env.KEPHALON_TELL) console.log('without text', { mean, worst: Math.max(...shares), of: shares.length });
		expect(shares.filter((share) => share > MUCH).length / shares.length).toBeLessThanOrEqual(0.05);
		expect(mean).toBeLessThan(0.02);
	});

	const SIZES = [
		[22, 2],
		[30, 3],
		[40, 5],
		[64, 4]
	] as const;
	/** All sizes on all backgrounds take minutes: one of each is looked at, and all where that is asked for. */
	const IS_WHOLE = process.env.KEPHALON_WHOLE === '1';
	test('is measured where there is: nineteen in twenty come out on the right side of a fifth', async () => {
		let [right, all, off] = [0, 0, 0];
		const wrong: string[] = [];
		for (const [at, [script, words]] of TEXTS.entries())
			for (const [of, background] of ['plain', 'fading', 'hills', 'leaves', 'birds', 'stars'].entries())
				for (const [size, lines] of SIZES.filter((_, each) => IS_WHOLE || each === (at + of) % SIZES.length)) {
					const drawn = draw(background, at * 7 + of, { words, size, lines });
					const [known, seen] = [coverOf(drawn.text), await shareOf(drawn.file)];
					all++;
					off += Math.abs(known - seen);
					if (known > MUCH === seen > MUCH) right++;
					else wrong.push(`${script} ${size} on ${background}: ${known.toFixed(2)} seen as ${seen.toFixed(2)}`);
				}
		if (process.env.KEPHALON_TELL) console.log('with text', { right, all, off: off / all }, wrong);
		expect(right / all).toBeGreaterThanOrEqual(0.95);
		expect(off / all).toBeLessThan(0.04);
	});
});

describe('faces', () => {
	const person =
		(skin: string, wide: number, high: number): Draw =>
		(pen, random) => {
			hills(pen, random);
			pen.fillStyle = '#2b1d16';
			pen.beginPath();
			pen.ellipse(400, 190, wide * 1.12, high * 1.1, 0, 0, 7);
			pen.fill();
			pen.fillStyle = skin;
			pen.beginPath();
			pen.ellipse(400, 205, wide, high, 0, 0, 7);
			pen.fill();
		};
	const facesIn = async (drawn: Draw) => {
		const canvas = createCanvas(W, H);
		drawn(canvas.getContext('2d'), seeded(3));
		return looksOf(canvas.encodeSync('jpeg', 90));
	};
	test.each(['#f0c8a8', '#c98d66', '#8a5a3c', '#5c3a28'])(
		'of skin %s are found, and the focus goes there',
		async (skin) => {
			const { faces, focus } = await facesIn(person(skin, 60, 80));
			expect(faces).toHaveLength(1);
			expect(focus![0]).toBeCloseTo(0.5, 1);
			expect(focus![1]).toBeCloseTo(205 / H, 1);
		}
	);
	test('are not seen in hills, leaves, a wall, or in skin that is no upright oval', async () => {
		for (const background of Object.values(BACKGROUNDS)) expect((await facesIn(background)).faces).toBeUndefined();
		expect((await facesIn(person('#f0c8a8', 150, 60))).faces).toBeUndefined();
	});
});

test('a logo is told by its few colours and its size, a photograph of that size is not', async () => {
	const logo = createCanvas(300, 300);
	const pen = logo.getContext('2d');
	pen.fillStyle = '#1f4d4a';
	pen.fillRect(0, 0, 300, 300);
	pen.fillStyle = '#f1e9d6';
	pen.fillRect(60, 120, 180, 60);
	expect((await looksOf(logo.toBuffer('image/png'))).plain).toBe(true);
	expect((await looksOf(draw('leaves', 1).file)).plain).toBeUndefined();
});

test('how light a picture is, cell by cell', async () => {
	const canvas = createCanvas(640, 320);
	const pen = canvas.getContext('2d');
	pen.fillStyle = '#777777';
	pen.fillRect(0, 0, 640, 320);
	pen.fillStyle = '#ffffff';
	pen.fillRect(0, 0, 80, 40);
	pen.fillStyle = '#000000';
	pen.fillRect(560, 280, 80, 40);
	const { light } = await looksOf(canvas.toBuffer('image/png'));
	expect(light).toBe(`ff${'77'.repeat(62)}00`);
	// Half of it in stripes of black and white sends out half the light, which is a light grey.
	for (let y = 0; y < 320; y += 2) {
		pen.fillStyle = y % 4 === 0 ? '#000000' : '#ffffff';
		pen.fillRect(0, y, 640, 2);
	}
	expect((await looksOf(canvas.toBuffer('image/png'))).light).toBe('bc'.repeat(64));
});
