import {
	BUILT_IN_PICTURES,
	cardOf,
	checkRule,
	editModel,
	editPage,
	fieldsOfAll,
	describeFinding,
	findInPicture,
	findTag,
	formatIssue,
	headToJson,
	keptCopyOf,
	knownVariables,
	languageChain,
	measureReach,
	pictureOfValue,
	piecesOf,
	READERS,
	Resolver,
	sameJson,
	TAG_NAMES,
	takenBack,
	type AnyEdit,
	type Card,
	type Changes,
	type ContentType,
	type Edit,
	type Fields,
	type FoundPolicy,
	type HeadJson,
	type Issue,
	type Page,
	type Picture,
	type PictureEdit,
	type PictureSource,
	type Rule,
	type RuleBody,
	type SettingsEdit,
	type Shape,
	type Site
} from '$core';
import type { Version } from '$server/web/benchData';
import * as api from '$ui/api';
import { bodyOf, keyOfEdit, keyOfSettings, type Draft } from './drafts';
import { differencesOf, linesOf, sameCard, sameLine, Stable, type HeadLine } from './lines';
import { BenchRelease } from './release.svelte';

export type EditableLayer = 'page' | 'type' | 'site';

/** What can stand in the place of a tag's layers: settings of a layer, or a part of the page. */
export const PANELS = ['layers', 'page', 'fields', 'versions', 'own', 'type', 'site', 'picture'] as const;
export type Panel = (typeof PANELS)[number];

/** What the server hands the bench for one page. */
export interface BenchData {
	readonly site: Site;
	readonly types: readonly ContentType[];
	readonly page: Page;
	readonly pictures: readonly Picture[];
	readonly released: HeadJson | null;
	/** What the server makes of the page as it is kept, at that moment; undefined once an edit was kept on top of it. */
	readonly server?: { readonly now: string; readonly head: HeadJson } | undefined;
	/** The same page in other languages, gaps among them. */
	readonly versions: readonly Version[];
	/** The share of the pages of its type that have each field, 0 to 1, of a sample. */
	readonly fieldShares?: Readonly<Record<string, number>>;
	/** What a later reading would bring the page up to date from. */
	readonly cameFrom?: 'folder' | 'web' | 'table' | undefined;
	readonly count: { readonly all: number; readonly live: number; readonly byType: Readonly<Record<string, number>> };
}

/** What each layer is, beside its rules. */
interface Owners {
	readonly page: Omit<Page, 'rules'>;
	readonly type: Omit<ContentType, 'rules' | 'name'>;
	readonly site: Omit<Site, 'rules'>;
}

/** Waits this long (milliseconds) after the last keystroke before the reach is counted. */
const PAUSE = 160;
/** What touches one page alone is kept this long (milliseconds) after the last keystroke. */
const REST = 1500;

/** The bench at a page: the layers as they are kept, the drafts on top of them, and all that follows. */
export class Bench {
	data = $state.raw() as BenchData;
	tag = $state('title');
	/** What is shown in the place of the layers. */
	panel = $state<Panel>('layers');
	/** The language that rules are written for, by layer; without one, that of the rule in force. */
	languages = $state<Partial<Record<EditableLayer, string>>>({});
	drafts = $state.raw<Readonly<Record<string, Draft>>>({});
	readonly release: BenchRelease;
	message = $state<string | undefined>();
	saving = $state<'idle' | 'saving' | 'failed'>('idle');
	savedAt = $state<string | undefined>();
	/** How many edits were kept here: what fields can take back by themselves ends with each. */
	keptEdits = $state(0);
	/** The counts of reach under way, by draft: one that is written further is counted anew. */
	private readonly counting = new Map<string, AbortController>();
	private readonly resting = new Map<string, ReturnType<typeof setTimeout>>();

