import { mkdir, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Picture } from '$core';
import { readPictureFacts } from '$server/files/pictureFacts';
import { seeded } from './random';

/** The demo's pictures, drawn here: landscapes, birds, people, a map, a logo. */

interface Scene {
	readonly name: string;
	readonly size?: readonly [width: number, height: number];
	readonly sky: readonly [string, string];
	readonly land: readonly string[];
	/** Where the horizon lies, as a share of the height. */
	readonly horizon: number;
	readonly sea?: string;
	readonly sun?: readonly [x: number, y: number, colour: string];
	readonly draw?: (pen: Pen) => string;
	readonly alt?: string;
}

interface Pen {
	readonly w: number;
	readonly h: number;
	readonly random: () => number;
}

const SCENES: readonly Scene[] = [
	{
		name: 'coast',
		sky: ['#b9d4dc', '#f4e7cf'],
		land: ['#5f7f7c', '#3c5d58', '#27413c'],
		horizon: 0.52,
		sea: '#7fa9ac',
		sun: [0.72, 0.34, '#fff3d6'],
		draw: (pen) => flock(pen, 9, 0.28)
	},
	{ name: 'path', sky: ['#cfe3e6', '#eef0df'], land: ['#9db38a', '#b5a76c', '#8b8a4e'], horizon: 0.42, draw: boards },
	{ name: 'map', sky: ['#dcebec', '#dcebec'], land: [], horizon: 1, draw: chart },
	{
		name: 'marsh',
		sky: ['#e9b98a', '#f7e3c1'],
		land: ['#8a8f6a', '#6b6f4a', '#4d5236'],
		horizon: 0.45,
		sun: [0.25, 0.33, '#fff1cf'],
		draw: (pen) => creeks(pen) + flock(pen, 14, 0.2)
	},
	{
		name: 'cliff',
		sky: ['#8fb3c7', '#d7e6ea'],
		land: ['#46525a'],
		horizon: 0.7,
		sea: '#3f6f83',
		draw: (pen) => headland(pen) + flock(pen, 40, 0.4)
	},
	{ name: 'wood', sky: ['#cdd8cf', '#e6ebe1'], land: ['#8fa38d', '#6c8468', '#48614a'], horizon: 0.5, draw: oaks },
	{
		name: 'strand',
		sky: ['#a9c6d9', '#f0efe6'],
		land: ['#c9b79a', '#b19b78', '#97815f'],
		horizon: 0.62,
		sea: '#86aab6',
		draw: (pen) => flock(pen, 4, 0.35)
	},
	{
		name: 'heath-small',
		size: [160, 120],
		sky: ['#d7c7da', '#f2e4e0'],
		land: ['#9a6f93', '#7d5177', '#5a3a57'],
		horizon: 0.5
	},
	{
		name: 'skerry-tall',
		size: [900, 1350],
		sky: ['#7fa2b8', '#e3ded0'],
		land: ['#3b4650'],
		horizon: 0.72,
		sea: '#44738a',
		draw: lighthouse
	},
	{
		name: 'dusk',
		sky: ['#2c3a5a', '#d98a5b'],
		land: ['#4a3a4d', '#33283a', '#1f1a28'],
		horizon: 0.6,
		sun: [0.6, 0.56, '#ffc98a']
	},
	{
		name: 'boat',
		sky: ['#9cbccd', '#e5edec'],
		land: ['#566068'],
		horizon: 0.6,
		sea: '#4b7c8f',
		draw: (pen) => headland(pen) + boat(pen) + flock(pen, 30, 0.4)
	},
	{
		name: 'waders',
		sky: ['#b5bcc4', '#e3dfd7'],
		land: ['#8f887b', '#756d60'],
		horizon: 0.66,
		draw: (pen) => flock(pen, 120, 0.5)
	},
	{
		name: 'eagle',
		sky: ['#9bb4c0', '#dfe7e4'],
		land: ['#6f7f6a', '#55664f'],
		horizon: 0.74,
		sea: '#8fb0b8',
		draw: (pen) => bird(pen, 0.52, 0.36, 0.5, '#4a3626', '#efe6d2')
	},
	{ name: 'hoopoe', sky: ['#dfe4d4', '#efe9d8'], land: ['#b9ad93', '#a39679'], horizon: 0.68, draw: perched },
	{
		name: 'petrel',
		sky: ['#101a2c', '#2c4058'],
		land: ['#0d141f'],
		horizon: 0.82,
		sun: [0.7, 0.28, '#f3efdc'],
		draw: (pen) =>
			bird(pen, 0.4, 0.45, 0.16, '#05080f', '#f3efdc') +
			bird(pen, 0.58, 0.3, 0.1, '#05080f', '#f3efdc') +
			bird(pen, 0.25, 0.28, 0.08, '#05080f', '#f3efdc')
	},
	{
		name: 'isla',
		size: [1000, 1000],
		sky: ['#c5d8dc', '#efe6d4'],
		land: ['#7f9280', '#64775f'],
		horizon: 0.66,
		draw: portrait
	}
];

