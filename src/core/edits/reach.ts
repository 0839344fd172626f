import { publicIn } from '../public';
import { weightOf, type Finding } from '../findings/finding';
import { findInTag, valueIn } from '../findings/pages';
import { brokenPins } from '../findings/pins';
import type { ContentType, Page, Picture, Rule, RuleBody, Site } from '../model';
import type { Head, HeadTag } from '../resolve/head';
import type { SitePages } from '../resolve/others';
import type { PageEvaluation } from '../resolve/page';
import { Resolver, type SiteModel } from '../resolve/resolver';
import { sameJson, withChanges, type Changes, type PictureEdit, type SettingsEdit } from './settings';

/** A rule about to be set in a layer, or taken away when the body is null. */
export interface Edit {
	readonly place:
		| { readonly layer: 'site' }
		| { readonly layer: 'type'; readonly name: string }
		| { readonly layer: 'page'; readonly path: string };
	readonly tag: string;
	readonly language?: string;
	readonly body: RuleBody | null;
}

/** An edit of one rule, or of settings. */
export type AnyEdit = Edit | SettingsEdit;

/** What an edit does to one page, told by the findings on the tag before and after. */
export interface ReachedPage {
	readonly path: string;
	readonly tag: string;
	readonly before: string;
	readonly after: string;
	readonly verdict: 'better' | 'worse' | 'other';
	/** What is wrong only after it, only before it, and both. */
	readonly gained: readonly Finding[];
	readonly lost: readonly Finding[];
	readonly kept: readonly Finding[];
}

/** Which pages an edit changes, and how. */
export interface Reach {
	/** Pages that stand under the edited layer. */
	readonly under: number;
	/** Pages whose head comes out different, under the layer or by reading those that are. */
	readonly changed: number;
	/** Those of them that do not stand under it and read pages that do; missing where there are none. */
	readonly reading?: number;
	readonly better: number;
	readonly worse: number;
	/** Pages that would not be public any more, and those that would come to be. */
	readonly leaving: number;
	readonly entering: number;
	/** Pages that stay as they are because their own file says it, and that is taken before the edited rule (R13). */
	readonly sayThemselves: number;
	/** Pages that would no longer say what they are pinned to; missing where none would lose it. */
	readonly pinned?: number;
	/** The pages to look at first, the worst at the top. */
	readonly worst: readonly ReachedPage[];
}

/** How many changed pages are listed. */
const LISTED = 8;

/** Language tags that differ by case alone are the same. */
const sameRule = (rule: Rule, edit: Edit) =>
	rule.tag === edit.tag && (rule.language ?? '').toLowerCase() === (edit.language ?? '').toLowerCase();

/** The rules with one set, or taken away. */
function editRules(rules: readonly Rule[], edit: Edit): Rule[] {
	const others = rules.filter((rule) => !sameRule(rule, edit));
	return edit.body
		? [...others, { tag: edit.tag, ...(edit.language && { language: edit.language }), ...edit.body }]
		: others;
}

/** What an edit makes of the site, the type, the page or the picture that it is for. */
const edited = <T extends { readonly rules: readonly Rule[] }>(owner: T, edit: AnyEdit): T =>
	'changes' in edit
		? withChanges(owner, edit.changes as Changes<T>)
		: { ...owner, rules: editRules(owner.rules, edit) };

type Model = { site: Site; types: readonly ContentType[]; pictures?: SiteModel['pictures'] };

/** The model as it would be with the edit; a page is edited by `editPage`. */
export function editModel<T extends Model>(model: T, edit: AnyEdit): T {
	const { place } = edit;
	if (place.layer === 'picture') return withPicture(model, edit as PictureEdit);
	if (place.layer === 'site') return { ...model, site: edited(model.site, edit) };
	if (place.layer === 'page') return model;
	return { ...model, types: model.types.map((type) => (type.name === place.name ? edited(type, edit) : type)) };
}

