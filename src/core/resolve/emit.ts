import { PICTURE_FACT_TAGS } from '../catalogue/catalogue';
import type { TagDefinition } from '../catalogue/types';
import type { TagSink } from './head';
import type { PageEvaluation } from './page';
import { NO_PARENT, type Step } from './plan';
import type { Withheld } from './trace';
import { pictureOfValue, textOfValue, type ChosenPicture, type TagValue } from './value';

/**
 * Hands the tags of a page on in the order of output (R11), and gives what was written for them. A tag is left out when
 * its family is off (R8), when it belongs to one that came to nothing, or when the site is lean and its twin says the
 * same.
 */
export function emitTags(page: PageEvaluation, sink: TagSink): string {
	const { steps } = page.plan;
	if (!page.saysOfFamilies && page.site.lean !== true) return emitAll(steps, page, sink);
	const og = page.family('og');
	const twitter = page.family('twitter');
	const isLean = page.site.lean === true && og.on;
	let out = '';
	for (const step of steps) {
		const { tag, isOg, isTwitter } = step;
		if ((isOg && !og.on) || (isTwitter && !twitter.on))
			withhold(page, step, { kind: 'family-off', layer: (isOg ? og : twitter).layer });
		else if (isLean && tag.twin && saysTheSame(page, tag))
			withhold(page, step, { kind: 'same-as-twin', twin: tag.twin });
		else out += emitStep(step, page, sink);
	}
	return out;
}

/** The common case: nothing is switched off. */
function emitAll(steps: readonly Step[], page: PageEvaluation, sink: TagSink): string {
	let out = '';
	for (let at = 0; at < steps.length; at++) out += emitStep(steps[at] as Step, page, sink);
	return out;
}

function emitStep(step: Step, page: PageEvaluation, sink: TagSink): string {
	const { parent, constant } = step;
	if (parent !== NO_PARENT && (parent < 0 || page.valueAt(parent) === null)) {
		withhold(page, step, { kind: 'no-parent', parent: step.tag.parent as string });
		return '';
	}
	if (constant !== undefined) return sink.constant(step, constant);
	if (step.goesWithPicture) return '';
	const value = page.valueAt(step.source);
	if (value === null) return '';
	if (typeof value !== 'string') return emitItems(step, value, page, sink);
	return step.tag.attributes === undefined ? sink.text(step, value) : sink.tag(step.tag, value, step.tag.attributes);
}

/** Notes why a tag is not written, if it came to anything. */
function withhold(page: PageEvaluation, { index }: Step, why: Withheld) {
	if (page.record && page.valueAt(index) !== null) page.record.withhold(index, why);
}

function saysTheSame(page: PageEvaluation, tag: TagDefinition): boolean {
	const text = page.textOf(tag.name);
	return text !== '' && text === page.textOf(tag.twin as string);
}

function emitItems(step: Step, items: Exclude<TagValue, string>, page: PageEvaluation, sink: TagSink): string {
	const { tag } = step;
	let out = '';
	for (const item of items)
		if (typeof item === 'string') out += sink.tag(tag, item, tag.attributes);
		else if (item.kind === 'link') out += sink.tag(tag, item.address, { ...tag.attributes, ...item.attributes });
		else {
			out += sink.tag(tag, item.address, undefined);
			if (step.alt >= 0) out += emitFacts(item, altFor(item, items, page.valueAt(step.alt)), sink);
		}
	return out;
}

/** Alt text set for the tag goes to the first picture, and to every cut of the same one. */
const altFor = (picture: ChosenPicture, items: TagValue, alt: TagValue | null): string =>
	picture.src === pictureOfValue(items)?.src ? textOfValue(alt ?? undefined) : (picture.alt ?? '');

/** The facts that travel with a picture, directly after it (R11). */
function emitFacts(picture: ChosenPicture, alt: string, sink: TagSink): string {
	const facts = PICTURE_FACT_TAGS;
	let out = '';
	if (picture.secure) out += sink.tag(facts.secure, picture.secure, undefined);
	if (picture.type) out += sink.tag(facts.type, picture.type, undefined);
	if (picture.width) out += sink.tag(facts.width, String(picture.width), undefined);
	if (picture.height) out += sink.tag(facts.height, String(picture.height), undefined);
	if (alt) out += sink.tag(facts.alt, alt, undefined);
	return out;
}