function flock({ w, h, random }: Pen, count: number, depth: number): string {
	return Array.from({ length: count }, () => {
		const [x, y, s] = [random() * w, (0.06 + random() * depth) * h, (0.006 + random() * 0.014) * w];
		return `<path d="M${x - s} ${y} q${s * 0.5} ${-s * 0.7} ${s} 0 q${s * 0.5} ${-s * 0.7} ${s} 0" fill="none" stroke="#26313a" stroke-width="${s * 0.16}" stroke-linecap="round"/>`;
	}).join('');
}

function bird({ w, h }: Pen, x: number, y: number, size: number, dark: string, light: string): string {
	const s = size * w;
	return `<g transform="translate(${x * w} ${y * h})" fill="${dark}"><path d="M0 0 C${-s * 0.2} ${-s * 0.2} ${-s * 0.45} ${-s * 0.2} ${-s * 0.6} ${-s * 0.08} C${-s * 0.4} ${-s * 0.1} ${-s * 0.2} ${s * 0.02} 0 ${s * 0.08} C${s * 0.2} ${s * 0.02} ${s * 0.4} ${-s * 0.1} ${s * 0.6} ${-s * 0.08} C${s * 0.45} ${-s * 0.2} ${s * 0.2} ${-s * 0.2} 0 0z"/><ellipse cx="0" cy="${s * 0.05}" rx="${s * 0.05}" ry="${s * 0.14}"/><path d="M${-s * 0.05} ${s * 0.16} L0 ${s * 0.26} L${s * 0.05} ${s * 0.16}z" fill="${light}"/></g>`;
}

function creeks({ w, h, random }: Pen): string {
	return Array.from({ length: 5 }, (_, i) => {
		const y = h * (0.56 + i * 0.09);
		const bend = (random() - 0.5) * w * 0.3;
		return `<path d="M${-w * 0.05} ${y} C${w * 0.3 + bend} ${y - h * 0.06} ${w * 0.5 - bend} ${y + h * 0.08} ${w * 1.05} ${y - h * 0.02}" fill="none" stroke="#f0d9b4" stroke-opacity="0.75" stroke-width="${h * (0.008 + i * 0.006)}"/>`;
	}).join('');
}

function boards({ w, h }: Pen): string {
	return Array.from({ length: 16 }, (_, i) => {
		const t = (i / 16) ** 1.6;
		const [y, half] = [h * (0.46 + t * 0.58), w * (0.02 + t * 0.17)];
		return `<rect x="${w * 0.52 - half - t * w * 0.06}" y="${y}" width="${half * 2}" height="${h * (0.006 + t * 0.028)}" fill="#8d7a5d"/>`;
	}).join('');
}

