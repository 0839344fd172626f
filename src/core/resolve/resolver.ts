import type { TagDefinition } from '../catalogue/types';
import { limitExtraMarkup } from '../markup/extra';
import type { ContentType, ExtraMarkup, Layer, Page, Picture, Site } from '../model';
import { LAYERS } from '../model';
import { spaced } from '../template/compile';
import type { SitePages } from './others';
import { piecesFor, saidOf } from './words';
import { inTimeZone } from '../template/dates';
import { AddressBook } from './address';
import { needsMet } from './builtIns';
import { emitTags } from './emit';
import { foundBook, foundPolicyFor } from './found';
import { FrameBook } from './frames';
import { CollectedHead, type Head, type TagSink } from './head';
import { languageOf } from './language';
import { factsFrom, PageEvaluation, type SiteScope } from './page';
import { makePlan, withConstants, type Plan } from './plan';
import type { PictureFacts } from './scope';
import { SearchRecord, type SharedTraces, type TracedSearch } from './search';
import type { Trace } from './trace';

/** What is needed of a site to resolve its pages, besides the pages. */
export interface SiteModel {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly pictures: readonly Picture[] | PictureFacts;
	/** All its pages, for templates that ask for others; without it there are none. */
	readonly others?: SitePages | undefined;
}

/** Plans kept for a type are dropped all together at this number: pages name any number of languages and found tags. */
const MOST_PLANS = 200;
/** Extra markup kept parsed is dropped all together at this number. */
const MOST_EXTRAS = 1000;

/**
 * A site made ready: its rules compiled to a plan for each type and language, once. Pure and deterministic: the same
 * site, page and `now` give the same head, and no page makes it throw.
 */
export class Resolver {
	private readonly scope: SiteScope;
	private readonly types: ReadonlyMap<string, ContentType>;
	/** By type, then by what pages have, their language and the tags that their own files speak of. */
	private readonly plans = new Map<ContentType | undefined, Map<string, Plan>>();
	/** The plans of the pages before that found nothing, by what these have: mostly those of the next pages as well. */
	private readonly last: { readonly type: ContentType | undefined; readonly language: string; readonly plan: Plan }[] =
		[];
	private readonly extras = new Map<string, readonly string[]>();

	/** `moment` is what `{now}` names, ISO 8601, and `now` what the clock shows: days and what is past are told by it. */
	constructor(model: SiteModel, moment: string, now = moment) {
		const facts = typeof model.pictures === 'function' ? model.pictures : factsFrom(model.pictures);
		this.types = new Map(model.types.map((type) => [type.name, type]));
		this.scope = {
			types: this.types,
			others: model.others,
			site: model.site,
			addresses: new AddressBook(model.site.base),
			facts,
			frames: new FrameBook(model.site.frames),
			moment: inTimeZone(moment, model.site.timeZone),
			now: inTimeZone(now, model.site.timeZone),
			separator: spaced(model.site.separator),
			choices: new Map(),
			member: (page, company) => {
				const type = this.types.get(page.type);
				return new PageEvaluation(this.scope, type, page, this.planFor(page, type), undefined, company);
			}
		};
	}

	/** The absolute address of a page, or undefined when the site's base is none. */
	addressOf(path: string): string | undefined {
		return this.scope.addresses.ofPath(path);
	}

	/** The head of a page. */
	resolveHead(page: Page): Head {
		return this.headOf(this.evaluate(page));
	}

	/** The head of a page that was evaluated. */
	headOf(page: PageEvaluation): Head {
		const head = new CollectedHead(this.htmlAttributes(page));
		this.emit(page, head);
		return head;
	}

	/** The head of a page with a trace for every tag that anything was said about, in the order of output. */
	resolveWithTrace(page: Page): { head: Head; traces: Trace[] } {
		return this.tracedHeadOf(this.evaluate(page, true));
	}

	/**
	 * A single page with all that can be asked about it, from one evaluation: its head and traces, and the scope that
	 * templates are tried in. Nothing is made ready for other pages.
	 */
	look(page: Page): { head: Head; traces: Trace[]; scope: PageEvaluation } {
		const type = this.types.get(page.type);
		const found = page.found ? foundBook(page.found).tags : NONE_FOUND;
		const plan = this.makePlan(languageOf(page, this.scope.site), type, page, found);
		const scope = new PageEvaluation(this.scope, type, page, plan, new SearchRecord(plan.startEnds));
		return { ...this.tracedHeadOf(scope), scope };
	}

	private tracedHeadOf(evaluation: PageEvaluation): { head: Head; traces: Trace[] } {
		const head = new CollectedHead(this.htmlAttributes(evaluation));
		this.emit(evaluation, head);
		return { head, traces: this.tracesOf(evaluation) };
	}

	/** A page on its way through the rules: what templates can ask for, and what single tags come to. */
	evaluate(page: Page, isTraced = false): PageEvaluation {
		const type = this.types.get(page.type);
		const plan = this.planFor(page, type);
		return new PageEvaluation(this.scope, type, page, plan, isTraced ? new SearchRecord(plan.startEnds) : undefined);
	}

	/** Hands the tags of a page on, without making a head of them; gives what was written for them. */
	writeTags(page: Page, sink: TagSink): string {
		return this.emit(this.evaluate(page), sink);
	}

	/** The same, and the traces. */
	writeWithTrace(page: Page, sink: TagSink): { written: string; traces: Trace[] } {
		const evaluation = this.evaluate(page, true);
		const written = this.emit(evaluation, sink);
		return { written, traces: this.tracesOf(evaluation) };
	}

