import { SHAPES, type Shape } from '../pictures/shapes';
import type { Outcome, SkippedSource, TagValue, Trace, TraceStep, Withheld } from './types';

const LAYER_NAMES = { page: 'the page', type: 'its type', site: 'the site', 'built-in': 'the built-in' } as const;

/** A layer in words. */
export const nameOfLayer = (layer: TraceStep['layer']) => LAYER_NAMES[layer];

/** A value on one line. */
export function valueAsText(value: TagValue): string {
	if (typeof value === 'string') return value;
	return value
		.map((item) => (typeof item === 'string' ? item : 'address' in item ? item.address : item.value))
		.join(', ');
}

/** What a step of a trace would use, in words. */
export function describeRule({ rule }: TraceStep): string {
	switch (rule.kind) {
		case 'template':
			return rule.template;
		case 'borrow':
			return `what ${rule.from} came to${cutTo(rule)}`;
		case 'leaveOut':
			return 'leave it out';
		case 'pictures':
			return `the first picture that fits of: ${rule.sources.map((source) => (source.from === 'file' ? source.src : source.from === 'field' ? source.name : source.from)).join(', ')}${cutTo(rule)}`;
		case 'built-in':
			return rule.says;
	}
}

const cutTo = ({ shapes }: { readonly shapes?: readonly Shape[] }) =>
	shapes && shapes.length > 0 ? `, cut to ${shapes.map((shape) => SHAPES[shape].ratio).join(' and ')}` : '';

/** What became of a step, in words. */
export function describeOutcome(outcome: Outcome): string {
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
			return `skipped: ${outcome.message}`;
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
