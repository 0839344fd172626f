import { countGraphemes, isCaption, lettersOf, textOfValue, type Page, type Trace } from '$core';
import { resolverOf } from '../heads/heads';
import type { Store } from '../store/store';
import { Repeats } from './repeats';

/** Descriptions shorter than this (graphemes) say too little. */
const SHORT = 50;
/** Pages shown of each kind. */
const SHOWN = 20;

/** A share of the pages, with the oddest of them. */
interface Share {
	readonly pages: number;
	/** From 0 to 1. */
	readonly share: number;
	readonly oddest: readonly { readonly path: string; readonly text: string }[];
}

const KINDS = [
	'descriptionOwn',
	'descriptionFromProse',
	'descriptionByRule',
	'descriptionNone',
	'descriptionShort',
	'descriptionCaption',
	'descriptionShared',
	'titleDoubled',
	'languageKnown',
	'languageAssumed',
	'languageUnknown',
	'pictureOwn',
	'pictureShared',
	'pictureNone'
] as const;
type Kind = (typeof KINDS)[number];

/** How good what came in is: of all live pages, as their heads come to it now. */
export type Quality = {
	readonly pages: number;
	/** Of each tag that pages' own files speak of: what becomes of that. */
	readonly found: Readonly<Record<string, FoundFate>>;
} & Readonly<Record<Kind, Share>>;

/** On how many pages a tag was found, and what becomes of what it says there (R13). */
interface FoundFate {
	readonly pages: number;
	/** It goes out. */
	readonly taken: number;
	/** It stands on so many pages that it is a frame's, or only says the title again. */
	readonly frame: number;
	/** A rule of Kephalon's says something else there. */
	readonly replaced: number;
	/** It is set aside, or not fit for the tag. */
	readonly aside: number;
}

/** What is counted of the pages, one after the other. */
class Tally {
	readonly kinds = Object.fromEntries(
		KINDS.map((kind) => [kind, { pages: 0, oddest: [] as { path: string; text: string }[] }])
	) as Record<Kind, { pages: number; oddest: { path: string; text: string }[] }>;
	readonly fates = new Map<string, Record<keyof FoundFate, number>>();

	note(kind: Kind, path: string, text: string) {
		const share = this.kinds[kind];
		share.pages++;
		// What is odd about a text shows in its shortness first.
		const at = share.oddest.findIndex((other) => other.text.length > text.length);
		share.oddest.splice(at < 0 ? share.oddest.length : at, 0, { path, text });
		if (share.oddest.length > SHOWN) share.oddest.pop();
	}

	noteAll(kind: Kind, pages: number, oddest: readonly { path: string; text: string }[]) {
		this.kinds[kind] = { pages, oddest: [...oddest] };
	}

	noteFate(trace: Trace) {
		const fate = fateOf(trace);
		if (!fate) return;
		const counts = this.fates.get(trace.tag) ?? { pages: 0, taken: 0, frame: 0, replaced: 0, aside: 0 };
		counts.pages++;
		counts[fate]++;
		this.fates.set(trace.tag, counts);
	}

	result(pages: number): Quality {
		const shares = Object.fromEntries(
			KINDS.map((kind) => [kind, { ...this.kinds[kind], share: pages === 0 ? 0 : this.kinds[kind].pages / pages }])
		) as unknown as Record<Kind, Share>;
		const byPages = [...this.fates].sort(([, a], [, b]) => b.pages - a.pages);
		return { pages, found: Object.fromEntries(byPages), ...shares };
	}
}

