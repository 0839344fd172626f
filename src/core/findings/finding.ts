import { formatIssue, type Issue, type IssueCode } from '../issue';
import { PAGE_KINDS } from './kinds/pages';
import { PICTURE_KINDS } from './kinds/pictures';
import { SERVED_KINDS } from './kinds/served';
import { VALUE_KINDS } from './kinds/values';
import { WHOLE_KINDS } from './kinds/whole';
import type { Kind } from './kinds/kind';
import { otherWords } from '../words/speaking';

/** What a finding is about: a layer with its rules, a page as it comes out, or a picture. */
export type Target =
	| { readonly of: 'site' }
	| { readonly of: 'type'; readonly name: string }
	| { readonly of: 'page'; readonly path: string }
	| { readonly of: 'picture'; readonly src: string };

const KINDS = { ...PAGE_KINDS, ...PICTURE_KINDS, ...WHOLE_KINDS, ...SERVED_KINDS, ...VALUE_KINDS };

/** What is wrong in a rule, a template or extra markup, as its check found it. */
export interface RuleData {
	readonly issue: Issue;
	/** What the issue's places are places in. */
	readonly source: string;
	/** The language that the rule is for. */
	readonly language?: string;
	/** Where it stands when not in a rule. */
	readonly part?: 'title of the share picture' | 'line of the share picture' | 'extra markup' | `piece ${string}`;
}

type DataOf<K> = K extends Kind<infer D> ? D : never;
/** Every kind of finding with the data that it tells. */
export type FindingData = { readonly [C in keyof typeof KINDS]: DataOf<(typeof KINDS)[C]> } & {
	readonly [C in IssueCode]: RuleData;
};
export type FindingCode = keyof FindingData;
/** What each kind of finding says, in whatever language; what a check of a rule found says so itself. */
export type FindingWords = { readonly [C in keyof typeof KINDS]: Omit<Kind<DataOf<(typeof KINDS)[C]>>, 'weight'> };

export const FINDING_WORDS = otherWords<FindingWords>();

/** The words of a kind in the language that is spoken. */
const wordsOf = (code: keyof FindingWords): Omit<Kind<unknown>, 'weight'> =>
	((FINDING_WORDS.now() ?? KINDS) as Readonly<Record<string, Omit<Kind<unknown>, 'weight'>>>)[code]!;

/**
 * One thing that is wrong or weak, wherever it was found: by a check of rules, on a page as readers of links see it, in
 * a picture. What to say of it and how to mend it follows from its code and data.
 */
export type Finding<C extends FindingCode = FindingCode> = {
	readonly [K in C]: {
		readonly code: K;
		/** How much it spoils, from 1 to 10: what stops a card or a rule from working weighs 6 and more. */
		readonly weight: number;
		readonly target: Target;
		/** The tag to go to. */
		readonly tag?: string;
		readonly data: FindingData[K];
	};
}[C];

/** Rules that do not work cost what they were written for; a doubt costs little. */
const RULE_WEIGHTS = { error: 8, warning: 2 } as const;

/** A finding of a kind; its weight is the kind's. */
export function finding<C extends keyof typeof KINDS>(
	code: C,
	target: Target,
	tag: string | undefined,
	data: FindingData[C]
): Finding {
	return { code, weight: KINDS[code].weight, target, ...(tag !== undefined && { tag }), data } as Finding;
}

/** What a check of a rule found, as a finding. */
export function ruleFinding(target: Target, tag: string | undefined, data: RuleData): Finding {
	const { code, severity } = data.issue;
	return { code, weight: RULE_WEIGHTS[severity], target, ...(tag !== undefined && { tag }), data } as Finding;
}

/** Whether a finding tells of a rule that does not work, and so refuses it. */
export const isError = (found: Finding): boolean => isOfRule(found) && found.data.issue.severity === 'error';

const isOfRule = (found: Finding): found is Finding<IssueCode> => !Object.hasOwn(KINDS, found.code);

/** What is wrong, in a sentence. */
export function describeFinding(found: Finding): string {
	if (isOfRule(found)) return formatIssue(found.data.issue, found.data.source);
	return wordsOf(found.code).says(found.data);
}

/** What is wrong with many pages that have the same, in a sentence that holds of each of them. */
export function describeMany(found: Finding): string {
	const many = isOfRule(found) ? undefined : wordsOf(found.code).ofMany;
	return many ? many(found.data) : describeFinding(found);
}

/** Kinds that are told by what is likely: they can be meant so. All others are so. */
const LIKELY: ReadonlySet<string> = new Set<FindingCode>([
	'placeholder',
	'template-left',
	'escaped-twice',
	'double-encoded',
	'bare-title',
	'near-tag',
	'names-other',
	'names-elsewhere',
	'names-home',
	'languages-differ',
	'file-missing',
	'not-found-served',
	'sign-in-page',
	'same-everywhere',
	'differs-by-reader',
	'needs-scripts',
	'shared-picture',
	'picture-like-logo',
	'picture-named-logo'
]);
/** Whether a finding holds for certain, or is likely. */
export const isSure = ({ code }: Pick<Finding, 'code'>): boolean => !LIKELY.has(code);

/** How to mend it, in a sentence. What a check of a rule found says so itself. */
export function describeMend(found: Finding): string {
	if (isOfRule(found)) return '';
	return wordsOf(found.code).mend(found.data);
}

/** What a finding is, wherever it stands. A tag that is not named is none. */
export interface FindingKind {
	readonly code: string;
	readonly tag?: string | undefined;
}
/** Findings of one key are of one kind: the same code of the same tag. */
export const keyOfKind = ({ code, tag = '' }: FindingKind) => `${code} ${tag}`;

/** How badly something is off: the sum of its findings' weights. */
export const weightOf = (found: readonly Finding[]) => found.reduce((sum, { weight }) => sum + weight, 0);
