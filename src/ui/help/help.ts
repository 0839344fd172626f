import { ALL_READERS, describeBuiltIns, findTag, ownOf, type FieldKind, type TagDefinition, purposeOf } from '$core';
import { FINDINGS, type About } from './findings';
import { SETTINGS } from './settings';
import { SIGNS } from './signs';

/** What somebody asks about. */
export type Topic =
	| { readonly of: 'tag'; readonly name: string; readonly prefixes?: Readonly<Record<string, string>> | undefined }
	| { readonly of: 'sign'; readonly name: keyof typeof SIGNS }
	| { readonly of: 'setting'; readonly name: string }
	| { readonly of: 'field'; readonly name: string; readonly kind: FieldKind; readonly label?: string | undefined }
	/** A finding as it is told, with how it is mended. */
	| { readonly of: 'finding'; readonly code: string; readonly says: string; readonly mend: string };

/** The answer: three sentences and an example. */
export interface Help {
	readonly name: string;
	readonly says: readonly string[];
	readonly example: string;
	/** The example is markup, a template or a path. */
	readonly isCode: boolean;
}

/** What is said of a topic, in the rooms and in the documents alike; undefined of a setting that has no such words. */
export function helpOf(topic: Topic): Help | undefined {
	switch (topic.of) {
		case 'tag':
			return ofTag(topic.name, topic.prefixes);
		case 'sign':
			return { ...SIGNS[topic.name], isCode: false };
		case 'setting': {
			const [first, second, third, example] = ownOf(SETTINGS, topic.name) ?? [];
			if (first === undefined) return undefined;
			return { name: topic.name, says: [first, second!, third!], example: example!, isCode: false };
		}
		case 'field':
			return ofField(topic);
		case 'finding': {
			const [why, example] = ownOf(FINDINGS as Readonly<Record<string, About>>, topic.code) ?? [];
			if (why === undefined) return undefined;
			return { name: 'Why it matters', says: [sentence(topic.says), why, topic.mend], example: example!, isCode: true };
		}
	}
}

const sentence = (text: string) => (/[.!?…”]$/.test(text) ? text : `${text}.`);

/** What a value of each kind of tag looks like. */
const VALUES: Readonly<Record<TagDefinition['kind'], string>> = {
	text: 'The walk to the old light',
	address: 'https://www.merrow.example/walks/old-light',
	picture: 'https://www.merrow.example/pictures/old-light.jpg',
	date: '2026-05-03T18:30:00+02:00',
	number: '630',
	choice: '',
	language: 'en-GB',
	locale: 'en_GB',
	handle: '@merrowcoast',
	colour: '#0b5d5b',
	directives: 'noindex',
	mediaType: 'image/jpeg'
};

function ofTag(name: string, prefixes: Readonly<Record<string, string>> = {}): Help | undefined {
	const tag = findTag(name, prefixes);
	if (!tag) return undefined;
	const value = tag.choices?.[0] ?? VALUES[tag.kind];
	return {
		name,
		says: [purposeOf(tag), readBy(tag), `${withoutRule(tag)}${tag.legacy ? ` ${tag.legacy}` : ''}`],
		example: tag.place === 'title' ? `<title>${value}</title>` : `${tag.markup}${value}">`,
		isCode: true
	};
}