	constructor(
		private readonly siteName: string,
		data: BenchData,
		/** Told after every edit that was kept. */
		private readonly kept: () => void = () => undefined,
		/** Reads the data anew, after a change that the bench did not make itself. */
		private readonly reload: () => Promise<void> = () => Promise.resolve()
	) {
		this.data = data;
		this.release = new BenchRelease(siteName, () => this.waiting);
	}

	/** The layers and the page with every draft in them. */
	private readonly edited = $derived.by(() => {
		const { site, types, pictures } = this.data;
		let [model, page] = [{ site, types, pictures }, this.data.page];
		for (const { edit } of Object.values(this.drafts)) [model, page] = [editModel(model, edit), editPage(page, edit)];
		return { model, page };
	});
	private readonly resolver = $derived(new Resolver(this.edited.model, new Date().toISOString()));
	readonly outcome = $derived(this.resolver.resolveWithTrace(this.edited.page));
	readonly scope = $derived(this.resolver.evaluate(this.edited.page));

	/**
	 * The tags that the server writes otherwise than this browser, with what it writes: the two may know other locale
	 * data. What reach counts and a release holds is the server's.
	 */
	readonly serverWrites = $derived.by(() => {
		const { site, types, pictures, page, server } = this.data;
		if (!server) return NO_DIFFERENCES;
		const here = headToJson(new Resolver({ site, types, pictures }, server.now).resolveHead(page));
		return differencesOf(here, server.head);
	});

	readonly site = $derived(this.edited.model.site);
	readonly types = $derived(this.edited.model.types);
	readonly pictures = $derived(this.edited.model.pictures);
	readonly page = $derived(this.edited.page);
	readonly type = $derived(this.edited.model.types.find((type) => type.name === this.page.type));
	/** What comes out as before stays the same object: only what an edit touches is drawn again. */
	private readonly stableCards = new Stable<Card>((card) => card.reader.id, sameCard);
	private readonly stableLines = new Stable<HeadLine>(({ tag }) => tag, sameLine);
	readonly cards = $derived(this.stableCards.of(READERS.map((reader) => cardOf(reader, this.outcome.head))));
	readonly lines = $derived(
		this.stableLines.of(linesOf(this.outcome.head, this.outcome.traces, this.data.released, [this.tag, ...ALWAYS]))
	);
	readonly line = $derived.by((): HeadLine | undefined => {
		const line = this.lines.find(({ tag }) => tag === this.tag);
		const trace = this.outcome.traces.find(({ tag }) => tag === this.tag);
		return line && trace ? { ...line, trace } : line;
	});
	/** What the rule in force for the chosen tag cuts pictures to; undefined when it leaves them whole. */
	readonly shapesInForce = $derived.by((): readonly Shape[] | undefined => {
		const rule = this.line?.trace.steps[this.line.trace.winner]?.rule;
		return rule && 'shapes' in rule && rule.shapes?.length ? rule.shapes : undefined;
	});
	/** The picture that the chosen tag came to. */
	readonly picture = $derived(pictureOfValue(this.line?.trace.value));
	/** The source of the picture that can be studied: what the tag came to, or what its share picture is made with. */
	readonly pictureSource = $derived.by(() => {
		const file = this.picture?.recipe?.picture?.file;
		if (!this.picture?.recipe) return this.picture?.src;
		return file && this.pictures.find((picture) => keptCopyOf(picture)?.file === file)?.src;
	});
	/** Where the site's pictures are used, once that has been counted. */
	uses = $state.raw<Readonly<Record<string, api.PictureUse>>>({});
	/** What is weak in the picture that the chosen tag came to, in sentences. */
	readonly weaknesses = $derived.by(() => {
		const chosen = this.picture;
		if (!chosen || chosen.recipe) return [];
		const facts = this.pictures.find(({ src }) => src === chosen.src);
		return findInPicture({ ...facts, alt: chosen.alt ?? '' }, this.uses[chosen.src]).map(describeFinding);
	});
	/** The share picture of the page in view, whatever its rules say of it. */
	readonly share = $derived(this.scope.sharePicture());
	/** Whether the type's rules ask for it. */
	readonly asksForShare = $derived(
		this.edited.model.types
			.find(({ name }) => name === this.page.type)
			?.rules.some((rule) => rule.kind === 'pictures' && rule.sources.some(({ from }) => from === 'composed')) ?? false
	);
	readonly definition = $derived(findTag(this.tag, this.site.prefixes));
	/** Drafts that wait for someone to keep them. */
	readonly waiting = $derived(Object.values(this.drafts).length);

