import { otherWords } from '../words/speaking';
import { BUILT_INS } from './builtIns';
import type { Shape } from '../model';
import { SHAPES } from '../pictures/shapes';
import { formatIssue } from '../issue';
import type { BuiltInName, Outcome, SkippedSource, Trace, TraceStep, Withheld } from './trace';
import { textOfItem, type TagValue } from './value';

/** How a value came about, in another language. */
export interface StepWords {
	readonly layer: (layer: TraceStep['layer']) => string;
	/** What is built in, by its name; with the tag that it borrows from. */
	readonly builtIn: (name: string, from: string) => string;
	/** What a step would use; with the shapes it cuts to, where it does. */
	readonly rule: (rule: TraceStep['rule'], cut: string) => string;
	/** What became of a step; with its issue in words, where a rule does not work. */
	readonly outcome: (outcome: Outcome, issue: string) => string;
	readonly skipped: (skipped: SkippedSource) => string;
}
export const STEP_WORDS = otherWords<StepWords>();

const LAYER_NAMES = { page: 'the page', type: 'its type', site: 'the site', 'built-in': 'the built-in' } as const;

/** A layer in words. */
export const nameOfLayer = (layer: TraceStep['layer']): string => STEP_WORDS.now()?.layer(layer) ?? LAYER_NAMES[layer];

/** A value on one line. */
export function valueAsText(value: TagValue): string {
	if (typeof value === 'string') return value;
	return value.map(textOfItem).join(', ');
}

/** What each built-in says, in words. */
const BUILT_IN_WORDS: Readonly<Record<Exclude<BuiltInName, 'borrow'>, string>> = {
	'page-title': 'the page’s title',
	'site-name': 'the site’s name',
	path: 'the path',
	'page-summary': 'the page’s summary',
	'body-opening': 'the first sentences of the body',
	'page-author': 'the page’s author',
	'page-address': 'the page’s address',
	hidden: 'hidden from search',
	'private-site': 'the site is private',
	'other-versions': 'the page in its other languages',
	'site-icon': 'the site’s icon',
	'square-icon': 'the site’s icon, if it is square',
	'icon-manifest': 'made of the site’s icon, if it is square',
	'type-kind': 'the kind its type declares',
	'page-language': 'the page’s language',
	'other-languages': 'its other languages',
	'page-pictures': 'the lead picture, the first in the body, the type’s, the site’s',
	'page-published': 'when the page was published',
	'page-modified': 'when the page last changed',
	'author-address': 'the address of the page’s author',
	'page-section': 'the page’s section',
	'page-tags': 'the page’s tags',
	'picture-size': 'large when the picture is wide and big enough',
	'site-handle': 'the site’s account',
	'author-handle': 'the account of the page’s author',
	'picture-alt': 'the alt text of the picture that won'
};

/** What a step of a trace would use, in words. */
export function describeRule({ rule }: TraceStep): string {
	const other = STEP_WORDS.now();
	if (other) return other.rule(rule, 'shapes' in rule ? ratiosOf(rule) : '');
	switch (rule.kind) {
		case 'template':
			return rule.template;
		case 'borrow':
			return `what ${rule.from} came to${cutTo(rule)}`;
		case 'leaveOut':
			return 'leave it out';
		case 'pictures':
			return `the first picture that fits of: ${rule.sources.map((source) => (source.from === 'file' ? source.src : source.from === 'field' ? source.name : source.from)).join(', ')}${cutTo(rule)}`;
		case 'found':
			return `as found in the page: ${rule.value}`;
		case 'built-in':
			return rule.name === 'borrow' ? `what ${rule.from} came to` : BUILT_IN_WORDS[rule.name];
	}
}

/** What is built in for a tag, in words, first tried first; of one that nothing is built in for, nothing. */
export const describeBuiltIns = (tag: string): string[] =>
	BUILT_INS.filter((one) => one.tag === tag).map(
		({ name, borrows }) =>
			STEP_WORDS.now()?.builtIn(name, borrows ?? '') ??
			(name === 'borrow' ? `what ${borrows} comes to` : BUILT_IN_WORDS[name])
	);

