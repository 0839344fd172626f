import { findTag } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { formatIssue } from '../issue';
import type { Layer, Rule } from '../model';
import { compileTemplate, MAX_OUTPUT, type CompiledTemplate } from '../template/compile';
import { toText, type Value } from '../template/values';
import { cleanText } from '../text/text';
import type { BuiltIn } from './builtIns';
import { KIND_EXPECTED, legalValue } from './legal';
import { choosePictures, inShapes, pictureAt } from './pictures';
import type { Resolution } from './resolution';
import type { ChosenPicture, Outcome, SkippedSource, TagValue, TraceStep } from './types';

const NOTHING: Outcome = { kind: 'empty', variables: [] };

/** The answer of a rule that ends the search (R4). */
export const LEFT_OUT = Symbol('left out');

/** One thing that could give a tag its value, made ready once; running it parses nothing. */
export interface Candidate {
	readonly layer: Layer;
	readonly rule?: Rule;
	readonly builtIn?: BuiltIn;
	/** Tags whose outcome it asks for. */
	readonly reads: readonly string[];
	/** It comes to the same on all pages of a type and language. */
	readonly isConstant: boolean;
	/** How a trace names it. */
	readonly base: Omit<TraceStep, 'outcome'>;
	/** What usually becomes of it when it does not win. */
	readonly usual: Outcome;
	/** It is the value of this tag, as it is: a plan can read it by its place. */
	readonly takes?: string;
	/** The variables that left a gap in its text. */
	readonly gaps?: (page: Resolution) => readonly string[];
	/** The value, or undefined when the next candidate is to be tried. */
	readonly evaluate: (page: Resolution) => TagValue | typeof LEFT_OUT | undefined;
	/** Why it did not win, where there can be more to say than the usual. Only asked for by a trace. */
	readonly explainLoss?: (page: Resolution) => Outcome | undefined;
	/** What there is to say of its winning, where there can be anything. */
	readonly explainWin?: (page: Resolution) => Outcome | undefined;
}

export function makeBuiltIn(builtIn: BuiltIn): Candidate {
	const tag = findTag(builtIn.tag) as TagDefinition;
	const isLegal = builtIn.isLegal || (builtIn.borrows !== undefined && isSameKind(tag, builtIn.borrows));
	// Taken out of it here: built-ins differ in what they have, and reading from them would be slow.
	const { value: valueFor, choosesPictures } = builtIn;
	return {
		layer: 'built-in',
		builtIn,
		base: { layer: 'built-in', rule: { kind: 'built-in', says: builtIn.says } },
		usual: builtIn.borrows ? { kind: 'borrowed-nothing', from: builtIn.borrows } : NOTHING,
		reads: builtIn.reads ?? [],
		isConstant: builtIn.isShared === true,
		evaluate: (page) => {
			const skipped = choosesPictures && skippedList(page);
			const value = valueFor(page, skipped);
			if (skipped && skipped.length > 0) page.telling?.skip(builtIn, skipped);
			if (value === undefined || value.length === 0) return undefined;
			return isLegal ? value : settle(tag, value, page);
		},
		...(isLegal && builtIn.borrows !== undefined && !builtIn.isFirst && { takes: builtIn.borrows }),
		...explainBuiltIn(tag, builtIn, isLegal)
	};
}

/** Where a choice among pictures notes what it skips, when anyone asks. */
const skippedList = (page: Resolution): SkippedSource[] | undefined => (page.telling ? [] : undefined);

type Explaining = Pick<Candidate, 'explainLoss' | 'explainWin'>;

function explainBuiltIn(tag: TagDefinition, builtIn: BuiltIn, isLegal: boolean): Explaining {
	if (builtIn.choosesPictures) return explainPictures(builtIn);
	// Of a text there is nothing to say but that it was empty; other kinds may have been there and not fit.
	return isLegal || tag.kind === 'text' ? {} : { explainLoss: (page) => illegal(tag, firstText(builtIn.value(page))) };
}

/** What a choice among picture sources passed over, as it was noted for its rule or built-in while choosing. */
function explainPictures(chooser: object): Explaining {
	return {
		explainLoss: (page) => ({ kind: 'no-picture', skipped: page.telling?.skippedBy(chooser) ?? [] }),
		explainWin(page) {
			const skipped = page.telling?.skippedBy(chooser) ?? [];
			return skipped.length > 0 ? { kind: 'won', skipped } : undefined;
		}
	};
}

/** Whether what is legal for one tag is legal for the other as it is. */
function isSameKind(tag: TagDefinition, other: string): boolean {
	const from = findTag(other);
	return from?.kind === tag.kind && from.kind !== 'choice' && (tag.repeated || !from.repeated);
}

