import type { Pieces } from '../template/pieces';
import { findTag, PICTURE_FACT_TAGS } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { FoundPolicy, FoundTag, Layer, Rule } from '../model';
import { compileTemplate, MAX_OUTPUT, type CompiledTemplate } from '../template/compile';
import { toText } from '../template/values';
import { settleText } from '../text/text';
import { carriesAttributes, legalAttributes } from './attributes';
import type { BuiltIn } from './builtIns';
import { foundBook } from './found';
import { expectedOf, legalValue } from './legal';
import { choosePictures, inShapes, pictureAt, secureOf } from './pictures';
import type { PageScope } from './scope';
import type { Outcome, SkippedSource, TraceStep } from './trace';
import { textOfItem, textOfValue, type ChosenPicture, type Link, type TagItem, type TagValue } from './value';

const NOTHING: Outcome = { kind: 'empty', variables: [] };

/** The answer of a rule that ends the search (R4). */
export const LEFT_OUT = Symbol('left out');

export type Evaluate = (page: PageScope) => TagValue | typeof LEFT_OUT | undefined;

/** One thing that could give a tag its value, made ready once; running it parses nothing. */
export interface Candidate {
	/** Where it stands in the order of layers; a found value that comes last stands with the built-ins. */
	readonly layer: Layer;
	readonly rule?: Rule;
	readonly builtIn?: BuiltIn;
	/** It is what the page's own file said. */
	readonly isFound?: true;
	/** Tags whose outcome it asks for. */
	readonly reads: readonly string[];
	/** It asks what the heads of other pages came to. */
	readonly readsHeads?: true;
	/** It comes to the same on all pages of a type and language. */
	readonly isConstant: boolean;
	/** It comes to the same wherever the tags do that it reads. */
	readonly isDerived?: true;
	/** How a trace names it; for a found value, without the value itself. */
	readonly base: Omit<TraceStep, 'outcome'>;
	/** What usually becomes of it when it does not win. */
	readonly usual: Outcome;
	/** It is the value of this tag, as it is: a plan can read it by its place. */
	readonly takes?: string;
	/** The variables that left a gap in its text. */
	readonly gaps?: (page: PageScope) => readonly string[];
	/** The value, or undefined when the next candidate is to be tried. */
	readonly evaluate: Evaluate;
	/** Why it did not win, where there can be more to say than the usual. Only asked for by a trace. */
	readonly explainLoss?: (page: PageScope) => Outcome | undefined;
	/** What there is to say of its winning, where there can be anything. */
	readonly explainWin?: (page: PageScope) => Outcome | undefined;
	/** How it is named on this page, where that depends on the page. */
	readonly nameOn?: (page: PageScope) => TraceStep['rule'];
}

export function makeBuiltIn(builtIn: BuiltIn): Candidate {
	const tag = findTag(builtIn.tag) as TagDefinition;
	const { value: valueFor, choosesPictures, name, borrows } = builtIn;
	const isLegal = builtIn.isLegal || (borrows !== undefined && isSameKind(tag, borrows));
	return {
		layer: 'built-in',
		builtIn,
		base: { layer: 'built-in', rule: { kind: 'built-in', name, ...(borrows && { from: borrows }) } },
		usual: borrows ? { kind: 'borrowed-nothing', from: borrows } : NOTHING,
		reads: builtIn.reads ?? [],
		isConstant: builtIn.isShared === true,
		...(builtIn.isDerived && { isDerived: true }),
		evaluate: choosesPictures
			? (page) => {
					const skipped = listOfSkipped(page);
					const value = valueFor(page, skipped);
					if (skipped && skipped.length > 0) page.noteSkipped(builtIn, skipped);
					return value === undefined || value.length === 0 ? undefined : value;
				}
			: (page) => {
					const value = valueFor(page);
					if (value === undefined || value.length === 0) return undefined;
					return isLegal ? value : settle(tag, value, page);
				},
		...(isLegal && borrows !== undefined && !builtIn.isFirst && { takes: borrows }),
		...explainBuiltIn(tag, builtIn, isLegal)
	};
}

/** Where a choice among pictures notes what it skips, when anyone asks. */
const listOfSkipped = (page: PageScope): SkippedSource[] | undefined => (page.isTraced ? [] : undefined);

type Explaining = Pick<Candidate, 'explainLoss' | 'explainWin'>;

function explainBuiltIn(tag: TagDefinition, builtIn: BuiltIn, isLegal: boolean): Explaining {
	if (builtIn.choosesPictures) return explainPictures(builtIn);
	// Of a text there is nothing to say but that it was empty; other kinds may have been there and not fit.
	if (isLegal || tag.kind === 'text') return {};
	return { explainLoss: (page) => illegal(tag, textOfValue(builtIn.value(page))) };
}

/** What a choice among picture sources passed over, as it was noted for its rule or built-in while choosing. */
function explainPictures(chooser: object): Explaining {
	return {
		explainLoss: (page) => ({ kind: 'no-picture', skipped: page.skippedBy(chooser) }),
		explainWin(page) {
			const skipped = page.skippedBy(chooser);
			return skipped.length > 0 ? { kind: 'won', skipped } : undefined;
		}
	};
}

