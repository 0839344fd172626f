import { CATALOGUE } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import { formatIssue } from '../issue';
import type { Layer, Rule } from '../model';
import { compileTemplate, MAX_OUTPUT, type CompiledTemplate } from '../template/compile';
import { toText, type Value } from '../template/values';
import { cleanText } from '../text/text';
import type { BuiltIn } from './builtIns';
import { KIND_EXPECTED, legalValue } from './legal';
import { choosePictures, pictureAt } from './pictures';
import type { Resolution } from './resolution';
import type { ChosenPicture, Outcome, SkippedSource, TagValue } from './types';

/** The answer of a rule that ends the search (R4). */
export const LEFT_OUT = Symbol('left out');

/** One thing that could give a tag its value, made ready once; running it parses nothing. */
export interface Candidate {
	readonly layer: Layer;
	readonly rule?: Rule;
	readonly builtIn?: BuiltIn;
	/** Tags whose outcome it asks for. */
	readonly reads: readonly string[];
	/** Set when it is skipped because it borrows in a circle. */
	readonly loop?: readonly string[];
	/** The value, or undefined when the next candidate is to be tried. */
	readonly evaluate: (page: Resolution) => TagValue | typeof LEFT_OUT | undefined;
	/** Why it came to what it did. Only asked for by a trace. */
	readonly explain: (page: Resolution, result: TagValue | typeof LEFT_OUT | undefined) => Outcome;
}

export function makeBuiltIn(builtIn: BuiltIn): Candidate {
	const tag = CATALOGUE.find((row) => row.name === builtIn.tag) as TagDefinition;
	return {
		layer: 'built-in',
		builtIn,
		reads: builtIn.reads ?? [],
		evaluate: (page) => settle(tag, builtIn.value(page), page),
		explain(page, result) {
			const skipped: SkippedSource[] = [];
			const raw = builtIn.value(page, skipped);
			if (result !== undefined && result !== LEFT_OUT) return { kind: 'won', value: result, ...(skipped.length && { skipped }) };
			if (builtIn.borrows) return { kind: 'borrowed-nothing', from: builtIn.borrows };
			if (skipped.length) return { kind: 'no-picture', skipped };
			return illegalOr(tag, firstText(raw), { kind: 'empty', variables: [] });
		}
	};
}

export function makeRule(tag: TagDefinition, layer: Layer, rule: Rule): Candidate {
	const base = { layer, rule };
	switch (rule.kind) {
		case 'template':
			return { ...base, ...templateCandidate(tag, compileTemplate(rule.template)) };
		case 'borrow':
			return {
				...base,
				reads: [rule.from],
				evaluate: (page) => settle(tag, page.valueOf(rule.from), page),
				explain: (page, result) => wonOr(result, illegalOr(tag, firstText(page.valueOf(rule.from)), { kind: 'borrowed-nothing', from: rule.from }))
			};
		case 'leaveOut':
			return { ...base, reads: [], evaluate: () => LEFT_OUT, explain: () => ({ kind: 'left-out' }) };
		case 'pictures':
			return {
				...base,
				reads: [],
				evaluate: (page) => (tag.kind === 'picture' ? settle(tag, choosePictures(rule, page), page) : undefined),
				explain(page, result) {
					const skipped: SkippedSource[] = [];
					choosePictures(rule, page, skipped);
					return wonOr(result, { kind: 'no-picture', skipped }, skipped);
				}
			};
	}
}

function templateCandidate(tag: TagDefinition, template: CompiledTemplate): Pick<Candidate, 'reads' | 'evaluate' | 'explain'> {
	const wantsList = tag.repeated && template.value !== undefined;
	return {
		reads: template.reads,
		evaluate(page) {
			if (!wantsList) return settleText(tag, template.run(page), page);
			const value = template.value!(page);
			return settle(tag, Array.isArray(value) ? value.map(toText) : toText(value as Value), page);
		},
		explain(page, result) {
			if (result !== undefined) return wonOr(result, { kind: 'left-out' });
			const broken = template.issues.find((issue) => issue.severity === 'error');
			if (broken) return { kind: 'broken', message: formatIssue(broken, template.source) };
			return illegalOr(tag, template.run(page), { kind: 'empty', variables: template.emptyNames(page) });
		}
	};
}

function wonOr(result: TagValue | typeof LEFT_OUT | undefined, otherwise: Outcome, skipped: readonly SkippedSource[] = []): Outcome {
	if (result === undefined || result === LEFT_OUT) return otherwise;
	return { kind: 'won', value: result, ...(skipped.length && { skipped }) };
}

/** When a text was there but not fit for the tag, that is the reason; else the other one. */
function illegalOr(tag: TagDefinition, raw: string, otherwise: Outcome): Outcome {
	const text = cleanText(raw);
	if (text === '') return otherwise;
	if (raw.length > MAX_OUTPUT) return { kind: 'too-long', length: raw.length };
	return { kind: 'illegal', value: text, expected: tag.choices && !tag.open ? `one of ${tag.choices.join(', ')}` : KIND_EXPECTED[tag.kind] };
}

const isPicture = (item: unknown): item is ChosenPicture => typeof item === 'object' && item !== null && 'address' in item;

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

const withoutTwins = (items: readonly (string | ChosenPicture)[]) => (items.some((item) => typeof item !== 'string') ? items : [...new Set(items)]);

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
