import { findTag } from '../catalogue/catalogue';
import type { ContentType, Page, Picture, Rule, RuleBody, Site } from '../model';
import { sameJson, withChanges, type Changes, type PictureEdit, type SettingsEdit } from '../settings';
import { hasGap, hasTwice } from '../text/faults';
import { countGraphemes } from '../text/text';
import type { SiteModel } from './resolve';
import { Resolver } from './resolve';
import type { Resolution } from './resolution';
import type { Head, HeadTag } from './types';

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

/** What an edit does to one page. `better` and `worse` are by what a reader of links would make of the tag. */
export interface ReachedPage {
	readonly path: string;
	readonly before: string;
	readonly after: string;
	readonly verdict: 'better' | 'worse' | 'other';
	/** Why it got worse or better, in words. */
	readonly reason?: string;
}

/** Which pages an edit changes, and how. */
export interface Reach {
	/** Pages that stand under the edited layer. */
	readonly under: number;
	/** Pages whose head comes out different. */
	readonly changed: number;
	readonly better: number;
	readonly worse: number;
	/** The pages to look at first, the worst at the top. */
	readonly worst: readonly ReachedPage[];
}

/** How many changed pages are listed. */
const LISTED = 8;

const sameRule = (rule: Rule, edit: Edit) => rule.tag === edit.tag && (rule.language ?? '') === (edit.language ?? '');

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

/** Finds out which pages an edit changes, before it is kept. `progress` is told how many pages were looked at. */
export function measureReach(
	model: SiteModel,
	pages: Iterable<Page>,
	edit: AnyEdit,
	now: string,
	progress?: (pages: number) => void
): Reach {
	const before = new Resolver(model, now);
	const after = new Resolver(editModel(model, edit), now);
	const found: ReachedPage[] = [];
	const count = { under: 0, changed: 0, better: 0, worse: 0 };
	let seen = 0;
	for (const page of pages) {
		if (++seen % 500 === 0) progress?.(seen);
		if (!isUnder(page, edit)) continue;
		count.under++;
		const [looked, looking] = [before.lookAt(page), after.lookAt(editPage(page, edit))];
		if (tagsOf(edit)?.every((tag) => isUntouched(tag, looked, looking))) continue;
		const [was, will] = [before.headOf(looked), after.headOf(looking)];
		if (sameHead(was, will)) continue;
		count.changed++;
		const tag = tagsOf(edit)?.find((one) => !isUntouched(one, looked, looking)) ?? firstDifference(was, will);
		const change = compare(page.path, tag, [was, looked.gapsOf(tag)], [will, looking.gapsOf(tag)]);
		if (change.verdict !== 'other') count[change.verdict]++;
		keepWorst(found, change);
	}
	return { ...count, worst: found };
}

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
function isUntouched(tag: string, was: Resolution, will: Resolution): boolean {
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

const RANK = { worse: 0, other: 1, better: 2 };

function keepWorst(list: ReachedPage[], page: ReachedPage) {
	list.push(page);
	list.sort((a, b) => RANK[a.verdict] - RANK[b.verdict] || b.after.length - a.after.length);
	if (list.length > LISTED) list.pop();
}

/** The tag to show for a change that is not of one tag. */
function firstDifference(was: Head, will: Head): string {
	const names = [...was.tags, ...will.tags].map(({ tag }) => tag.name);
	return names.find((name) => textIn(was, name) !== textIn(will, name)) ?? 'title';
}

const textIn = (head: Head, name: string) => head.tags.find(({ tag }) => tag.name === name)?.value ?? '';

type WithGaps = readonly [head: Head, gaps: readonly string[]];

function compare(path: string, name: string, [was, gapsBefore]: WithGaps, [will, gapsAfter]: WithGaps): ReachedPage {
	const [before, after] = [textIn(was, name), textIn(will, name)];
	const faultBefore = faultOf(name, before, was, gapsBefore);
	const faultAfter = faultOf(name, after, will, gapsAfter);
	if (faultAfter && !faultBefore) return { path, before, after, verdict: 'worse', reason: `now ${faultAfter}` };
	if (faultBefore && !faultAfter) return { path, before, after, verdict: 'better', reason: `no longer ${faultBefore}` };
	return { path, before, after, verdict: 'other', ...(faultAfter && { reason: `still ${faultAfter}` }) };
}

/** What is wrong with a value in words, or undefined: empty, too long, the site's name twice, a gap left by a variable. */
export function faultOf(name: string, value: string, head: Head, gaps: readonly string[] = []): string | undefined {
	const tag = findTag(name);
	if (value === '') return tag?.kind === 'picture' ? 'without a picture' : 'empty';
	if (tag?.kind !== 'text') return undefined;
	if (gaps.length > 0) return `with a gap: ${gaps.join(', ')} ${gaps.length === 1 ? 'is' : 'are'} empty`;
	if (hasGap(value)) return 'with a gap in its text';
	if (hasTwice(value, textIn(head, 'og:site_name'))) return 'with the site’s name twice';
	const length = countGraphemes(value);
	return tag.aim && length > tag.aim[1] ? `${length} characters, more than ${tag.aim[1]}` : undefined;
}