	/** Where an edit in a layer stands, seen from this page. */
	placeOf(layer: EditableLayer): Edit['place'] {
		if (layer === 'site') return { layer };
		return layer === 'type' ? { layer, name: this.data.page.type } : { layer, path: this.data.page.path };
	}

	/** The key of a draft of the chosen tag's rule in a layer. */
	keyAt(layer: EditableLayer): string {
		return keyOfEdit({ place: this.placeOf(layer), tag: this.tag, language: this.languageAt(layer) ?? '' } as Edit);
	}

	private rulesAt(layer: EditableLayer, { site, types, page }: Pick<BenchData, 'site' | 'types' | 'page'>) {
		if (layer === 'site') return site.rules;
		return layer === 'page' ? page.rules : (types.find((type) => type.name === page.type)?.rules ?? []);
	}

	/** The kept rules of a layer for the chosen tag, one for each language that any is for. */
	rulesFor(layer: EditableLayer): readonly Rule[] {
		return this.rulesAt(layer, this.data).filter((rule) => rule.tag === this.tag);
	}

	/**
	 * The kept rule of a layer that speaks for this page's language: exact, then shorter, then any. The one for the chosen
	 * language where one is chosen.
	 */
	ruleAt(layer: EditableLayer): Rule | undefined {
		const wanted = this.languages[layer];
		if (wanted !== undefined)
			return this.rulesFor(layer).find((rule) => (rule.language ?? '').toLowerCase() === wanted.toLowerCase());
		const language = this.data.page.language ?? this.data.site.languages[0] ?? '';
		const rules = this.rulesFor(layer);
		for (const step of languageChain(language)) {
			const found = rules.find((rule) => (rule.language ?? '').toLowerCase() === step);
			if (found) return found;
		}
		return undefined;
	}

	private languageAt(layer: EditableLayer): string | undefined {
		return this.languages[layer] ?? this.ruleAt(layer)?.language;
	}

	draftAt(layer: EditableLayer): Draft | undefined {
		return this.drafts[this.keyAt(layer)];
	}

	/** What a layer says about the chosen tag: the draft, or what is kept. */
	bodyAt(layer: EditableLayer): RuleBody | null {
		const draft = this.draftAt(layer);
		return draft && 'tag' in draft.edit ? draft.edit.body : bodyOf(this.ruleAt(layer));
	}

	/** What the field of a layer holds: the draft, or the template that is kept. */
	textAt(layer: EditableLayer): string {
		const body = this.bodyAt(layer);
		return this.draftAt(layer)?.text ?? (body?.kind === 'template' ? body.template : '');
	}

	/** What is wrong with what a layer's field holds. */
	issuesAt(layer: EditableLayer): readonly (Issue & { message: string })[] {
		const body = this.bodyAt(layer);
		if (!body) return [];
		const fields = layer === 'site' ? fieldsOfAll(this.data.types) : (this.type?.fields ?? []);
		const source = body.kind === 'template' ? body.template : '';
		return checkRule({ tag: this.tag, ...body }, { site: this.site, fields }).map((issue) => ({
			...issue,
			message: formatIssue(issue, source)
		}));
	}

	/** What a template comes to on this page, part by part. */
	piecesOf(template: string) {
		return piecesOf(template, this.scope);
	}

	/** What a template comes to on this page, as it is shown beside what is offered. */
	show = (template: string): string =>
		this.piecesOf(template)
			.map((piece) => piece.text)
			.join('')
			.slice(0, 60);

