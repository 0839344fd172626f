import {
	cardOf,
	checkRule,
	editModel,
	editPage,
	fieldsOfAll,
	findTag,
	formatIssue,
	headToJson,
	languageChain,
	READERS,
	renderTag,
	Resolver,
	type ContentType,
	type Edit,
	type HeadJson,
	type Issue,
	type Page,
	type Picture,
	type Reach,
	type Rule,
	type Site,
	type Trace
} from '$core';
import * as api from './api';

export type EditableLayer = 'page' | 'type' | 'site';

/** What the server hands the bench for one page. */
export interface BenchData {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly page: Page;
	readonly pictures: readonly Picture[];
	readonly released: HeadJson | null;
	readonly count: { readonly all: number; readonly live: number; readonly byType: Readonly<Record<string, number>> };
}

/** An edit that is being written and is not kept yet. */
export interface Draft {
	readonly edit: Edit;
	readonly text: string;
	reach: Reach | 'counting' | undefined;
	/** What the server said when it would not keep it. */
	refused: string | undefined;
}

/** One line of the head as the bench shows it. */
export interface HeadLine {
	readonly tag: string;
	readonly value: string;
	readonly trace: Trace;
	/** What visitors see now; undefined when the tag is not in the release. */
	readonly released: string | undefined;
	readonly isChanged: boolean;
	/** For a picture: what is known of it and written with it. */
	readonly facts: string | undefined;
}

/** Waits this long (milliseconds) after the last keystroke before the reach is counted. */
const PAUSE = 160;

/** The bench at a page: the layers as they are kept, the drafts on top of them, and all that follows. */
export class Bench {
	data = $state.raw() as BenchData;
	tag = $state('title');
	drafts = $state<Record<string, Draft>>({});
	pending = $state.raw<api.Pending | undefined>();
	releasing = $state(false);
	message = $state<string | undefined>();
	/** The counts of reach under way, by draft: one that is written further is counted anew. */
	private readonly counting = new Map<string, AbortController>();

	constructor(
		private readonly siteName: string,
		data: BenchData
	) {
		this.data = data;
	}

	/** The layers and the page with every draft in them. */
	private readonly edited = $derived.by(() => {
		let [model, page] = [{ site: this.data.site, types: this.data.types }, this.data.page];
		for (const { edit } of Object.values(this.drafts)) [model, page] = [editModel(model, edit), editPage(page, edit)];
		return { model, page };
	});

	private readonly outcome = $derived.by(() => {
		const { model, page } = this.edited;
		const resolver = new Resolver({ ...model, pictures: this.data.pictures }, new Date().toISOString());
		return resolver.resolveWithTrace(page);
	});

	readonly type = $derived(this.data.types.find((type) => type.name === this.data.page.type));
	readonly cards = $derived(READERS.map((reader) => cardOf(reader, this.outcome.head)));
	readonly lines = $derived.by((): HeadLine[] => {
		const working = valuesByTag(headToJson(this.outcome.head));
		const released = this.data.released ? valuesByTag(this.data.released) : undefined;
		return this.outcome.traces.flatMap((trace) => {
			const [value, before] = [working.get(trace.tag), released?.get(trace.tag)];
			if (value === undefined && before === undefined && trace.tag !== this.tag && !ALWAYS.has(trace.tag)) return [];
			return [
				{
					tag: trace.tag,
					value: value ?? '',
					trace,
					released: before,
					isChanged: released !== undefined && value !== before,
					facts: factsOf(trace)
				}
			];
		});
	});
	readonly line = $derived(this.lines.find((line) => line.tag === this.tag));
	/** The chosen tag as it will stand in the page. */
	readonly markup = $derived(
		this.outcome.head.tags
			.filter(({ tag }) => tag.name === this.tag || tag.parent === this.tag)
			.map((tag) => renderTag(tag))
	);
	readonly definition = $derived(findTag(this.tag, this.data.site.prefixes));
	readonly isDirty = $derived(Object.keys(this.drafts).length > 0);

	/** Where an edit in a layer stands, seen from this page. */
	private placeOf(layer: EditableLayer): Edit['place'] {
		if (layer === 'site') return { layer };
		return layer === 'type' ? { layer, name: this.data.page.type } : { layer, path: this.data.page.path };
	}

	private keyOf(layer: EditableLayer): string {
		const language = this.languageAt(layer);
		return JSON.stringify([this.placeOf(layer), this.tag, language ?? '']);
	}

	private rulesAt(layer: EditableLayer): readonly Rule[] {
		if (layer === 'site') return this.data.site.rules;
		return layer === 'page' ? this.data.page.rules : (this.type?.rules ?? []);
	}

	/** The rule of a layer that speaks for this page's language: exact, then shorter, then any. */
	ruleAt(layer: EditableLayer): Rule | undefined {
		const language = this.data.page.language ?? this.data.site.languages[0] ?? '';
		const rules = this.rulesAt(layer).filter((rule) => rule.tag === this.tag);
		for (const step of languageChain(language)) {
			const found = rules.find((rule) => (rule.language ?? '').toLowerCase() === step);
			if (found) return found;
		}
		return undefined;
	}