const ratiosOf = ({ shapes = [] }: { readonly shapes?: readonly Shape[] }) =>
	shapes.map((shape) => SHAPES[shape].ratio).join(', ');
const cutTo = ({ shapes }: { readonly shapes?: readonly Shape[] }) =>
	shapes && shapes.length > 0 ? `, cut to ${shapes.map((shape) => SHAPES[shape].ratio).join(' and ')}` : '';

/** What became of a step, in words. */
export function describeOutcome(outcome: Outcome): string {
	const other = STEP_WORDS.now();
	if (other) return other.outcome(outcome, 'issue' in outcome ? formatIssue(outcome.issue, outcome.source) : '');
	switch (outcome.kind) {
		case 'won':
			return 'used';
		case 'empty':
			return outcome.variables.length
				? `came to nothing: ${outcome.variables.join(', ')} ${outcome.variables.length === 1 ? 'is' : 'are'} empty`
				: 'came to nothing';
		case 'borrowed-nothing':
			return `${outcome.from} came to nothing`;
		case 'left-out':
			return 'left out here: the search ends';
		case 'loop':
			return `skipped: borrows in a circle, ${outcome.tags.join(' → ')}`;
		case 'illegal':
			return `skipped: “${outcome.value}” is not ${outcome.expected}`;
		case 'too-long':
			return `skipped: ${outcome.length} characters are too many for a tag`;
		case 'broken':
		case 'cannot-run':
			return `skipped: ${formatIssue(outcome.issue, outcome.source)}`;
		case 'failed':
			return 'skipped: it is not a rule that can be read';
		case 'frame':
			return `passed over: it stands on ${outcome.pages} pages, so it belongs to the frame`;
		case 'repeats-title':
			return 'passed over: it only says the title again';
		case 'set-aside':
			return `set aside: ${outcome.layer === 'page' ? 'the page says' : `${nameOfLayer(outcome.layer)} says`} that found values are not taken`;
		case 'no-picture':
			return outcome.skipped.length
				? `no picture fits: ${outcome.skipped.map(describeSkipped).join('; ')}`
				: 'no picture';
		case 'not-reached':
			return 'not needed';
	}
}

/** Why a picture source was passed over, in words. */
export function describeSkipped(skipped: SkippedSource): string {
	const other = STEP_WORDS.now();
	if (other) return other.skipped(skipped);
	if (skipped.why === 'missing') return `${skipped.source}: none`;
	if (skipped.why === 'no-layout') return `${skipped.source}: its type has no layout for share pictures`;
	const { picture, limit } = skipped;
	const size = `${picture.width} × ${picture.height}`;
	const reasons = {
		'not-http': 'its address is not http or https',
		drawing: 'a vector drawing, which readers of links do not show',
		repeated: `stands on ${limit} pages, so it belongs to the frame`,
		mark: 'a logo or an icon',
		'too-narrow': `${size} pixels, narrower than ${limit}`,
		'too-low': `${size} pixels, lower than ${limit}`,
		'wrong-shape': `${size} pixels, not of the shape asked for`
	} as const;
	return `${skipped.source}: ${picture.src} (${reasons[skipped.why]})`;
}

export function describeWithheld(withheld: Withheld): string {
	switch (withheld.kind) {
		case 'family-off':
			return `not written: its family is off at ${nameOfLayer(withheld.layer)}`;
		case 'no-parent':
			return `not written: there is no ${withheld.parent} for it to belong to`;
		case 'same-as-twin':
			return `not written: it says the same as ${withheld.twin}`;
	}
}

export function describePassedOver({ passedOver }: Trace): string | undefined {
	return (
		passedOver &&
		`${passedOver.tag} is set at ${nameOfLayer(passedOver.layer)}, which is more specific, and was passed over`
	);
}