	/** The variables that fit into a template of a layer, each with the value it has on this page. */
	variablesFor(layer: EditableLayer) {
		const fields = layer === 'site' ? fieldsOfAll(this.data.types) : (this.type?.fields ?? []);
		const siteFields = Object.keys(this.site.fields);
		const known = knownVariables({ fields, siteFields, tagNames: TAG_NAMES.filter((name) => HEAD_NAMES.has(name)) });
		return known.map(({ name, label }) => ({
			name,
			label,
			value: this.piecesOf(`{${name}}`)[0]?.text.slice(0, 80) ?? '',
			share: this.data.fieldShares?.[name.replace(/^page\./, '').split('.')[0] as string]
		}));
	}

	/** A picture that has just come into the library: its facts are known at once. */
	addPicture(picture: Picture) {
		const others = this.data.pictures.filter(({ src }) => src !== picture.src);
		this.data = { ...this.data, pictures: [...others, picture] };
	}

	/** What one source of pictures gives on this page, or why it is skipped. */
	tryPictures(sources: readonly PictureSource[], body: Extract<RuleBody, { kind: 'pictures' }>) {
		const rule: Rule = { ...body, sources, tag: 'og:image' };
		const page = { ...this.page, rules: [rule], families: { og: true } };
		return this.resolver.resolveWithTrace(page).traces.find((trace) => trace.tag === 'og:image');
	}

	/** Takes a keystroke in a layer's field. An empty field inherits; a text that is as it was kept is no draft. */
	write(layer: EditableLayer, text: string) {
		this.propose(layer, text === '' ? null : { kind: 'template', template: text }, text);
	}

	/** Puts the share picture first among the sources of the type's `og:image`. */
	useShare() {
		this.tag = 'og:image';
		const body = this.bodyAt('type');
		const rest: readonly PictureSource[] =
			body?.kind === 'pictures' ? body.sources.filter(({ from }) => from !== 'composed') : BUILT_IN_PICTURES.sources;
		this.propose('type', {
			...(body?.kind === 'pictures' ? body : { kind: 'pictures', shapes: this.shapesInForce ?? ['wide'] }),
			sources: [{ from: 'composed' }, ...rest]
		});
	}

	/** The same for any tag, for any language or for one. */
	proposeFor(layer: EditableLayer, tag: string, body: RuleBody | null, language?: string) {
		const isIt = (rule: Rule) => rule.tag === tag && (rule.language ?? '') === (language ?? '');
		const kept = bodyOf(this.rulesAt(layer, this.data).find(isIt));
		const edit: Edit = { place: this.placeOf(layer), tag, ...(language && { language }), body };
		this.draft(edit, body?.kind === 'template' ? body.template : '', kept, sameJson(body, kept));
	}
	/** The key of a draft of any tag's rule in a layer, for any language. */
	keyFor(layer: EditableLayer, tag: string): string {
		return keyOfEdit({ place: this.placeOf(layer), tag, language: '' } as Edit);
	}
	/** What a layer says of any tag, in any language: the draft, or what is kept. */
	bodyFor(layer: EditableLayer, tag: string): RuleBody | null {
		const draft = this.drafts[keyOfEdit({ place: this.placeOf(layer), tag } as Edit)];
		if (draft && 'tag' in draft.edit) return draft.edit.body;
		return bodyOf(this.rulesAt(layer, this.data).find((rule) => rule.tag === tag && !rule.language));
	}

	/** Writes fields of the page: those that come out different are held against a later reading. */
	changeFields(fields: Fields) {
		const { page } = this.data;
		const names = new Set([...Object.keys(page.fields), ...Object.keys(fields)]);
		const written = [...names].filter((name) => !sameJson(page.fields[name], fields[name]));
		const held = [...new Set([...(page.held ?? []), ...written])];
		this.change('page', { fields, held: held.length > 0 ? held : null });
	}

