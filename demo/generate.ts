import type { ContentType, Page, Picture, Site } from '$core';
import { demoSite } from './content';
import { seeded } from './random';

/** The demo site at any size: the same types and rules, with as many pages as asked for. The same number gives the same pages. */

const FIRST =
	'Salt Ember Gannet Hollin Long Merrow Thrift Plover Skerry Lantern Fulmar Kelp Heron Dune Bracken Curlew'.split(' ');
const SECOND = 'holm marsh head wood strand heath ness mere bank combe point burn sands moor cove fen'.split(' ');
const REGIONS = ['Inner Merrow', 'West Merrow', 'East Merrow', 'the Outer Isles', ''];
const WORDS =
	'the tide comes in over the flats without a sound and every wader on the shore lifts at once turns white and settles again nearer the wall where children wait with nets'.split(
		' '
	);

/** The facts of the demo's pictures as they are known without drawing them. */
const PICTURES: Picture[] = ['coast', 'marsh', 'cliff', 'wood', 'strand', 'dusk'].map((name) => ({
	src: `/pictures/${name}.jpg`,
	width: 1600,
	height: 900,
	type: 'image/jpeg'
}));

export interface GeneratedSite {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly pictures: readonly Picture[];
	readonly pages: Iterable<Page>;
}

/** The site with `count` pages; pages are made while they are asked for, so any number fits in memory. */
export function generateSite(count: number): GeneratedSite {
	const { site, types } = demoSite([]);
	return { site: { ...site, name: `${site.name} (${count})` }, types, pictures: PICTURES, pages: generatePages(count) };
}

const TYPES = ['reserve', 'walk', 'sighting', 'warden'] as const;

function* generatePages(count: number): Generator<Page> {
	const random = seeded('generate');
	const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
	const sentence = (length: number) => {
		const words = Array.from({ length }, () => pick(WORDS)).join(' ');
		return `${words[0]?.toUpperCase()}${words.slice(1)}.`;
	};
	for (let i = 0; i < count; i++) {
		const type = TYPES[i % TYPES.length] as (typeof TYPES)[number];
		const title = `${pick(FIRST)}${pick(SECOND)} ${i}`;
		const region = pick(REGIONS);
		yield {
			path: `/${type}s/${title.toLowerCase().replaceAll(' ', '-')}`,
			type,
			state: 'live',
			modified: `2026-0${1 + (i % 9)}-1${i % 10}T09:30:00+01:00`,
			fields: {
				title,
				...(region && { region, reserve: region, place: region, meeting: `the ${pick(SECOND)}` }),
				// A third have no summary: the built-in takes the opening of the body.
				...(i % 3 !== 0 && { summary: sentence(12 + (i % 20)) }),
				body: `<p>${sentence(18)} ${sentence(22)}</p><p>${sentence(30)}</p>`,
				habitat: pick(SECOND),
				hectares: Math.floor(random() * 1200),
				species: [pick(FIRST), pick(FIRST)],
				starts: `2026-06-1${i % 10}T20:45:00+01:00`,
				price: Math.floor(random() * 40),
				...(i % 5 !== 0 && { picture: { src: pick(PICTURES).src, alt: sentence(5) } })
			},
			rules:
				i % 50 === 0 ? [{ tag: 'og:title', kind: 'template', template: `Number ${i} {separator} {page.title}` }] : []
		};
	}
}