function headland({ w, h, random }: Pen): string {
	const points = Array.from(
		{ length: 12 },
		(_, i) => `${w * (0.45 + i * 0.05)},${h * (0.66 - Math.min(0.42, i * 0.07) - random() * 0.04)}`
	);
	const marks = Array.from(
		{ length: 90 },
		() =>
			`<circle cx="${w * (0.68 + random() * 0.32)}" cy="${h * (0.32 + random() * 0.32)}" r="${w * 0.0025}" fill="#fff" fill-opacity="0.85"/>`
	);
	return `<polygon points="${w * 0.42},${h * 0.72} ${points.join(' ')} ${w},${h * 0.72}" fill="#3a444b"/>${marks.join('')}`;
}

function oaks({ w, h, random }: Pen): string {
	return Array.from({ length: 11 }, (_, i) => {
		const [x, y, s] = [w * (0.04 + i * 0.095), h * (0.62 + random() * 0.2), h * (0.13 + random() * 0.08)];
		return `<g opacity="0.92"><path d="M${x} ${y + s} q${-s * 0.1} ${-s * 0.6} ${s * 0.12} ${-s}" stroke="#2f3b2d" stroke-width="${s * 0.13}" fill="none"/><ellipse cx="${x + s * 0.1}" cy="${y - s * 0.1}" rx="${s * 0.75}" ry="${s * 0.45}" fill="#3d5640"/><ellipse cx="${x - s * 0.3}" cy="${y + s * 0.12}" rx="${s * 0.45}" ry="${s * 0.3}" fill="#4a6650"/></g>`;
	}).join('');
}

function lighthouse({ w, h }: Pen): string {
	return `<path d="M${w * 0.1} ${h * 0.8} L${w * 0.25} ${h * 0.66} L${w * 0.5} ${h * 0.6} L${w * 0.75} ${h * 0.68} L${w * 0.95} ${h * 0.82}z" fill="#2b343b"/><path d="M${w * 0.44} ${h * 0.62} L${w * 0.465} ${h * 0.3} H${w * 0.545} L${w * 0.57} ${h * 0.62}z" fill="#efe9dc"/><path d="M${w * 0.452} ${h * 0.47} H${w * 0.56} L${w * 0.564} ${h * 0.53} H${w * 0.448}z" fill="#a2473c"/><rect x="${w * 0.455}" y="${h * 0.25}" width="${w * 0.1}" height="${h * 0.05}" fill="#39434a"/><path d="M${w * 0.445} ${h * 0.25} L${w * 0.505} ${h * 0.215} L${w * 0.565} ${h * 0.25}z" fill="#a2473c"/><path d="M${w * 0.46} ${h * 0.275} L0 ${h * 0.2} V${h * 0.34}z" fill="#fff6d8" fill-opacity="0.5"/>`;
}

function boat({ w, h }: Pen): string {
	return `<path d="M${w * 0.2} ${h * 0.76} H${w * 0.4} L${w * 0.37} ${h * 0.83} H${w * 0.23}z" fill="#8c3f33"/><rect x="${w * 0.27}" y="${h * 0.68}" width="${w * 0.06}" height="${h * 0.08}" fill="#f2ecdf"/><path d="M${w * 0.1} ${h * 0.845} q${w * 0.1} ${-h * 0.02} ${w * 0.2} 0 t${w * 0.2} 0" stroke="#dfeaea" stroke-width="${h * 0.007}" fill="none"/>`;
}