	/** Something of the site was changed by another way than a draft: the data is read anew, and other tabs are told. */
	async changedElsewhere() {
		this.kept();
		await this.reload();
		void this.release.refresh();
	}

	/** Takes a change of what a layer says about the chosen tag; null to inherit. */
	propose(layer: EditableLayer, body: RuleBody | null, text = '') {
		const kept = bodyOf(this.ruleAt(layer));
		const language = this.languageAt(layer);
		const edit: Edit = { place: this.placeOf(layer), tag: this.tag, ...(language && { language }), body };
		this.draft(edit, text, kept, sameJson(body, kept));
	}

	/** What the page's own file says of the chosen tag becomes the page's own rule: its words, taken as they are. */
	takeFound(value: string) {
		this.propose('page', { kind: 'template', template: asPlainTemplate(value) }, asPlainTemplate(value));
	}
	/** Lets the rule of a layer win over what the pages' own files say of the chosen tag: those come last there. */
	letWin(place: AnyEdit['place']) {
		if (place.layer === 'site' || place.layer === 'type') this.setFoundPolicy(place.layer, 'last');
	}
	/** What a layer says of found values of the chosen tag (R13); null for nothing. */
	setFoundPolicy(layer: EditableLayer, policy: FoundPolicy | null) {
		const before = this.ownerOf(this.placeOf(layer)) as Owners[EditableLayer] | undefined;
		const { [this.tag]: _old, ...others } = before?.foundPolicy?.tags ?? {};
		const tags = policy === null ? others : { ...others, [this.tag]: policy };
		const { tags: _tags, ...rest } = before?.foundPolicy ?? {};
		const policies = { ...rest, ...(Object.keys(tags).length > 0 && { tags }) };
		this.change(layer, { foundPolicy: Object.keys(policies).length > 0 ? policies : null });
	}

	/** The same for settings of a layer beside its rules. */
	change<L extends EditableLayer>(layer: L, changes: Changes<Owners[L]>) {
		this.changeAt(this.placeOf(layer), changes);
	}
	/** The same for what is known of a picture. */
	changePicture(src: string, changes: PictureEdit['changes']) {
		this.changeAt({ layer: 'picture', src }, changes);
	}

	private changeAt(place: SettingsEdit['place'], changes: object) {
		const key = keyOfSettings(place);
		const before = this.drafts[key]?.edit as SettingsEdit | undefined;
		const all = { ...(before?.changes as object), ...changes };
		const edit = { place, changes: all } as SettingsEdit;
		const base = takenBack(this.ownerOf(place) as object, all as Changes<object>);
		this.draft(edit, '', base, sameJson(all, base));
	}

	private draft(edit: AnyEdit, text: string, base: unknown, isAsKept: boolean) {
		const key = keyOfEdit(edit);
		if (isAsKept) return this.discard(key);
		const before = this.drafts[key];
		this.setDraft(key, {
			edit,
			text,
			base: before && 'tag' in edit ? before.base : base,
			reach: { seen: 0, all: this.data.count.all },
			refused: undefined,
			conflict: before?.conflict
		});
		if (edit.place.layer === 'page') this.countHere(key, edit);
		else this.countReach(key, edit);
	}

	private setDraft(key: string, draft: Draft | undefined) {
		const { [key]: _before, ...others } = this.drafts;
		this.drafts = draft ? { ...others, [key]: draft } : others;
	}
	/** What has come to be known of a draft that is still there. */
	private tell(key: string, change: Partial<Draft>) {
		const draft = this.drafts[key];
		if (draft) this.setDraft(key, { ...draft, ...change });
	}

	/** One page's reach is found at once, and what touches one page alone is kept by itself after a rest. */
	private countHere(key: string, edit: AnyEdit) {
		const { site, types, page, pictures } = this.data;
		const now = new Date().toISOString();
		this.tell(key, { reach: measureReach({ site, types, pictures }, [page], edit, now) });
		clearTimeout(this.resting.get(key));
		this.resting.set(
			key,
			setTimeout(() => void this.keep(key), REST)
		);
	}

