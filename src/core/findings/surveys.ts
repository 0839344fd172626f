import { ownOf } from '../own';
import type { Page } from '../model';
import { cardOf, type Card } from '../readers/card';
import { READERS } from '../readers/profiles';
import { Resolver, type SiteModel } from '../resolve/resolver';
import { isEmpty } from '../template/values';
import type { Finding, FindingCode } from './finding';
import { findInShare } from './share';

/** The pages that would be shared worst as the site is now, and what would mend most of them. */
export interface WorstPages {
	readonly pages: number;
	readonly faulty: number;
	readonly worst: readonly { readonly path: string; readonly findings: readonly Finding[]; readonly card: Card }[];
	/** The kinds of finding, the one that spoils most at the top. */
	readonly mends: readonly {
		readonly code: FindingCode;
		readonly tag: string | undefined;
		readonly pages: number;
		readonly mend: string;
	}[];
}

/** Why a page is hard on a template. */
export const HARD_KINDS = {
	longest: 'the longest title',
	shortest: 'the shortest title',
	missing: 'the most fields missing',
	strange: 'the strangest characters',
	cut: 'the most text cut',
	unread: 'a share picture that cannot be read'
} as const;
export type HardKind = keyof typeof HARD_KINDS;

export interface HardPage {
	readonly kind: HardKind;
	readonly path: string;
	/** How hard: characters, fields, share of strange characters in a hundred, or findings on its share picture. */
	readonly measure: number;
}

/** For each kind of hardness the hardest among some pages. */
export function findHard(model: SiteModel, pages: Iterable<Page>, now: string): HardPage[] {
	const resolver = new Resolver(model, now);
	const declared = new Map(model.types.map((one) => [one.name, one.fields.map((field) => field.name)]));
	const hardest = new Map<HardKind, HardPage>();
	const note = (kind: HardKind, path: string, measure: number) => {
		const known = hardest.get(kind);
		const isHarder = !known || (kind === 'shortest' ? measure < known.measure : measure > known.measure);
		if (isHarder) hardest.set(kind, { kind, path, measure });
	};
	for (const page of pages) {
		const evaluation = resolver.evaluate(page);
		const head = resolver.headOf(evaluation);
		const text = (name: string) => head.tags.find(({ tag }) => tag.name === name)?.value ?? '';
		const [title, description] = [text('title'), text('description')];
		note('longest', page.path, title.length);
		note('shortest', page.path, title.length);
		note('missing', page.path, missingOf(page, declared.get(page.type) ?? []));
		note('strange', page.path, strangeness(title + description));
		note('cut', page.path, cutOf(head));
		note('unread', page.path, findInShare(evaluation.sharePicture()?.recipe, evaluation.shareLead(), page.path).length);
	}
	return [...hardest.values()].filter(({ kind, measure }) => kind === 'longest' || kind === 'shortest' || measure > 0);
}

/** How many of the fields that a page could have it leaves empty. */
export const missingOf = (page: Page, fields: readonly string[]) =>
	[...fields, 'summary', 'picture'].filter((name) => isEmpty(ownOf(page.fields, name))).length;

/** Characters beyond letters, digits, spaces and plain punctuation, in a hundred. */
export function strangeness(text: string): number {
	if (text === '') return 0;
	return Math.round((100 * text.replace(/[\p{Script=Latin}\p{Nd}\s.,;:!?'’()·–-]+/gu, '').length) / text.length);
}

const cutOf = (head: Parameters<typeof cardOf>[1]) =>
	READERS.reduce((sum, reader) => {
		const { title, description } = cardOf(reader, head);
		return sum + title.cut.length + description.cut.length;
	}, 0);