	private planFor(page: Page, type: ContentType | undefined): Plan {
		const language = languageOf(page, this.scope.site);
		const found = page.found ? foundBook(page.found).tags : NONE_FOUND;
		// What a page says for itself makes a plan of its own.
		if (page.rules?.length > 0 || page.foundPolicy) return this.makePlan(language, type, page, found);
		const met = needsMet(page, type);
		const last = this.last[met];
		if (found.length === 0 && last?.type === type && last?.language === language) return last.plan;
		let plans = this.plans.get(type);
		if (!plans) this.plans.set(type, (plans = new Map<string, Plan>()));
		const key = [met, language, ...found.map(({ name }) => name)].join(' ');
		let plan = plans.get(key);
		if (!plan) {
			plan = this.makePlan(language, type, page, found);
			plan = withConstants(plan, new PageEvaluation(this.scope, type, page, plan, undefined), met);
			if (plans.size >= MOST_PLANS) plans.clear();
			plans.set(key, plan);
		}
		if (found.length === 0) this.last[met] = { type, language, plan };
		return plan;
	}

	private makePlan(language: string, type: ContentType | undefined, page: Page, found: readonly TagDefinition[]): Plan {
		const { site } = this.scope;
		return makePlan({
			layers: [
				{ layer: 'page', rules: page.rules ?? [] },
				{ layer: 'type', rules: type?.rules ?? [] },
				{ layer: 'site', rules: site.rules ?? [] }
			],
			found: found.map((tag) => {
				const { policy, layer } = foundPolicyFor(tag.name, page, type, site);
				return { tag, policy, saidBy: layer };
			}),
			language,
			kind: type?.kind || 'website',
			isPrivate: site.private === true,
			prefixes: site.prefixes ?? {},
			said: saidOf(type, language, site.languages[0] ?? ''),
			pieces: piecesFor(site, type)
		});
	}

	private emit(page: PageEvaluation, sink: TagSink): string {
		if (!this.scope.site.extra && !page.type?.extra && !page.page.extra) return emitTags(page, sink);
		const before = sink.markup('before', this.extra('before', page));
		const tags = emitTags(page, sink);
		return before + tags + sink.markup('after', this.extra('after', page));
	}

	/** The traces of a page whose tags were handed on. */
	private tracesOf(page: PageEvaluation): Trace[] {
		const { plan, watch } = page;
		const record = page.record as SearchRecord;
		const count = plan.tags.length;
		// Where rules go in circles, every tag has its value before a reason asks for one.
		if (watch) for (let index = 0; index < count; index++) page.valueAt(index);
		plan.shared ??= shareTraces(page, record);
		const { traces: shared, others } = plan.shared;
		const traces = shared.slice();
		for (let at = 0; at < others.length; at++) {
			const index = others[at] as number;
			traces[index] = traceOf(index, page, record);
		}
		if (record.withheld) for (const index of record.withheld.keys()) traces[index] = traceOf(index, page, record);
		return traces as Trace[];
	}

	private htmlAttributes(page: PageEvaluation): Head['html'] {
		if (!this.scope.site.prefixes) return { lang: page.language };
		const prefixes = Object.entries(this.scope.site.prefixes).map(([prefix, namespace]) => `${prefix}: ${namespace}`);
		return { lang: page.language, ...(prefixes.length && { prefix: prefixes.join(' ') }) };
	}

	/** Extra markup of the three layers, the site's first; each text is parsed once. */
	private extra(where: keyof ExtraMarkup, { page, type }: PageEvaluation): readonly string[] {
		const { site } = this.scope;
		const texts = [site.extra?.[where], type?.extra?.[where], page.extra?.[where]];
		return texts.flatMap((text) => (text === undefined ? [] : this.limited(text)));
	}

	private limited(markup: string): readonly string[] {
		let elements = this.extras.get(markup);
		if (!elements) {
			elements = limitExtraMarkup(markup).elements;
			if (this.extras.size >= MOST_EXTRAS) this.extras.clear();
			this.extras.set(markup, elements);
		}
		return elements;
	}
}

const NONE_FOUND: readonly TagDefinition[] = [];

/**
 * What the traces of all pages of a plan have in common: tags that come to the same everywhere, but for those that pass
 * over a tag whose layer may be another on another page.
 */
function shareTraces(page: PageEvaluation, record: SearchRecord): SharedTraces {
	const { plan, searches } = page;
	const traces = plan.start.map((value, index) => {
		const isSame =
			value === null ||
			(value !== undefined && (plan.borrowsFrom[index]! < 0 || searches[index]!.layerOf(page, record) === 'built-in'));
		return isSame ? searches[index]!.trace(page, record) : undefined;
	});
	return { traces, others: [...traces.keys()].filter((index) => !traces[index]) };
}

/** The trace of one tag, with what only the whole head can tell: why it is not written, and what was passed over (R3). */
function traceOf(index: number, page: PageEvaluation, record: SearchRecord): Trace {
	const { plan, searches } = page;
	const search = searches[index] as TracedSearch;
	const trace = search.trace(page, record);
	if (trace.winner < 0) return trace;
	const from = plan.borrowsFrom[index] as number;
	const why = record.withheld?.get(index);
	if (from < 0 && !why) return trace;
	const other = searches[from];
	const layer = other && layerPassedOver(search, other, page, record);
	if (!why && !layer) return trace;
	return {
		...trace,
		...(layer && { passedOver: { tag: other.tag, layer } }),
		...(why && { withheld: why })
	};
}

/** The layer of the tag that the built-in would have borrowed from, when that is the more specific one. */
function layerPassedOver(
	mine: TracedSearch,
	theirs: TracedSearch,
	page: PageEvaluation,
	record: SearchRecord
): Layer | undefined {
	const layer = mine.layerOf(page, record) as Layer;
	const other = layer === 'built-in' ? undefined : theirs.layerOf(page, record);
	return other && LAYERS.indexOf(other) < LAYERS.indexOf(layer) ? other : undefined;
}