	private countReach(key: string, edit: AnyEdit) {
		this.counting.get(key)?.abort();
		const abort = new AbortController();
		this.counting.set(key, abort);
		const set = (reach: Draft['reach']) => {
			if (!abort.signal.aborted) this.tell(key, { reach });
		};
		setTimeout(async () => {
			if (abort.signal.aborted) return;
			const progress = (seen: number, all: number) => set({ seen, all });
			set(await api.reach(this.siteName, edit, abort.signal, progress).catch(() => undefined));
		}, PAUSE);
	}

	/** Ends the counting of a draft's reach; the draft stays. */
	stopCounting(key: string) {
		this.counting.get(key)?.abort();
		this.tell(key, { reach: 'stopped' });
	}

	discard(key: string) {
		this.counting.get(key)?.abort();
		clearTimeout(this.resting.get(key));
		if (this.drafts[key]) this.setDraft(key, undefined);
		// With the last one taken back, nothing is left that was not kept.
		if (this.saving === 'failed' && this.waiting === 0) this.saving = 'idle';
	}

	discardAt(layer: EditableLayer) {
		this.discard(this.keyAt(layer));
	}
	async keepAt(layer: EditableLayer) {
		await this.keep(this.keyAt(layer));
	}

	private isBroken(edit: AnyEdit): boolean {
		if (!('tag' in edit) || !edit.body) return false;
		const fields = edit.place.layer === 'site' ? fieldsOfAll(this.data.types) : (this.type?.fields ?? []);
		return checkRule({ tag: edit.tag, ...edit.body }, { site: this.site, fields }).some(
			(issue) => issue.severity === 'error'
		);
	}

	/** Keeps a draft in the working copy. One with an error, or in conflict, stays a draft. */
	async keep(key: string) {
		clearTimeout(this.resting.get(key));
		const draft = this.drafts[key];
		if (!draft || draft.conflict || this.isBroken(draft.edit)) return;
		const { edit, base } = draft;
		const result = await this.send(edit, base);
		const now = this.drafts[key];
		if (result.kind === 'refused') this.tell(key, { refused: result.why });
		if (result.kind === 'conflict') this.tell(key, { conflict: { current: result.current } });
		if (result.kind !== 'kept') return;
		this.keptEdits++;
		// What was typed while it was on its way stays a draft, on top of what was kept.
		if (now && sameJson(now.edit, edit)) this.discard(key);
		else if (now) this.tell(key, { base: 'tag' in edit ? edit.body : edit.changes });
		await this.release.refresh();
	}

	private async send(edit: AnyEdit, expected: unknown): Promise<api.Kept> {
		this.saving = 'saving';
		let result = await api.keep(this.siteName, edit, expected);
		// What stands there is what is sent: it was kept before, as one left.
		if (result.kind === 'conflict' && sameJson(result.current, 'tag' in edit ? edit.body : edit.changes))
			result = { kind: 'kept' };
		this.saving = result.kind === 'kept' ? 'idle' : 'failed';
		if (result.kind !== 'kept') return result;
		this.savedAt = new Date().toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
		const { site, types, pictures } = editModel(this.data, edit);
		this.data = { ...this.data, site, types, pictures, page: editPage(this.data.page, edit), server: undefined };
		this.kept();
		return result;
	}

	/** In a conflict: puts one's own over what stands there now. */
	async overrule(key: string) {
		const draft = this.drafts[key];
		if (!draft?.conflict) return;
		const { current } = draft.conflict;
		this.tell(key, { base: current, conflict: undefined });
		await this.keep(key);
	}