/** Works it out; goes over the pages once, one at a time. */
export function measureQuality(store: Store, name: string): Quality {
	const stored = store.working.sites.named(name);
	const resolver = resolverOf(store, stored, new Date().toISOString());
	const look = (page: Page) => {
		const { traces } = resolver.resolveWithTrace(page);
		const of = (tag: string) => traces.find((trace) => trace.tag === tag);
		const text = (tag: string) => textOfValue(of(tag)?.value ?? undefined) ?? '';
		const said = { text: text('description'), title: text('title'), picture: text('og:image') };
		return { traces, description: of('description'), ...said };
	};
	const tally = new Tally();
	const [titles, descriptions, pictures] = [new Repeats(), new Repeats(), new Repeats()];
	const paths: string[] = [];
	for (const page of store.working.pages.all(stored.id, 'live')) {
		const { path } = page;
		paths.push(path);
		const { traces, description, text, title, picture } = look(page);
		titles.add(title, lettersOf(title));
		descriptions.add(text, lettersOf(text));
		pictures.add(picture);
		if (page.found) for (const trace of traces) tally.noteFate(trace);
		tally.note(sourceOf(description), path, text);
		if (text !== '' && countGraphemes(text) < SHORT) tally.note('descriptionShort', path, text);
		if (isCaption(text)) tally.note('descriptionCaption', path, text);
		const language = page.language ?? stored.site.languages[0] ?? 'und';
		// Where nothing tells a page's language, it is taken for the site's: that is not known.
		const known = page.language === undefined ? 'languageAssumed' : 'languageKnown';
		tally.note(language === 'und' ? 'languageUnknown' : known, path, language);
		if (picture === '') tally.note('pictureNone', path, '');
	}
	// What others say as well is known when all have been seen; texts are not kept until then, and a few are shown.
	const noteAll = (kind: Kind, which: 'text' | 'title' | 'picture', of: Repeats, numbers: readonly number[]) => {
		const oddest = of.shortest(numbers, SHOWN).map((at) => {
			const path = paths[at]!;
			const page = store.working.pages.at(stored.id, path);
			return { path, text: page ? look(page)[which] : '' };
		});
		tally.noteAll(kind, numbers.length, oddest);
	};
	noteAll('descriptionShared', 'text', descriptions, descriptions.parted().again);
	noteAll('titleDoubled', 'title', titles, titles.parted().again);
	const { again, once } = pictures.parted();
	noteAll('pictureShared', 'picture', pictures, again);
	noteAll('pictureOwn', 'picture', pictures, once);
	return tally.result(paths.length);
}

/** What becomes of what a page's own file says of a tag; undefined where it says nothing. */
function fateOf({ steps, winner }: Trace): Exclude<keyof FoundFate, 'pages'> | undefined {
	const at = steps.findIndex(({ rule }) => rule.kind === 'found');
	const outcome = steps[at]?.outcome.kind;
	if (outcome === undefined) return undefined;
	if (at === winner) return 'taken';
	if (outcome === 'frame' || outcome === 'repeats-title') return 'frame';
	return outcome === 'not-reached' ? 'replaced' : 'aside';
}

/** Where a description comes from: its author, the text, or a rule. */
function sourceOf(trace: Trace | undefined): Kind {
	const winner = trace?.winner === undefined || trace.winner < 0 ? undefined : trace.steps[trace.winner];
	if (!winner) return 'descriptionNone';
	if (winner.rule.kind === 'found') return 'descriptionOwn';
	return winner.layer === 'built-in' ? 'descriptionFromProse' : 'descriptionByRule';
}

/** What each kind is called. */
export const QUALITY_WORDS: Readonly<Record<Kind, string>> = {
	descriptionOwn: 'description: the author’s own',
	descriptionFromProse: 'description: from the text',
	descriptionByRule: 'description: by a rule',
	descriptionNone: 'description: none',
	descriptionShort: `description: shorter than ${SHORT} characters`,
	descriptionCaption: 'description: a caption',
	descriptionShared: 'description: shared with other pages',
	titleDoubled: 'title: shared with other pages',
	languageKnown: 'language: known',
	languageAssumed: 'language: taken for the site’s first',
	languageUnknown: 'language: not known',
	pictureOwn: 'picture: the page’s own',
	pictureShared: 'picture: shared with other pages',
	pictureNone: 'picture: none'
};
