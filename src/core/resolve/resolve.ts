import { PICTURE_FACT_TAGS } from '../catalogue/catalogue';
import { limitExtraMarkup } from '../markup/extra';
import type { ContentType, ExtraMarkup, Layer, Page, Picture, Rule, Site } from '../model';
import { LAYERS } from '../model';
import { AddressBook } from './address';
import type { PictureFacts } from './pictures';
import { makePlan, type LayerRules, type MadeRules, type Plan } from './plan';
import { factsFrom, Resolution, type SiteScope } from './resolution';
import type { Search } from './telling';
import type { Attributed, ChosenPicture, Head, HeadTag, TagValue, Trace, TraceStep, Withheld } from './types';
import type { TagDefinition } from '../catalogue/types';

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
		this.scope = { site: model.site, addresses: new AddressBook(model.site.base), facts, now };
		this.types = new Map(model.types.map((type) => [type.name, type]));
	}

	/** The absolute address of a page, or undefined when the site's base is none. */
	addressOf(path: string): string | undefined {
		return this.scope.addresses.ofPath(path);
	}

	/** The head of a page. */
	resolveHead(page: Page): Head {
		return this.emit(this.open(page));
	}

	/** The head of a page with a trace for every tag that anything was said about, in the order of output. */
	resolveWithTrace(page: Page): { head: Head; traces: Trace[] } {
		const told: (Search | undefined)[] = [];
		const open = this.open(page, told);
		const withheld = new Map<string, Withheld>();
		const head = this.emit(open, withheld);
		const { plan, resolution } = open;
		for (let index = 0; index < plan.tags.length; index++) resolution.valueAt(index);
		const steps = plan.telling.map((search, index) => search.explain(resolution, told[index] as Search));
		return {
			head,
			traces: plan.tags.map((tag, index) => traceOf(tag.name, index, told as Search[], steps, plan, withheld))
		};
	}

	private open(page: Page, told?: (Search | undefined)[]) {
		const type = this.types.get(page.type);
		const plan = this.planFor(page, type);
		return { plan, type, page, resolution: new Resolution(this.scope, type, page, plan, told) };
	}

	private planFor(page: Page, type: ContentType | undefined): Plan {
		const language = page.language ?? this.scope.site.languages[0] ?? 'en';
		if (page.rules.length > 0) return this.makePlan(language, type, page.rules);
		let plans = this.plans.get(type);
		if (!plans) this.plans.set(type, (plans = new Map()));
		let plan = plans.get(language);
		if (!plan) plans.set(language, (plan = this.makePlan(language, type, [])));
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

	private emit({ plan, resolution, type, page }: ReturnType<Resolver['open']>, withheld?: Map<string, Withheld>): Head {
		const tags: HeadTag[] = [];
		const og = resolution.family('og');
		const twitter = resolution.family('twitter');
		const lean = this.scope.site.lean === true && og.on;
		for (const index of plan.active) {
			const tag = plan.tags[index] as TagDefinition;
			const parent = plan.parents[index] as number;
			if (tag.family === 'og' ? !og.on : tag.family === 'twitter' ? !twitter.on : false)
				withheld?.set(tag.name, { kind: 'family-off', layer: (tag.family === 'og' ? og : twitter).layer });
			else if (tag.parent && (parent < 0 || resolution.valueAt(parent) === null))
				withheld?.set(tag.name, { kind: 'no-parent', parent: tag.parent });
			else if (lean && tag.twin && saysTheSame(resolution, tag))
				withheld?.set(tag.name, { kind: 'same-as-twin', twin: tag.twin });
			// The alt text of a shown picture is written with it.
			else if (tag.name !== 'og:image:alt') pushTag(tags, tag, resolution.valueAt(index), resolution);
		}
		return {
			html: this.htmlAttributes(resolution),
			tags,
			before: this.extra('before', page, type),
			after: this.extra('after', page, type)
		};
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

function saysTheSame(resolution: Resolution, tag: TagDefinition): boolean {
	const text = resolution.textOf(tag.name);
	return text !== '' && text === resolution.textOf(tag.twin as string);
}

function pushTag(tags: HeadTag[], tag: TagDefinition, value: TagValue | null, resolution: Resolution) {
	if (value === null) return;
	if (typeof value === 'string') {
		tags.push({ tag, value, attributes: tag.attributes });
		return;
	}
	for (let index = 0; index < value.length; index++) {
		const item = value[index] as (typeof value)[number];
		if (typeof item === 'string') tags.push({ tag, value: item, attributes: tag.attributes });
		else if ('address' in item) pushPicture(tags, tag, item, index, resolution);
		else tags.push(withAttributes(tag, item));
	}
}

const withAttributes = (tag: TagDefinition, { value, attributes }: Attributed): HeadTag => ({
	tag,
	value,
	attributes: { ...tag.attributes, ...attributes }
});

/** A picture and, directly after it, the facts that travel with it (R11). Alt text set for the tag goes to the first. */
function pushPicture(
	tags: HeadTag[],
	tag: TagDefinition,
	picture: ChosenPicture,
	index: number,
	resolution: Resolution
) {
	tags.push({ tag, value: picture.address, attributes: undefined });
	if (tag.name !== 'og:image') return;
	const facts = PICTURE_FACT_TAGS;
	if (picture.secure) pushFact(tags, facts.secure, picture.secure);
	if (picture.type) pushFact(tags, facts.type, picture.type);
	if (picture.width) pushFact(tags, facts.width, String(picture.width));
	if (picture.height) pushFact(tags, facts.height, String(picture.height));
	const alt = index === 0 ? resolution.textOf('og:image:alt') : picture.alt;
	if (alt) pushFact(tags, facts.alt, alt);
}

const pushFact = (tags: HeadTag[], tag: TagDefinition, value: string) =>
	void tags.push({ tag, value, attributes: undefined });

/** The trace of one tag, with what only the whole head can tell: why it is not written, and what was passed over (R3). */
function traceOf(
	tag: string,
	index: number,
	told: readonly Search[],
	all: readonly (readonly TraceStep[])[],
	plan: Plan,
	withheld: ReadonlyMap<string, Withheld>
): Trace {
	const { value, end } = told[index] as Search;
	const steps = all[index] as readonly TraceStep[];
	if (value === null) return { tag, value: undefined, steps, winner: -1 };
	const why = withheld.size > 0 ? withheld.get(tag) : undefined;
	const from = plan.borrowsFrom[index] as number;
	const layer =
		from < 0
			? undefined
			: layerPassedOver(steps[end] as TraceStep, told[from] as Search, all[from] as readonly TraceStep[]);
	const trace: Trace = { tag, value, steps, winner: end };
	if (!why && !layer) return trace;
	return {
		...trace,
		...(layer && { passedOver: { tag: (plan.tags[from] as TagDefinition).name, layer } }),
		...(why && { withheld: why })
	};
}

/** The layer of the tag that the built-in would have borrowed from, when that is the more specific one. */
function layerPassedOver(mine: TraceStep, { value, end }: Search, steps: readonly TraceStep[]): Layer | undefined {
	const theirs = mine.layer === 'built-in' || value === null ? undefined : steps[end]?.layer;
	return theirs && LAYERS.indexOf(theirs) < LAYERS.indexOf(mine.layer) ? theirs : undefined;
}
