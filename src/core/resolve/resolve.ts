import { PICTURE_FACT_TAGS } from '../catalogue/catalogue';
import { limitExtraMarkup } from '../markup/extra';
import type { ContentType, ExtraMarkup, Layer, Page, Picture, Rule, Site } from '../model';
import { LAYERS } from '../model';
import { AddressBook } from './address';
import type { PictureFacts } from './pictures';
import { makePlan, type LayerRules, type Plan } from './plan';
import { factsFrom, Resolution, type SiteScope } from './resolution';
import type { Attributed, ChosenPicture, Head, HeadTag, TagValue, Trace, Withheld } from './types';
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
	private readonly plans = new Map<string, Plan>();
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
		const traces: Trace[] = [];
		const open = this.open(page, traces);
		const withheld = new Map<string, Withheld>();
		const head = this.emit(open, withheld);
		const { plan } = open;
		plan.tags.forEach((_, index) => open.resolution.valueAt(index));
		traces.sort((a, b) => plan.indexOf.get(a.tag)! - plan.indexOf.get(b.tag)!);
		return { head, traces: traces.map((trace) => annotate(trace, traces, withheld, plan)) };
	}

	private open(page: Page, traces?: Trace[]) {
		const type = this.types.get(page.type);
		const plan = this.planFor(page, type);
		return { plan, type, page, resolution: new Resolution(this.scope, type, page, plan, traces) };
	}

	private planFor(page: Page, type: ContentType | undefined): Plan {
		const language = page.language ?? this.scope.site.languages[0] ?? 'en';
		if (page.rules.length > 0) return this.makePlan(language, type, page.rules);
		const key = `${language} ${type?.name ?? ''}`;
		let plan = this.plans.get(key);
		if (!plan) this.plans.set(key, (plan = this.makePlan(language, type, [])));
		return plan;
	}

	private makePlan(language: string, type: ContentType | undefined, pageRules: readonly Rule[]): Plan {
		const layers: LayerRules[] = [
			{ layer: 'page', rules: pageRules },
			{ layer: 'type', rules: type?.rules ?? [] },
			{ layer: 'site', rules: this.scope.site.rules }
		];
		return makePlan(layers, language, this.scope.site.prefixes ?? {});
	}

	private emit({ plan, resolution, type, page }: ReturnType<Resolver['open']>, withheld?: Map<string, Withheld>): Head {
		const tags: HeadTag[] = [];
		const og = resolution.family('og');
		const twitter = resolution.family('twitter');
		const lean = this.scope.site.lean === true && og.on;
		for (let index = 0; index < plan.tags.length; index++) {
			const tag = plan.tags[index] as TagDefinition;
			const family = tag.family === 'og' ? og : tag.family === 'twitter' ? twitter : undefined;
			if (family && !family.on) withheld?.set(tag.name, { kind: 'family-off', layer: family.layer });
			else if (tag.parent && resolution.valueOf(tag.parent) === undefined) withheld?.set(tag.name, { kind: 'no-parent', parent: tag.parent });
			else if (lean && tag.twin && saysTheSame(resolution, tag)) withheld?.set(tag.name, { kind: 'same-as-twin', twin: tag.twin });
			// The alt text of a shown picture is written with it.
			else if (tag.name !== 'og:image:alt') pushTag(tags, tag, resolution.valueAt(index), resolution);
		}
		return { html: this.htmlAttributes(resolution), tags, before: this.extra('before', page, type), after: this.extra('after', page, type) };
	}

	private htmlAttributes(resolution: Resolution): Head['html'] {
		const prefixes = Object.entries(this.scope.site.prefixes ?? {}).map(([prefix, namespace]) => `${prefix}: ${namespace}`);
		return { lang: resolution.language, ...(prefixes.length && { prefix: prefixes.join(' ') }) };
	}

	/** Extra markup of the three layers, the site's first; each text is parsed once. */
	private extra(where: keyof ExtraMarkup, page: Page, type: ContentType | undefined): readonly string[] {
		const texts = [this.scope.site.extra?.[where], type?.extra?.[where], page.extra?.[where]].filter((text) => text !== undefined);
		return texts.length === 0 ? NONE : texts.flatMap((text) => this.limited(text));
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
		tags.push(tag.attributes ? { tag, value, attributes: tag.attributes } : { tag, value });
		return;
	}
	value.forEach((item, index) => {
		if (typeof item === 'string') tags.push(tag.attributes ? { tag, value: item, attributes: tag.attributes } : { tag, value: item });
		else if ('address' in item) pushPicture(tags, tag, item, index, resolution);
		else tags.push(withAttributes(tag, item));
	});
}

const withAttributes = (tag: TagDefinition, { value, attributes }: Attributed): HeadTag => ({ tag, value, attributes: { ...tag.attributes, ...attributes } });

/** A picture and, directly after it, the facts that travel with it (R11). Alt text set for the tag goes to the first. */
function pushPicture(tags: HeadTag[], tag: TagDefinition, picture: ChosenPicture, index: number, resolution: Resolution) {
	tags.push({ tag, value: picture.address });
	if (tag.name !== 'og:image') return;
	const facts = PICTURE_FACT_TAGS;
	if (picture.secure) tags.push({ tag: facts.secure, value: picture.secure });
	if (picture.type) tags.push({ tag: facts.type, value: picture.type });
	if (picture.width) tags.push({ tag: facts.width, value: String(picture.width) });
	if (picture.height) tags.push({ tag: facts.height, value: String(picture.height) });
	const alt = index === 0 ? resolution.textOf('og:image:alt') : picture.alt;
	if (alt) tags.push({ tag: facts.alt, value: alt });
}

/** Adds what only the whole head can tell: values passed over (R3), and why a tag that has one is not in the head. */
function annotate(trace: Trace, all: readonly Trace[], withheld: ReadonlyMap<string, Withheld>, plan: Plan): Trace {
	const why = withheld.get(trace.tag);
	const hasValue = trace.winner >= 0;
	return {
		...trace,
		...(hasValue && passedOver(trace, all, plan)),
		...(why && hasValue && { withheld: why })
	};
}

function passedOver(trace: Trace, all: readonly Trace[], plan: Plan): Pick<Trace, 'passedOver'> {
	const candidates = plan.candidates[plan.indexOf.get(trace.tag)!] ?? [];
	const tag = candidates.find((candidate) => candidate.builtIn?.borrows)?.builtIn?.borrows;
	const other = all.find((one) => one.tag === tag);
	const mine = trace.steps[trace.winner]?.layer as Layer;
	const theirs = other?.steps[other.winner]?.layer;
	return tag && theirs && LAYERS.indexOf(theirs) < LAYERS.indexOf(mine) && mine !== 'built-in' ? { passedOver: { tag, layer: theirs } } : {};
}