export function makeRule(tag: TagDefinition, layer: Layer, rule: Rule): Candidate {
	const { tag: _tag, language, ...body } = rule;
	const shared = {
		layer,
		rule,
		base: { layer, ...(language && { language }), rule: body },
		usual: NOTHING,
		reads: [],
		isConstant: false
	};
	switch (rule.kind) {
		case 'template':
			return { ...shared, ...templateCandidate(tag, compileTemplate(rule.template)) };
		case 'borrow':
			return { ...shared, ...borrowCandidate(tag, rule) };
		case 'leaveOut':
			return { ...shared, isConstant: true, evaluate: () => LEFT_OUT };
		case 'pictures':
			return {
				...shared,
				evaluate(page) {
					const skipped = skippedList(page);
					const chosen = choosePictures(rule, tag.name, page, skipped);
					if (skipped && skipped.length > 0) page.telling?.skip(rule, skipped);
					return tag.kind === 'picture' ? settle(tag, chosen, page) : undefined;
				},
				...explainPictures(rule)
			};
	}
}

type Working = Pick<Candidate, 'reads' | 'evaluate' | 'explainLoss' | 'takes' | 'gaps'> &
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
		...(isLegal && { takes: from }),
		evaluate: (page) => {
			const value = page.valueOf(from);
			if (isLegal) return value;
			const pictures = shapes?.length && typeof value === 'object' ? value.filter(isPicture) : [];
			return settle(tag, pictures.length > 0 ? inShapes(pictures, shapes, tag.name, page) : value, page);
		},
		explainLoss: (page) => illegal(tag, firstText(page.valueOf(from)))
	};
}

function templateCandidate(tag: TagDefinition, template: CompiledTemplate): Working {
	const wantsList = tag.repeated && template.value !== undefined;
	return {
		reads: template.reads,
		gaps: (page) => template.gapNames(page),
		// An address may be relative to the page.
		isConstant: template.isConstant && tag.kind !== 'address' && tag.kind !== 'picture',
		evaluate(page) {
			if (!wantsList) return settleText(tag, template.run(page), page);
			const value = template.value!(page);
			return settle(tag, Array.isArray(value) ? value.map(toText) : toText(value as Value), page);
		},
		explainLoss(page) {
			const broken = template.issues.find((issue) => issue.severity === 'error');
			if (broken) return { kind: 'broken', message: formatIssue(broken, template.source) };
			return illegal(tag, template.run(page)) ?? { kind: 'empty', variables: template.emptyNames(page) };
		}
	};
}

/** When a text was there but not fit for the tag, that is the reason. */
function illegal(tag: TagDefinition, raw: string): Outcome | undefined {
	const text = cleanText(raw);
	if (text === '') return undefined;
	if (raw.length > MAX_OUTPUT) return { kind: 'too-long', length: raw.length };
	return {
		kind: 'illegal',
		value: text,
		expected: tag.choices && !tag.open ? `one of ${tag.choices.join(', ')}` : KIND_EXPECTED[tag.kind]
	};
}

const isPicture = (item: unknown): item is ChosenPicture =>
	typeof item === 'object' && item !== null && 'address' in item;

function firstText(value: TagValue | undefined): string {
	const first = typeof value === 'string' || value === undefined ? value : value[0];
	if (first === undefined || typeof first === 'string') return first ?? '';
	return isPicture(first) ? first.address : first.value;
}

/** Makes any value fit for a tag: cleaned, legal for its kind, one or many as the tag allows. Undefined for nothing. */
function settle(tag: TagDefinition, value: TagValue | undefined, page: Resolution): TagValue | undefined {
	if (value === undefined) return undefined;
	if (typeof value === 'string') return settleText(tag, value, page);
	const items = value.flatMap((item): readonly (string | ChosenPicture)[] => {
		if (typeof item !== 'string' && !isPicture(item)) return [item as unknown as ChosenPicture];
		if (isPicture(item) && tag.kind === 'picture') return [item];
		const settled = settleText(tag, isPicture(item) ? item.address : item, page);
		return settled === undefined ? [] : typeof settled === 'string' ? [settled] : (settled as ChosenPicture[]);
	});
	if (items.length === 0) return undefined;
	if (tag.repeated) return withoutTwins(items);
	const first = items[0] as string | ChosenPicture;
	return typeof first === 'string' ? first : [first];
}

const withoutTwins = (items: readonly (string | ChosenPicture)[]) =>
	items.some((item) => typeof item !== 'string') ? items : [...new Set(items)];

function settleText(tag: TagDefinition, raw: string, page: Resolution): TagValue | undefined {
	if (raw.length > MAX_OUTPUT) return undefined;
	const text = cleanText(raw);
	if (text === '') return undefined;
	if (tag.kind === 'text') return text;
	if (tag.kind === 'address') return page.addresses.ofValue(text, page.pageAddress);
	if (tag.kind !== 'picture') return legalValue(tag, text);
	const picture = pictureAt(text, page);
	return picture && [picture];
}