function perched({ w, h }: Pen): string {
	const s = h * 0.2;
	return `<g transform="translate(${w * 0.48} ${h * 0.58})"><ellipse cx="0" cy="0" rx="${s}" ry="${s * 0.62}" fill="#d49a72"/><path d="M${-s * 0.9} ${s * 0.1} L${-s * 2} ${s * 0.7} L${-s * 0.6} ${s * 0.5}z" fill="#26211d"/><path d="M${-s * 0.8} ${-s * 0.2} L${s * 0.3} ${s * 0.5} L${-s * 1.1} ${s * 0.4}z" fill="#efe8db"/><path d="M${-s * 0.7} ${s * 0.05} L${s * 0.1} ${s * 0.4} M${-s * 0.9} ${s * 0.2} L${-s * 0.1} ${s * 0.5}" stroke="#26211d" stroke-width="${s * 0.1}"/><circle cx="${s * 0.95}" cy="${-s * 0.55}" r="${s * 0.4}" fill="#d9a27c"/><path d="M${s * 0.75} ${-s * 0.85} L${s * 0.2} ${-s * 1.7} L${s * 0.95} ${-s * 1.05} L${s * 0.75} ${-s * 1.9} L${s * 1.15} ${-s * 0.95}z" fill="#c98a60"/><path d="M${s * 1.3} ${-s * 0.6} q${s * 0.5} ${s * 0.02} ${s * 0.9} ${s * 0.35}" stroke="#26211d" stroke-width="${s * 0.09}" fill="none"/><circle cx="${s * 1.05}" cy="${-s * 0.6}" r="${s * 0.06}" fill="#111"/><path d="M0 ${s * 0.55} v${s * 0.55} M${s * 0.25} ${s * 0.5} v${s * 0.6}" stroke="#5a4634" stroke-width="${s * 0.08}"/></g>`;
}

function portrait({ w, h }: Pen): string {
	return `<path d="M${w * 0.18} ${h} C${w * 0.2} ${h * 0.72} ${w * 0.36} ${h * 0.66} ${w * 0.5} ${h * 0.66} C${w * 0.64} ${h * 0.66} ${w * 0.8} ${h * 0.72} ${w * 0.82} ${h}z" fill="#2f4f6b"/><rect x="${w * 0.44}" y="${h * 0.55}" width="${w * 0.12}" height="${h * 0.14}" fill="#d6a585"/><ellipse cx="${w * 0.5}" cy="${h * 0.44}" rx="${w * 0.14}" ry="${h * 0.17}" fill="#e2b495"/><path d="M${w * 0.35} ${h * 0.5} C${w * 0.32} ${h * 0.24} ${w * 0.68} ${h * 0.24} ${w * 0.65} ${h * 0.5} C${w * 0.63} ${h * 0.36} ${w * 0.56} ${h * 0.34} ${w * 0.46} ${h * 0.36} C${w * 0.4} ${h * 0.37} ${w * 0.37} ${h * 0.42} ${w * 0.35} ${h * 0.5}z" fill="#5b3d2c"/>`;
}

function chart({ w, h, random }: Pen): string {
	const shore = Array.from(
		{ length: 24 },
		(_, i) => `${(i / 23) * w},${h * (0.55 + Math.sin(i * 0.9) * 0.08 + (random() - 0.5) * 0.09)}`
	).join(' ');
	const rings = Array.from(
		{ length: 5 },
		(_, i) =>
			`<ellipse cx="${w * 0.3}" cy="${h * 0.18}" rx="${w * (0.22 - i * 0.04)}" ry="${h * (0.14 - i * 0.026)}" fill="none" stroke="#8a9a6c" stroke-width="2"/>`
	).join('');
	const places = [
		[0.16, 0.42],
		[0.34, 0.48],
		[0.55, 0.4],
		[0.72, 0.5],
		[0.86, 0.36]
	]
		.map(
			([x, y]) =>
				`<circle cx="${w * x!}" cy="${h * y!}" r="${h * 0.018}" fill="#a2473c" stroke="#fff" stroke-width="4"/>`
		)
		.join('');
	return `<polygon points="0,0 ${shore} ${w},0" fill="#dfe3c4" stroke="#6d7f5a" stroke-width="4"/>${rings}${places}`;
}