/** Which of the readers take it, and for what: by what their profiles say, so that it is so. */
function readBy({ name, fact }: TagDefinition): string {
	const parts = (['title', 'description', 'picture', 'place'] as const).flatMap((part) => {
		const first = ALL_READERS.filter((reader) => reader[part][0] === name);
		const later = ALL_READERS.filter((reader) => reader[part].indexOf(name) > 0);
		const what = PARTS[part];
		return [
			...(first.length > 0 ? [`${many(first.length)} ${first.length === 1 ? 'takes' : 'take'} it for ${what}`] : []),
			...(later.length > 0
				? [`${many(later.length)} ${later.length === 1 ? 'takes' : 'take'} it for ${what} where nothing better is said`]
				: [])
		];
	});
	const chooses = ALL_READERS.filter((reader) => reader.chooses?.by === name).length;
	if (chooses > 0) parts.push(`${many(chooses)} ${chooses === 1 ? 'chooses' : 'choose'} the size of its card by it`);
	const icons = ALL_READERS.filter((reader) => reader.icon).length;
	if (name === 'icon') parts.push(`${many(icons)} show it`);
	if (/^twitter:(?:label|data)[12]$/.test(name))
		parts.push(`${many(ALL_READERS.filter((reader) => reader.pairs).length)} shows it`);
	if (name === 'robots' || name.startsWith('robots:'))
		return 'Search engines keep to it; readers of links make cards all the same.';
	if (name === 'og:site_name') return 'Where a card names the site, it says this; else it says the host.';
	if (fact) return OF_PICTURES[fact];
	if (parts.length === 0)
		return 'No reader shown here makes its card of it; programs that know its vocabulary read it.';
	return `Of ${ALL_READERS.length} readers here, ${parts.join(', ')}.`;
}
/** What readers do with the facts of a picture. */
const OF_PICTURES: Readonly<Record<NonNullable<TagDefinition['fact']>, string>> = {
	secure: 'Readers here take the picture by its own address; others may take this one.',
	type: 'What the file is when it is fetched counts for more.',
	width: 'Readers lay their cards out by it before the picture has come.',
	height: 'Readers lay their cards out by it before the picture has come.',
	alt: 'It goes out with the picture, for people who hear the card.'
};
const PARTS = { title: 'the title', description: 'the text', picture: 'the picture', place: 'the address' } as const;
const NUMBERS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const many = (count: number) => NUMBERS[count] ?? String(count);

function withoutRule({ name, fact, parent }: TagDefinition): string {
	if (fact && fact !== 'alt') return `It takes no rule: it goes with ${parent}, whose picture it is of.`;
	if (fact) return 'Where no rule says anything, it is the alt text of the picture.';
	const built = describeBuiltIns(name);
	return built.length === 0
		? 'Where no rule says anything, it is left out.'
		: `Where no rule says anything, it is ${built.join(', else ')}.`;
}

/** What fields of each kind hold, and what templates do with them. */
const KINDS: Readonly<Record<FieldKind, readonly [holds: string, does: string, example: string]>> = {
	text: ['Words on one line or a few.', 'Templates put them in as they are, and can clip them.', '| clip 60'],
	rich: ['A text with headings, lists and links.', 'Templates take its words without their markup.', '| sentences 1'],
	number: ['A number, without a unit.', 'Templates print it as the page’s language writes numbers.', '| number'],
	date: [
		'A day, or a moment, or from one to another.',
		'Templates print it in the page’s language.',
		'| date "d MMMM"'
	],
	flag: ['Yes or no.', 'Templates ask it, and print words for it.', '[[{page.NAME?}Free]]'],
	choice: ['One of a few values.', 'Each has words in each language of the site.', ''],
	link: ['An address, or a path of the site.', 'Templates print it whole.', ''],
	list: ['Several words.', 'Templates join them as the page’s language does.', '| join'],
	picture: ['A picture with alt text.', 'Picture sources take it; templates know its parts.', ''],
	pictures: ['Several pictures.', 'Picture sources take the first that fits.', ''],
	person: ['Somebody: a name, an account, an address, a picture.', 'Templates know each part.', ''],
	people: ['Several people.', 'Templates join their names.', '| join'],
	page: ['Another page of the site.', 'Templates read its fields, and what its head comes to.', ''],
	pages: ['Several other pages.', 'Templates read the first, or join what they say.', '']
};

function ofField({ name, kind, label }: Extract<Topic, { of: 'field' }>): Help {
	const [holds, does, way] = KINDS[kind];
	const inside = `page.${name}`;
	const example = way.startsWith('[[') ? way.replace('page.NAME', inside) : `{${inside}${way && ` ${way}`}}`;
	return { name: label ?? name, says: [holds, does, `They call it {${inside}}.`], example, isCode: true };
}