/** Whether what is legal for one tag is legal for the other as it is. */
function isSameKind(tag: TagDefinition, other: string): boolean {
	const from = findTag(other);
	if (!from || (carriesAttributes(from) && !carriesAttributes(tag))) return false;
	return from.kind === tag.kind && from.kind !== 'choice' && (tag.repeated || !from.repeated);
}

/** A rule made ready. One that cannot be read, in data that no check has seen, comes to nothing and says so. */
export function makeRule(tag: TagDefinition, layer: Layer, rule: Rule, pieces?: Pieces): Candidate {
	const { tag: _tag, language, ...body } = rule;
	const shared = {
		layer,
		rule,
		base: { layer, ...(language && { language }), rule: body },
		usual: NOTHING,
		reads: [],
		isConstant: false
	};
	const unreadable: Candidate = { ...shared, usual: { kind: 'failed' }, evaluate: () => undefined };
	try {
		return { ...unreadable, usual: NOTHING, ...workingOf(tag, rule, pieces) };
	} catch {
		return unreadable;
	}
}

/** What a rule does. */
function workingOf(tag: TagDefinition, rule: Rule, pieces: Pieces | undefined): Working & Partial<Candidate> {
	switch (rule.kind) {
		case 'template':
			return templateCandidate(tag, compileTemplate(rule.template, pieces));
		case 'borrow':
			return borrowCandidate(tag, rule);
		case 'leaveOut':
			return { reads: [], isConstant: true, evaluate: () => LEFT_OUT };
		case 'pictures':
			return {
				reads: [],
				evaluate(page) {
					const skipped = listOfSkipped(page);
					const chosen = choosePictures(rule, tag.name, page, skipped);
					if (skipped && skipped.length > 0) page.noteSkipped(rule, skipped);
					return tag.kind === 'picture' ? settle(tag, chosen, page) : undefined;
				},
				...explainPictures(rule)
			};
		default:
			return { reads: [], usual: { kind: 'failed' }, evaluate: () => undefined };
	}
}

type Working = Pick<Candidate, 'reads' | 'readsHeads' | 'evaluate' | 'explainLoss' | 'takes' | 'isDerived' | 'gaps'> &
	Partial<Pick<Candidate, 'isConstant'>>;

function borrowCandidate(
	tag: TagDefinition,
	{ from, shapes }: Extract<Rule, { kind: 'borrow' }>
): Working & Pick<Candidate, 'usual'> {
	// Pictures that are cut anew are not what the other tag came to as it is.
	const isLegal = isSameKind(tag, from) && !shapes?.length;
	return {
		reads: [from],
		usual: { kind: 'borrowed-nothing', from },
		...(isLegal && { takes: from, isDerived: true }),
		evaluate: (page) => {
			const value = page.valueOf(from);
			if (isLegal) return value;
			const pictures = shapes?.length && typeof value === 'object' ? value.filter(isPicture) : [];
			return settle(tag, pictures.length > 0 ? inShapes(pictures, shapes, tag.name, page) : value, page);
		},
		explainLoss: (page) => illegal(tag, page.textOf(from))
	};
}

function templateCandidate(tag: TagDefinition, template: CompiledTemplate): Working {
	const wantsList = tag.repeated && template.value !== undefined;
	return {
		reads: template.reads,
		...(template.readsHeads && { readsHeads: true }),
		gaps: (page) => template.gapNames(page),
		// An address may be relative to the page.
		isConstant: template.isConstant && tag.kind !== 'address' && tag.kind !== 'picture',
		evaluate(page) {
			if (!wantsList) return legalText(tag, template.run(page), page);
			const value = template.value(page);
			return settle(tag, Array.isArray(value) ? value.map(toText) : toText(value), page);
		},
		explainLoss(page) {
			const { fault, source } = template;
			if (fault) return faultOutcome(fault, source);
			return illegal(tag, template.run(page)) ?? { kind: 'empty', variables: template.emptyNames(page) };
		}
	};
}

function faultOutcome(issue: NonNullable<CompiledTemplate['fault']>, source: string): Outcome {
	const isFilter = issue.code === 'template/unknown-filter' || issue.code === 'template/wrong-arguments';
	return isFilter
		? { kind: 'cannot-run', filter: issue.seen as string, issue, source }
		: { kind: 'broken', issue, source };
}

