import { PICTURE_FACT_TAGS } from '../catalogue/catalogue';
import { limitExtraMarkup } from '../markup/extra';
import type { ContentType, ExtraMarkup, Layer, Page, Picture, Rule, Site } from '../model';
import { LAYERS } from '../model';
import { AddressBook } from './address';
import type { PictureFacts } from './pictures';
import { makePlan, NO_PARENT, withConstants, type LayerRules, type MadeRules, type Plan } from './plan';
import { factsFrom, Resolution, type SiteScope } from './resolution';
import { Telling, type TellingSearch } from './telling';
import type { ChosenPicture, Head, HeadTag, Step, TagSink, TagValue, Trace, Withheld } from './types';
import type { TagDefinition } from '../catalogue/types';
import { spaced } from '../template/compile';

/** What is needed of a site to resolve its pages, besides the pages. */
export interface SiteModel {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly pictures: readonly Picture[] | PictureFacts;
}

/**
 * A site made ready: its rules compiled to a plan for each type and language, once. Pure and deterministic: the same
 * site, page and `now` give the same head, and no page makes it throw.
 */
export class Resolver {
	private readonly scope: SiteScope;
	private readonly types: ReadonlyMap<string, ContentType>;
	/** By type, then by language. */
	private readonly plans = new Map<ContentType | undefined, Map<string, Plan>>();
	private readonly made: MadeRules = new WeakMap();
	private readonly extras = new Map<string, readonly string[]>();

	/** `now` is the moment that `{now}` names, ISO 8601. */
	constructor(model: SiteModel, now: string) {
		const facts = typeof model.pictures === 'function' ? model.pictures : factsFrom(model.pictures);
		this.scope = {
			site: model.site,
			addresses: new AddressBook(model.site.base),
			facts,
			now,
			separator: spaced(model.site.separator),
			choices: new Map()
		};
		this.types = new Map(model.types.map((type) => [type.name, type]));
	}

	/** The absolute address of a page, or undefined when the site's base is none. */
	addressOf(path: string): string | undefined {
		return this.scope.addresses.ofPath(path);
	}

	/** The head of a page. */
	resolveHead(page: Page): Head {
		return this.headOf(this.open(page));
	}

	/** The head of a page that was looked at. */
	headOf(resolution: Resolution): Head {
		const head = new CollectedHead(this.htmlAttributes(resolution));
		this.emit(resolution, head);
		return head;
	}

	/** The head of a page with a trace for every tag that anything was said about, in the order of output. */
	resolveWithTrace(page: Page): { head: Head; traces: Trace[] } {
		const resolution = this.open(page, true);
		const head = new CollectedHead(this.htmlAttributes(resolution));
		return { head, traces: this.emitWithTrace(resolution, head) };
	}

	/** A page on its way through the rules: what templates can ask for, and what single tags come to. */
	lookAt(page: Page): Resolution {
		return this.open(page);
	}

	/** Hands the tags of a page on, without making a head of them. */
	writeTags(page: Page, sink: TagSink) {
		this.emit(this.open(page), sink);
	}

	/** The same, and the traces. */
	writeWithTrace(page: Page, sink: TagSink): Trace[] {
		return this.emitWithTrace(this.open(page, true), sink);
	}

	private open(page: Page, isTelling = false): Resolution {
		const type = this.types.get(page.type);
		const plan = this.planFor(page, type);
		return new Resolution(this.scope, type, page, plan, isTelling ? new Telling(plan.startEnds) : undefined);
	}

	private planFor(page: Page, type: ContentType | undefined): Plan {
		const language = page.language ?? this.scope.site.languages[0] ?? 'en';
		if (page.rules.length > 0) return this.makePlan(language, type, page.rules);
		let plans = this.plans.get(type);
		if (!plans) this.plans.set(type, (plans = new Map()));
		let plan = plans.get(language);
		if (plan) return plan;
		plan = this.makePlan(language, type, []);
		plan = withConstants(plan, new Resolution(this.scope, type, page, plan, undefined));
		plans.set(language, plan);
		return plan;
	}

	private makePlan(language: string, type: ContentType | undefined, pageRules: readonly Rule[]): Plan {
		const layers: LayerRules[] = [
			{ layer: 'page', rules: pageRules },
			{ layer: 'type', rules: type?.rules ?? [] },
			{ layer: 'site', rules: this.scope.site.rules }
		];
		return makePlan(layers, language, type?.kind || 'website', this.scope.site.prefixes ?? {}, this.made);
	}

	private emit(resolution: Resolution, sink: TagSink) {
		const { plan, type, page } = resolution;
		const og = resolution.family('og');
		const twitter = resolution.family('twitter');
		const lean = this.scope.site.lean === true && og.on;
		sink.markup('before', this.extra('before', page, type));
		const allOn = og.on && twitter.on;
		for (let at = 0; at < plan.steps.length; at++) {
			const step = plan.steps[at] as Step;
			const { index, tag, parent, same, isOg, isTwitter } = step;
			if (!allOn && ((isOg && !og.on) || (isTwitter && !twitter.on)))
				withhold(resolution, index, { kind: 'family-off', layer: (isOg ? og : twitter).layer });
			else if (parent !== NO_PARENT && (parent < 0 || resolution.valueAt(parent) === null))
				withhold(resolution, index, { kind: 'no-parent', parent: tag.parent as string });
			else if (lean && tag.twin && saysTheSame(resolution, tag))
				withhold(resolution, index, { kind: 'same-as-twin', twin: tag.twin });
			else if (same !== undefined) sink.text(step, same);
			else if (!step.goesWithPicture) emitStep(sink, step, resolution.valueAt(index), resolution);
		}
		sink.markup('after', this.extra('after', page, type));
	}