function withPicture<T extends Model>(model: T, { place, changes }: PictureEdit): T {
	if (!Array.isArray(model.pictures)) return model;
	const pictures = (model.pictures as readonly Picture[]).map((picture) =>
		picture.src === place.src ? withChanges(picture, changes) : picture
	);
	return { ...model, pictures };
}

/** The page as it would be with the edit. */
export function editPage(page: Page, edit: AnyEdit): Page {
	const { place } = edit;
	return place.layer === 'page' && place.path === page.path ? edited(page, edit) : page;
}

function isUnder(page: Page, { place }: AnyEdit): boolean {
	if (place.layer === 'picture') return true;
	return place.layer === 'site' || (place.layer === 'type' ? place.name === page.type : place.path === page.path);
}

/** All pages as they would be with the edit. */
function editOthers(others: SitePages | undefined, edit: AnyEdit): SitePages | undefined {
	if (!others || edit.place.layer !== 'page') return others;
	const before = others.at(edit.place.path);
	if (!before) return others;
	const after = editPage(before, edit);
	return {
		at: (path) => (path === after.path ? after : path === before.path ? undefined : others.at(path)),
		leads: (path) => (path === before.path && path !== after.path ? after.path : others.leads(path)),
		below: (folder, limit) => others.below(folder, limit)
	};
}

/**
 * Finds out which pages an edit changes, before it is kept. `progress` is told how many pages were looked at. `readers` are
 * pages that do not stand under the layer and read some that do.
 */
export function measureReach(
	model: SiteModel,
	pages: Iterable<Page>,
	edit: AnyEdit,
	now: string,
	progress?: (pages: number) => void,
	readers: Iterable<Page> = []
): Reach {
	const before = new Resolver(model, now);
	const after = new Resolver({ ...editModel(model, edit), others: editOthers(model.others, edit) }, now);
	const found: ReachedPage[] = [];
	const count = { under: 0, changed: 0, better: 0, worse: 0, leaving: 0, entering: 0, sayThemselves: 0 };
	const [isPublicNow, isPublicThen] = [publicIn(model.types), publicIn(editModel(model, edit).types)];
	let [seen, pinned, reading] = [0, 0, 0];
	const look = (page: Page, isReader: boolean) => {
		const then = editPage(page, edit);
		const [isIn, willBeIn] = [isPublicNow(page), isPublicThen(then)];
		if (isIn !== willBeIn) {
			count.changed++;
			count[isIn ? 'leaving' : 'entering']++;
			return;
		}
		const [was, will] = [before.evaluate(page), after.evaluate(then)];
		if (!isReader) {
			if ('tag' in edit && edit.place.layer !== 'page' && will.winnerOf(edit.tag)?.isFound) count.sayThemselves++;
			if (tagsOf(edit)?.every((tag) => isUntouched(tag, was, will))) return;
		}
		const [headBefore, headAfter] = [before.headOf(was), after.headOf(will)];
		if (sameHead(headBefore, headAfter)) return;
		count.changed++;
		if (isReader) reading++;
		const touched = isReader ? undefined : tagsOf(edit)?.find((one) => !isUntouched(one, was, will));
		const tag = touched ?? firstDifference(headBefore, headAfter);
		if (losesPin(brokenPins(page, headBefore), brokenPins(then, headAfter))) pinned++;
		const change = compare(page, tag, [headBefore, was], [headAfter, will]);
		if (change.verdict !== 'other') count[change.verdict]++;
		keepWorst(found, change);
	};
	for (const page of pages) {
		if (++seen % 500 === 0) progress?.(seen);
		if (!isUnder(page, edit)) continue;
		count.under++;
		look(page, false);
	}
	for (const page of readers) {
		if (++seen % 500 === 0) progress?.(seen);
		look(page, true);
	}
	return { ...count, ...(reading > 0 && { reading }), ...(pinned > 0 && { pinned }), worst: found };
}