/** What a page's own file said of a tag (R13), by the policy of a layer. */
export function makeFound(tag: TagDefinition, policy: FoundPolicy, saidBy: Layer): Candidate {
	const shared = {
		layer: policy === 'last' ? ('built-in' as const) : ('page' as const),
		isFound: true as const,
		base: { layer: 'page' as const, rule: { kind: 'found' as const, value: '' } },
		reads: [],
		isConstant: false,
		nameOn: (page: PageScope) => ({
			kind: 'found' as const,
			value: page
				.foundOf(tag.name)
				.map(({ value }) => settleText(toText(value)))
				.join(', ')
		})
	};
	if (policy === 'never') return { ...shared, usual: { kind: 'set-aside', layer: saidBy }, evaluate: () => undefined };
	return {
		...shared,
		usual: NOTHING,
		evaluate: (page) => settle(tag, foundValue(tag, page), page),
		explainLoss(page) {
			const all = page.foundOf(tag.name);
			const counts = all.map(({ value }) => page.frameCount(tag.name, value)).filter((count) => count !== undefined);
			if (counts.length > 0 && counts.length === all.length) return { kind: 'frame', pages: Math.max(...counts) };
			if (all.some(({ value }) => page.repeatsTitle(tag.name, value))) return { kind: 'repeats-title' };
			const first = all[0]?.value ?? '';
			return tag.name === 'alternate'
				? { kind: 'illegal', value: first, expected: 'a version with its language, such as hreflang="fr"' }
				: illegal(tag, first);
		}
	};
}

/** The found values of a tag that are the page's own. */
function foundValue(tag: TagDefinition, page: PageScope): TagItem[] {
	const said = new Set<string>();
	return page.foundOf(tag.name).flatMap((found): TagItem[] => {
		// What two tools wrote alike is said once.
		const key = JSON.stringify([settleText(toText(found.value)), found.attributes]);
		if (said.has(key)) return [];
		said.add(key);
		if (page.frameCount(tag.name, found.value) !== undefined || page.repeatsTitle(tag.name, found.value)) return [];
		if (tag.kind === 'picture') return foundPicture(tag, found, page);
		// One that does not say for which language it is, leads readers to no version of the page.
		const attributes = legalAttributes(tag, found.attributes);
		if (tag.name === 'alternate' && attributes?.hreflang === undefined) return [];
		if (!attributes || tag.kind !== 'address') return [found.value];
		const address = page.addresses.ofValue(found.value, page.pageAddress);
		return address === undefined ? [] : [{ kind: 'link', address, attributes }];
	});
}

/** A found picture: with its facts where they are known, else with those that the file gives of it. */
function foundPicture(tag: TagDefinition, found: FoundTag, page: PageScope): (ChosenPicture | Link)[] {
	const picture = pictureAt(found.value, page);
	if (!picture) return [];
	const attributes = legalAttributes(tag, found.attributes);
	if (attributes) return [{ kind: 'link', address: picture.address, attributes }];
	const own = foundBook(page.page.found).factsOf(tag.name, found.value);
	const alt = own.alt || picture.alt;
	if (picture.width || picture.type) return [{ ...picture, alt }];
	const [width, height, type, secure] = (['width', 'height', 'type', 'secure'] as const).map((name) =>
		legalValue(PICTURE_FACT_TAGS[name], own[name === 'secure' ? 'secure_url' : name] ?? '')
	);
	const isSized = Number(width) > 0 && Number(height) > 0;
	return [
		{
			...{ ...picture, alt, type: type || undefined },
			...{ width: isSized ? Number(width) : undefined, height: isSized ? Number(height) : undefined },
			secure: secureOf(secure, page)
		}
	];
}

/** When a text was there but not fit for the tag, that is the reason. */
function illegal(tag: TagDefinition, raw: string): Outcome | undefined {
	const text = settleText(raw);
	if (text === '') return undefined;
	if (raw.length > MAX_OUTPUT) return { kind: 'too-long', length: raw.length };
	return { kind: 'illegal', value: text, expected: expectedOf(tag) };
}

const isPicture = (item: TagItem): item is ChosenPicture => typeof item !== 'string' && item.kind === 'picture';

/** Makes any value fit for a tag: settled, legal for its kind, one or many as the tag allows. Undefined for nothing. */
function settle(tag: TagDefinition, value: TagValue | undefined, page: PageScope): TagValue | undefined {
	if (value === undefined) return undefined;
	if (typeof value === 'string') return legalText(tag, value, page);
	const items = value.flatMap((item): readonly TagItem[] => {
		if (typeof item !== 'string' && (item.kind === 'link' ? carriesAttributes(tag) : tag.kind === 'picture'))
			return [item];
		const legal = legalText(tag, textOfItem(item), page);
		return legal === undefined ? [] : typeof legal === 'string' ? [legal] : legal;
	});
	if (items.length === 0) return undefined;
	if (tag.repeated) return withoutTwins(items);
	const first = items[0] as TagItem;
	return typeof first === 'string' ? first : [first];
}

const withoutTwins = (items: readonly TagItem[]) =>
	items.some((item) => typeof item !== 'string') ? items : [...new Set(items)];

/** The legal form of a text for a tag; undefined when nothing is left of it, or the tag cannot carry it. */
function legalText(tag: TagDefinition, raw: string, page: PageScope): TagValue | undefined {
	if (raw.length > MAX_OUTPUT) return undefined;
	const text = settleText(raw);
	if (text === '') return undefined;
	if (tag.kind === 'text') return text;
	if (tag.kind === 'address') return page.addresses.ofValue(text, page.pageAddress);
	if (tag.kind !== 'picture') return legalValue(tag, text, page.site.timeZone);
	const picture = pictureAt(text, page);
	return picture && [picture];
}