	/** Takes up drafts that were put down by an earlier visit. */
	takeUp(drafts: Readonly<Record<string, Draft>>) {
		for (const [key, { edit, text, base }] of Object.entries(drafts)) {
			this.setDraft(key, { edit, text, base, reach: undefined, refused: undefined, conflict: undefined });
			if (edit.place.layer !== 'page') this.countReach(key, edit);
			else if (edit.place.path === this.data.page.path) this.countHere(key, edit);
			// Another page's own, sent as one left it: this makes sure.
			else if (edit.place.layer === 'page') void this.keep(key);
		}
		this.findConflicts();
	}

	/** Keeps at once what would be kept by itself in a moment: before another page is shown. */
	async settle() {
		const own = Object.entries(this.drafts).filter(([, { edit }]) => edit.place.layer === 'page');
		for (const [key] of own) await this.keep(key);
	}

	/** Sends what would be kept by itself in a moment, as one leaves: by requests that outlive the page. */
	leave() {
		for (const { edit, base, conflict } of Object.values(this.drafts))
			if (edit.place.layer === 'page' && !conflict && !this.isBroken(edit))
				api.keepOnLeaving(this.siteName, edit, base);
	}

	/** Marks the drafts whose ground has changed elsewhere; called when newer data has come. */
	findConflicts() {
		for (const [key, draft] of Object.entries(this.drafts)) {
			const current = this.standingAt(draft.edit);
			const mine = 'tag' in draft.edit ? draft.edit.body : draft.edit.changes;
			// What stands there is what was written: it was kept as one left.
			if (current !== undefined && sameJson(current, mine)) this.discard(key);
			else if (current !== undefined && !sameJson(current, draft.base)) this.tell(key, { conflict: { current } });
		}
	}

	private ownerOf(place: AnyEdit['place']): Site | ContentType | Page | Picture | undefined {
		const { site, types, page, pictures } = this.data;
		switch (place.layer) {
			case 'site':
				return site;
			case 'type':
				return types.find((type) => type.name === place.name);
			case 'page':
				return place.path === page.path ? page : undefined;
			case 'picture':
				return pictures.find((picture) => picture.src === place.src);
		}
	}

	/** What is kept at the place of an edit, in the form of its base; undefined for another page. */
	private standingAt(edit: AnyEdit): unknown {
		const owner = this.ownerOf(edit.place);
		if (!owner) return undefined;
		if ('changes' in edit) return takenBack(owner as object, edit.changes as Changes<object>);
		const isIt = (rule: Rule) => rule.tag === edit.tag && (rule.language ?? '') === (edit.language ?? '');
		return bodyOf((owner as Page).rules.find(isIt));
	}

	/** Takes the last edit of the working copy back, or does it again; each is an edit that every tab sees. */
	undo = async () => void (this.message = (await this.takeBack('last')) ?? this.message);
	redo = async () => void (this.message = (await this.takeBack('again')) ?? this.message);

	/** Takes an edit back, by its number or by its place in the record; gives the sentence of a refusal. */
	async takeBack(which: 'last' | 'again' | number): Promise<string | undefined> {
		const result = await api.takeBack(this.siteName, which);
		if (api.isRefused(result)) return result.refused;
		await this.changedElsewhere();
		return undefined;
	}

	async refreshUses() {
		const uses = await api.uses(this.siteName);
		if (!api.isRefused(uses)) this.uses = uses;
	}

	/** Makes the working copy what visitors see. */
	async makeRelease() {
		const { isMade, says } = await this.release.make();
		this.message = says;
		if (isMade) await this.changedElsewhere();
	}
}

/** Tags that are shown even when they come to nothing: their absence matters. */
const ALWAYS = ['title', 'description', 'og:image', 'og:title', 'og:description'];
/** What other tags came to is offered for these. */
const HEAD_NAMES = new Set(['title', 'description', 'og:title', 'og:description', 'og:image']);

const NO_DIFFERENCES: ReadonlyMap<string, string> = new Map();

/** Signs that mean something in a template, made plain. */
const asPlainTemplate = (text: string) => text.replace(/[\\{}]|\[\[|\]\]/g, (sign) => `\\${sign}`);