/** Whether a pin breaks that held before. */
const losesPin = (before: readonly Finding[], after: readonly Finding[]) =>
	after.some(({ tag }) => !before.some((one) => one.tag === tag));

/** What a page shows that a change of a picture can be seen in; its icons are the same on all pages. */
const PICTURE_TAGS = ['og:image', 'twitter:image', 'icon', 'apple-touch-icon'];

/** The tags by which it can be told whether an edit changes a page; undefined where any could. */
function tagsOf(edit: AnyEdit): readonly string[] | undefined {
	if ('tag' in edit) return [edit.tag];
	return edit.place.layer === 'picture' ? PICTURE_TAGS : undefined;
}

/**
 * Whether an edit leaves a page as it is, told by one tag alone: what comes to the same is read as the same by all
 * other tags. Where rules could go in circles (R7), it cannot be told so.
 */
function isUntouched(tag: string, was: PageEvaluation, will: PageEvaluation): boolean {
	return !was.watch && !will.watch && sameJson(was.valueOf(tag), will.valueOf(tag));
}

/** Whether two heads are written as the same markup. */
function sameHead(was: Head, will: Head): boolean {
	const isSame = (tag: HeadTag, at: number) => {
		const other = will.tags[at] as HeadTag;
		const isIt = tag.tag.name === other.tag.name && tag.value === other.value;
		return isIt && (tag.attributes === other.attributes || sameJson(tag.attributes, other.attributes));
	};
	return (
		was.tags.length === will.tags.length &&
		was.tags.every(isSame) &&
		sameJson([was.html, was.before, was.after], [will.html, will.before, will.after])
	);
}

/** What parts of the pages told, put together. */
export function joinReaches(parts: readonly Reach[]): Reach {
	const sum = (key: Exclude<keyof Reach, 'worst'>) => parts.reduce((all, part) => all + (part[key] ?? 0), 0);
	const [pinned, reading] = [sum('pinned'), sum('reading')];
	const worst: ReachedPage[] = [];
	for (const part of parts) for (const page of part.worst) keepWorst(worst, page);
	return {
		under: sum('under'),
		changed: sum('changed'),
		better: sum('better'),
		worse: sum('worse'),
		leaving: sum('leaving'),
		entering: sum('entering'),
		sayThemselves: sum('sayThemselves'),
		...(reading > 0 && { reading }),
		...(pinned > 0 && { pinned }),
		worst
	};
}

const RANK = { worse: 0, other: 1, better: 2 };

function keepWorst(list: ReachedPage[], page: ReachedPage) {
	list.push(page);
	list.sort((a, b) => RANK[a.verdict] - RANK[b.verdict] || b.after.length - a.after.length);
	if (list.length > LISTED) list.pop();
}

/** The tag to show for a change that is not of one tag. */
function firstDifference(was: Head, will: Head): string {
	const names = [...was.tags, ...will.tags].map(({ tag }) => tag.name);
	return names.find((name) => valueIn(was, name) !== valueIn(will, name)) ?? 'title';
}

type Looked = readonly [head: Head, evaluation: PageEvaluation];

function compare(page: Page, tag: string, [was, before]: Looked, [will, after]: Looked): ReachedPage {
	const findings = (head: Head, evaluation: PageEvaluation) => [
		...findInTag(tag, page, head, evaluation),
		...brokenPins(page, head)
	];
	const [mine, theirs] = [findings(will, after), findings(was, before)];
	const isIn = (list: readonly Finding[], one: Finding) => list.some(({ code }) => code === one.code);
	const gained = mine.filter((one) => !isIn(theirs, one));
	const lost = theirs.filter((one) => !isIn(mine, one));
	const difference = weightOf(gained) - weightOf(lost);
	return {
		path: page.path,
		tag,
		before: valueIn(was, tag),
		after: valueIn(will, tag),
		verdict: difference > 0 ? 'worse' : difference < 0 ? 'better' : 'other',
		gained,
		lost,
		kept: mine.filter((one) => isIn(theirs, one))
	};
}