/** A ridge from side to side: sums of waves, so that it rolls. */
function ridge({ w, h, random }: Pen, y: number, rough: number): string {
	const [a, b, c] = [random() * 6, random() * 6, random() * 6];
	const points = Array.from({ length: 60 }, (_, i) => {
		const t = i / 59;
		return `${t * w},${h * (y + rough * (Math.sin(t * 5 + a) * 0.5 + Math.sin(t * 11 + b) * 0.3 + Math.sin(t * 23 + c) * 0.12))}`;
	});
	return `0,${h} ${points.join(' ')} ${w},${h}`;
}

function svgOf({ size = [1600, 900], ...scene }: Scene): string {
	const [w, h] = size;
	const pen: Pen = { w, h, random: seeded(scene.name) };
	const glow = scene.sun
		? `<circle cx="${w * scene.sun[0]}" cy="${h * scene.sun[1]}" r="${h * 0.055}" fill="${scene.sun[2]}"/><circle cx="${w * scene.sun[0]}" cy="${h * scene.sun[1]}" r="${h * 0.16}" fill="${scene.sun[2]}" fill-opacity="0.25"/>`
		: '';
	const sea = scene.sea
		? `<rect y="${h * scene.horizon}" width="${w}" height="${h}" fill="${scene.sea}"/>${Array.from({ length: 26 }, () => `<rect x="${pen.random() * w}" y="${h * (scene.horizon + 0.02 + pen.random() * 0.4)}" width="${w * (0.03 + pen.random() * 0.12)}" height="2" fill="#fff" fill-opacity="0.28"/>`).join('')}`
		: '';
	const land = scene.land
		.map(
			(colour, i) =>
				`<polygon points="${ridge(pen, scene.horizon + (scene.sea ? 0.16 : 0.02) + i * 0.14, 0.06)}" fill="${colour}"/>`
		)
		.join('');
	return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><defs><linearGradient id="s" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${scene.sky[0]}"/><stop offset="0.7" stop-color="${scene.sky[1]}"/></linearGradient></defs><rect width="${w}" height="${h}" fill="url(#s)"/>${glow}${sea}${land}${scene.draw?.(pen) ?? ''}</svg>`;
}

const LOGO = (s: number) =>
	`<svg xmlns="http://www.w3.org/2000/svg" width="${s}" height="${s}" viewBox="0 0 100 100"><rect width="100" height="100" rx="18" fill="#1f4d4a"/><path d="M14 66 q12 -14 24 0 t24 0 t24 0" fill="none" stroke="#f1e9d6" stroke-width="7" stroke-linecap="round"/><path d="M28 44 q11 -16 22 0 q11 -16 22 0" fill="none" stroke="#f1e9d6" stroke-width="6" stroke-linecap="round"/></svg>`;

export interface DrawnPicture {
	readonly file: string;
	readonly picture: Picture;
}

/** Draws what is not drawn yet into a folder, and tells the facts of every picture as read from its file. */
export async function drawPictures(folder: string): Promise<DrawnPicture[]> {
	await mkdir(join(folder, 'pictures'), { recursive: true });
	const jobs: [file: string, make: () => Promise<Buffer>][] = [
		...SCENES.map((scene): [string, () => Promise<Buffer>] => [
			`${scene.name}.jpg`,
			() =>
				sharp(Buffer.from(svgOf(scene)))
					.jpeg({ quality: 82 })
					.toBuffer()
		]),
		[
			'logo.png',
			() =>
				sharp(Buffer.from(LOGO(180)))
					.png()
					.toBuffer()
		],
		[
			'icon.png',
			() =>
				sharp(Buffer.from(LOGO(512)))
					.png()
					.toBuffer()
		]
	];
	const pictures: DrawnPicture[] = [];
	for (const [file, make] of jobs) {
		const path = join(folder, 'pictures', file);
		if (!existsSync(path)) await writeFile(path, await make());
		const facts = await readPictureFacts(path);
		if (facts) pictures.push({ file: path, picture: { src: `/pictures/${file}`, ...facts } });
	}
	return pictures;
}