	private languageAt(layer: EditableLayer): string | undefined {
		return this.ruleAt(layer)?.language;
	}

	draftAt(layer: EditableLayer): Draft | undefined {
		return this.drafts[this.keyOf(layer)];
	}

	/** What the field of a layer holds: the draft, or the template that is kept. */
	textAt(layer: EditableLayer): string {
		const rule = this.ruleAt(layer);
		return this.draftAt(layer)?.text ?? (rule?.kind === 'template' ? rule.template : '');
	}

	/** What is wrong with the template in a layer's field. */
	issuesAt(layer: EditableLayer): readonly (Issue & { message: string })[] {
		const text = this.textAt(layer);
		if (text === '') return [];
		const fields = layer === 'site' ? fieldsOfAll(this.data.types) : (this.type?.fields ?? []);
		return checkRule({ tag: this.tag, kind: 'template', template: text }, { site: this.data.site, fields }).map(
			(issue) => ({ ...issue, message: formatIssue(issue, text) })
		);
	}

	/** Takes a keystroke in a layer's field. A text that is as it was kept is no draft. */
	write(layer: EditableLayer, text: string) {
		const key = this.keyOf(layer);
		const rule = this.ruleAt(layer);
		const kept = rule?.kind === 'template' ? rule.template : rule ? undefined : '';
		if (text === kept) return this.discard(layer);
		const language = this.languageAt(layer);
		const edit: Edit = {
			place: this.placeOf(layer),
			tag: this.tag,
			...(language && { language }),
			body: text === '' ? null : { kind: 'template', template: text }
		};
		this.drafts[key] = { edit, text, reach: 'counting', refused: undefined };
		this.countReach(key, edit);
	}

	private countReach(key: string, edit: Edit) {
		this.counting.get(key)?.abort();
		const abort = new AbortController();
		this.counting.set(key, abort);
		setTimeout(async () => {
			if (abort.signal.aborted) return;
			const reach = await api.reach(this.siteName, edit, abort.signal).catch(() => undefined);
			const draft = this.drafts[key];
			if (draft && !abort.signal.aborted) draft.reach = reach;
		}, PAUSE);
	}

	discard(layer: EditableLayer) {
		const key = this.keyOf(layer);
		this.counting.get(key)?.abort();
		delete this.drafts[key];
	}

	/** Keeps the draft of a layer in the working copy. */
	async keep(layer: EditableLayer) {
		const key = this.keyOf(layer);
		const draft = this.drafts[key];
		if (!draft || this.issuesAt(layer).some((issue) => issue.severity === 'error')) return;
		const edit = $state.snapshot(draft.edit) as Edit;
		const refused = await api.setRule(this.siteName, edit);
		if (refused !== undefined) {
			if (this.drafts[key]) this.drafts[key].refused = refused;
			return;
		}
		this.data = {
			...this.data,
			...editModel({ site: this.data.site, types: this.data.types }, edit),
			page: editPage(this.data.page, edit)
		};
		// What was typed while it was on its way stays a draft.
		if (this.drafts[key]?.text === draft.text) delete this.drafts[key];
		await this.refreshPending();
	}

	async refreshPending() {
		this.pending = await api.pending(this.siteName).catch(() => this.pending);
	}

	/** Makes the working copy what visitors see. */
	async release() {
		this.releasing = true;
		const result = await api.release(this.siteName);
		this.releasing = false;
		this.message =
			'refused' in result
				? result.refused
				: `Release ${result.number} is out: ${result.pages} ${result.pages === 1 ? 'page' : 'pages'}.`;
		if ('refused' in result) return;
		this.data = { ...this.data, released: this.data.page.state === 'live' ? headToJson(this.keptHead()) : null };
		await this.refreshPending();
	}

	private keptHead() {
		const { site, types, page, pictures } = this.data;
		return new Resolver({ site, types, pictures }, new Date().toISOString()).resolveHead(page);
	}
}

function factsOf(trace: Trace): string | undefined {
	const first = typeof trace.value === 'object' ? trace.value[0] : undefined;
	if (typeof first !== 'object' || !('address' in first)) return undefined;
	const { width, height, type, alt } = first;
	return [width && height ? `${width} × ${height}` : 'size unknown', type?.replace('image/', ''), alt ?? 'no alt text']
		.filter(Boolean)
		.join(', ');
}

/** Tags that are shown even when they come to nothing: their absence matters. */
const ALWAYS = new Set(['title', 'description', 'og:image', 'og:title', 'og:description']);

function valuesByTag(head: HeadJson): Map<string, string> {
	const values = new Map<string, string>();
	for (const { tag, value } of head.tags) values.set(tag, values.has(tag) ? `${values.get(tag)}, ${value}` : value);
	return values;
}