	private emitWithTrace(resolution: Resolution, sink: TagSink): Trace[] {
		this.emit(resolution, sink);
		const { plan, watch } = resolution;
		const telling = resolution.telling as Telling;
		const count = plan.tags.length;
		// Where rules go in circles, every tag has its value before a reason asks for one.
		if (watch) for (let index = 0; index < count; index++) resolution.valueAt(index);
		const traces: Trace[] = [];
		for (let index = 0; index < count; index++) traces.push(traceOf(index, plan, resolution, telling));
		return traces;
	}

	private htmlAttributes(resolution: Resolution): Head['html'] {
		if (!this.scope.site.prefixes) return { lang: resolution.language };
		const prefixes = Object.entries(this.scope.site.prefixes).map(([prefix, namespace]) => `${prefix}: ${namespace}`);
		return { lang: resolution.language, ...(prefixes.length && { prefix: prefixes.join(' ') }) };
	}

	/** Extra markup of the three layers, the site's first; each text is parsed once. */
	private extra(where: keyof ExtraMarkup, page: Page, type: ContentType | undefined): readonly string[] {
		const { site } = this.scope;
		if (!site.extra && !type?.extra && !page.extra) return NONE;
		const texts = [site.extra?.[where], type?.extra?.[where], page.extra?.[where]];
		return texts.flatMap((text) => (text === undefined ? [] : this.limited(text)));
	}

	private limited(markup: string): readonly string[] {
		let elements = this.extras.get(markup);
		if (!elements) {
			elements = limitExtraMarkup(markup).elements;
			if (this.extras.size > 1000) this.extras.clear();
			this.extras.set(markup, elements);
		}
		return elements;
	}
}

const NONE: readonly string[] = [];

/** Notes why a tag is not written, if it came to anything. */
function withhold(resolution: Resolution, index: number, why: Withheld) {
	if (resolution.telling && resolution.valueAt(index) !== null) resolution.telling.withhold(index, why);
}

function saysTheSame(resolution: Resolution, tag: TagDefinition): boolean {
	const text = resolution.textOf(tag.name);
	return text !== '' && text === resolution.textOf(tag.twin as string);
}

function emitStep(sink: TagSink, step: Step, value: TagValue | null, resolution: Resolution) {
	if (value === null) return;
	const { tag } = step;
	if (typeof value === 'string') {
		if (tag.attributes === undefined) sink.text(step, value);
		else sink.tag(tag, value, tag.attributes);
		return;
	}
	for (let index = 0; index < value.length; index++) {
		const item = value[index] as (typeof value)[number];
		if (typeof item === 'string') sink.tag(tag, item, tag.attributes);
		else if ('address' in item) emitPicture(sink, tag, item, index, resolution);
		else sink.tag(tag, item.value, { ...tag.attributes, ...item.attributes });
	}
}

/** A picture and, directly after it, the facts that travel with it (R11). Alt text set for the tag goes to the first. */
function emitPicture(sink: TagSink, tag: TagDefinition, picture: ChosenPicture, index: number, resolution: Resolution) {
	sink.tag(tag, picture.address, undefined);
	if (tag.name !== 'og:image') return;
	const facts = PICTURE_FACT_TAGS;
	if (picture.secure) sink.tag(facts.secure, picture.secure, undefined);
	if (picture.type) sink.tag(facts.type, picture.type, undefined);
	if (picture.width) sink.tag(facts.width, String(picture.width), undefined);
	if (picture.height) sink.tag(facts.height, String(picture.height), undefined);
	const alt = index === 0 ? resolution.textOf('og:image:alt') : picture.alt;
	if (alt) sink.tag(facts.alt, alt, undefined);
}

/** Gathers tags to a head. */
class CollectedHead implements Head, TagSink {
	readonly tags: HeadTag[] = [];
	readonly before: string[] = [];
	readonly after: string[] = [];

	constructor(readonly html: Head['html']) {}

	markup(where: keyof ExtraMarkup, elements: readonly string[]) {
		this[where].push(...elements);
	}

	text({ tag }: Step, value: string) {
		this.tag(tag, value, undefined);
	}

	tag(tag: TagDefinition, value: string, attributes: HeadTag['attributes']) {
		this.tags.push({ tag, value, attributes });
	}
}

/** The trace of one tag, with what only the whole head can tell: why it is not written, and what was passed over (R3). */
function traceOf(index: number, plan: Plan, resolution: Resolution, telling: Telling): Trace {
	const search = plan.searches[index] as TellingSearch;
	const trace = search.trace(resolution, telling);
	if (trace.winner < 0) return trace;
	const why = telling.withheld?.get(index);
	const from = plan.borrowsFrom[index] as number;
	const layer =
		from < 0 ? undefined : layerPassedOver(search, plan.searches[from] as TellingSearch, resolution, telling);
	if (!why && !layer) return trace;
	return {
		...trace,
		...(layer && { passedOver: { tag: (plan.tags[from] as TagDefinition).name, layer } }),
		...(why && { withheld: why })
	};
}

/** The layer of the tag that the built-in would have borrowed from, when that is the more specific one. */
function layerPassedOver(
	mine: TellingSearch,
	theirs: TellingSearch,
	resolution: Resolution,
	telling: Telling
): Layer | undefined {
	const layer = mine.layerOf(resolution, telling) as Layer;
	const other = layer === 'built-in' ? undefined : theirs.layerOf(resolution, telling);
	return other && LAYERS.indexOf(other) < LAYERS.indexOf(layer) ? other : undefined;
}
