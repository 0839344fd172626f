import {
	ALL_READERS,
	describeBuiltIns,
	findTag,
	otherWords,
	ownOf,
	type FieldKind,
	type TagDefinition,
	purposeOf
} from '$core';
import { FINDINGS, type About } from './findings';
import { SETTINGS } from './settings';
import { SIGNS, type SignWords } from './signs';
import { wording } from '$ui/words/en/help';

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

/** What is said of topics that have words of their own, in other languages. */
export interface HelpWords {
	readonly findings: typeof FINDINGS;
	readonly settings: typeof SETTINGS;
	readonly signs: SignWords;
	readonly kinds: typeof KINDS;
}
export const HELP_WORDS = otherWords<HelpWords>();
const tables = (): HelpWords =>
	HELP_WORDS.now() ?? { findings: FINDINGS, settings: SETTINGS, signs: SIGNS, kinds: KINDS };

/** What is said of a topic, in the rooms and in the documents alike; undefined of a setting that has no such words. */
export function helpOf(topic: Topic): Help | undefined {
	switch (topic.of) {
		case 'tag':
			return ofTag(topic.name, topic.prefixes);
		case 'sign':
			return { ...tables().signs[topic.name], isCode: false };
		case 'setting': {
			const [first, second, third, example] = ownOf(tables().settings, topic.name) ?? [];
			if (first === undefined) return undefined;
			return { name: topic.name, says: [first, second!, third!], example: example!, isCode: false };
		}
		case 'field':
			return ofField(topic);
		case 'finding': {
			const [why, example] = ownOf(tables().findings as Readonly<Record<string, About>>, topic.code) ?? [];
			if (why === undefined) return undefined;
			return {
				name: wording.whyItMatters,
				says: [sentence(topic.says), why, topic.mend],
				example: example!,
				isCode: true
			};
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
		const first = ALL_READERS.filter((reader) => reader[part][0] === name).length;
		const later = ALL_READERS.filter((reader) => reader[part].indexOf(name) > 0).length;
		const what = wording[part];
		return [...(first > 0 ? [wording.first(first, what)] : []), ...(later > 0 ? [wording.later(later, what)] : [])];
	});
	const chooses = ALL_READERS.filter((reader) => reader.chooses?.by === name).length;
	if (chooses > 0) parts.push(wording.chooseTheSize(chooses));
	if (name === 'icon') parts.push(wording.showTheIcon(ALL_READERS.filter((reader) => reader.icon).length));
	if (/^twitter:(?:label|data)[12]$/.test(name))
		parts.push(wording.showThePairs(ALL_READERS.filter((reader) => reader.pairs).length));
	if (name === 'robots' || name.startsWith('robots:')) return wording.robots;
	if (name === 'og:site_name') return wording.siteName;
	if (fact) return ofPictures()[fact];
	if (parts.length === 0) return wording.noReader;
	return wording.ofReaders(ALL_READERS.length, parts.join(', '));
}
/** What readers do with the facts of a picture. */
const ofPictures = (): Readonly<Record<NonNullable<TagDefinition['fact']>, string>> => ({
	secure: wording.secure,
	type: wording.mediaType,
	width: wording.size,
	height: wording.size,
	alt: wording.alt
});

function withoutRule({ name, fact, parent = '' }: TagDefinition): string {
	if (fact && fact !== 'alt') return wording.noRule(parent);
	if (fact) return wording.altByItself;
	const built = describeBuiltIns(name);
	return built.length === 0 ? wording.leftOut : wording.builtIn(built.join(wording.else));
}

/** What fields of each kind hold, and what templates do with them. */
export const KINDS: Readonly<Record<FieldKind, readonly [holds: string, does: string, example: string]>> = {
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
	const [holds, does, way] = tables().kinds[kind];
	const inside = `page.${name}`;
	const example = way.startsWith('[[') ? way.replace('page.NAME', inside) : `{${inside}${way && ` ${way}`}}`;
	return { name: label ?? name, says: [holds, does, wording.called(inside)], example, isCode: true };
}
