import { wording } from '$ui/words/en/workspace';
import {
	BUILT_IN_PICTURES,
	checkRule,
	describeFinding,
	editModel,
	editPage,
	fieldsOfAll,
	findInPicture,
	findInShare,
	findTag,
	formatIssue,
	keptCopyOf,
	explainTemplate,
	knownVariables,
	piecesFor,
	languageChain,
	mendOfTemplate,
	pictureOfValue,
	templateParts,
	sameJson,
	TAG_NAMES,
	wordsIn,
	takenBack,
	type AnyEdit,
	type Changes,
	type ContentType,
	type Edit,
	type Fields,
	type FoundPolicy,
	type Issue,
	type Page,
	type Picture,
	type PictureEdit,
	type PictureSource,
	type Proposal,
	type Rule,
	type RuleBody,
	type SettingsEdit,
	type Shape,
	type Site,
	toWholeTemplate
} from '$core';
import type { PictureUses } from '$server/heads/uses';
import { call, isRefused } from '$ui/client';
import type { BenchData } from './data';
import { Drafts, ownerOf, type Draft } from './drafts.svelte';
import { bodyOf, keyOfEdit, keyOfSettings } from './edits';
import { History, type Undone } from './history';
import { linesOf, sameLine, Stable, type HeadLine } from '$ui/parts/lines';
import type { EditableLayer } from '$ui/parts/words';
import { BenchRelease } from './release.svelte';
import { WorkingPage } from './working.svelte';

/** What can stand in the place of a tag's layers: settings of a layer, or a part of the page. */
export const PANELS = ['layers', 'page', 'fields', 'versions', 'own', 'type', 'site', 'picture'] as const;
export type Panel = (typeof PANELS)[number];

/** What each layer is, beside its rules. */
interface Owners {
	readonly page: Omit<Page, 'rules'>;
	readonly type: Omit<ContentType, 'rules' | 'name'>;
	readonly site: Omit<Site, 'rules'>;
}

/** The bench at a page: the chosen tag in its layers, as they are kept and with what is being written in them. */
export class Bench {
	data = $state.raw() as BenchData;
	tag = $state('title');
	/** What was taken back or done again last, until something else is done. */
	undone = $state.raw<Undone | undefined>();
	/** What is shown in the place of the layers. */
	panel = $state<Panel>('layers');
	/** A setting that somebody asked for by its name, until the settings have it. */
	lookedFor = $state<string | undefined>();
	/** The language that rules are written for, by layer; without one, that of the rule in force. */
	languages = $state<Partial<Record<EditableLayer, string>>>({});
	message = $state<string | undefined>();
	/** What waits to be kept is being looked at: by itself, or since a release was asked for. */
	showsWaiting = $state<'alone' | 'release' | undefined>();
	/** What an editor elsewhere holds of the page and has not sent yet, by field; undefined where there is none. */
	typed = $state.raw<Fields | undefined>();
	/** The data as it would be with that. */
	private readonly shown = $derived(this.typed ? withTyped(this.data, this.typed) : this.data);
	readonly drafts = new Drafts(this);
	readonly working = new WorkingPage(
		() => this.shown,
		() => this.drafts.edits
	);
	readonly history: History;
	readonly release: BenchRelease;

	constructor(
		readonly siteName: string,
		data: BenchData,
		/** Told after every edit that was kept. */
		private readonly kept: () => void = () => undefined,
		/** Reads the data anew, after a change that the bench did not make itself. */
		private readonly reload: () => Promise<void> = () => Promise.resolve()
	) {
		this.data = data;
		this.history = new History(
			siteName,
			() => this.changedElsewhere(),
			(why) => (this.message = why),
			(undone) => this.goToUndone(undone)
		);
		this.release = new BenchRelease(siteName, () => this.drafts.waiting);
	}

	private readonly stableLines = new Stable<HeadLine>(({ tag }) => tag, sameLine);
	readonly lines = $derived(
		this.stableLines.of(
			linesOf(this.working.told.head, this.working.told.traces, this.data.released, [this.tag, ...ALWAYS])
		)
	);
	readonly line = $derived.by((): HeadLine | undefined => {
		const line = this.lines.find(({ tag }) => tag === this.tag);
		const trace = this.working.told.traces.find(({ tag }) => tag === this.tag);
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
		return file && this.working.pictures.find((picture) => keptCopyOf(picture)?.file === file)?.src;
	});
	/** Where the site's pictures are used, once that has been counted. */
	uses = $state.raw<PictureUses>({});
	/** What is weak in the picture that the chosen tag came to, in sentences. */
	readonly weaknesses = $derived.by(() => {
		const chosen = this.picture;
		if (!chosen) return [];
		if (chosen.recipe)
			return findInShare(chosen.recipe, this.working.told.scope.shareLead(), this.data.page.path, this.tag).map(
				describeFinding
			);
		const facts = this.working.pictures.find(({ src }) => src === chosen.src);
		return findInPicture({ ...facts, alt: chosen.alt ?? '' }, this.uses[chosen.src]).map(describeFinding);
	});
	readonly definition = $derived(findTag(this.tag, this.working.site.prefixes));

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
		return this.drafts.all[this.keyAt(layer)];
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

	/** The fields that a template of a layer can ask for. */
	fieldsAt(layer: EditableLayer) {
		return layer === 'site' ? fieldsOfAll(this.data.types) : this.working.fields;
	}

	/** What is wrong with what a layer says about the chosen tag. */
	issuesOf(layer: EditableLayer, body: RuleBody | null): readonly (Issue & { message: string })[] {
		if (!body) return [];
		const source = body.kind === 'template' ? body.template : '';
		const { site } = this.working;
		return checkRule({ tag: this.tag, ...body }, { site, type: this.working.type, fields: this.fieldsAt(layer) }).map(
			(issue) => ({
				...issue,
				message: formatIssue(issue, source)
			})
		);
	}

	/** What mends something that is wrong with a template of a layer. */
	mendOf(layer: EditableLayer, template: string, issue: Issue) {
		const { site, type } = this.working;
		return mendOfTemplate(template, issue, { site, type, fields: this.fieldsAt(layer) });
	}

	/** What a template comes to on this page, part by part. */
	templateParts(template: string) {
		const { scope } = this.working.told;
		return templateParts(template, scope, piecesFor(scope.site, scope.type));
	}

	/** What a template comes to on this page, as it is shown beside what is offered. */
	show = (template: string): string =>
		this.templateParts(template)
			.map((piece) => piece.text)
			.join('')
			.slice(0, 60);

	private knownFor(layer: EditableLayer) {
		const fields = this.fieldsAt(layer);
		const { site, type } = this.working;
		const pieces = piecesFor(site, layer === 'site' ? undefined : type);
		const known = knownVariables({
			...{
				fields,
				siteFields: Object.keys(site.fields),
				words: Object.keys(site.words ?? {}),
				...(pieces && { pieces })
			},
			tagNames: TAG_NAMES.filter((name) => HEAD_NAMES.has(name))
		});
		return known;
	}

	/** Where the rule that was taken back stands: a layer of the page in view; undefined where it is none of these. */
	readonly undoneAt = $derived.by((): { readonly layer: EditableLayer; readonly tag: string } | undefined => {
		const { tag, place } = (this.undone?.what ?? {}) as {
			tag?: string;
			place?: { layer?: string; name?: string; path?: string };
		};
		if (tag === undefined || place === undefined) return undefined;
		const isHere =
			place.layer === 'site' ||
			(place.layer === 'type' && place.name === this.data.page.type) ||
			(place.layer === 'page' && place.path === this.data.page.path);
		return isHere ? { layer: place.layer as EditableLayer, tag } : undefined;
	});
	/** The eye goes to what was taken back. */
	private goToUndone(undone: Undone) {
		this.undone = undone;
		if (this.undoneAt) this.tag = this.undoneAt.tag;
	}

	/** A template of a layer in a sentence. */
	explain = (layer: EditableLayer, template: string) => explainTemplate(template, this.knownFor(layer));

	/** The variables that fit into a template of a layer, each with the value it has on this page. */
	variablesFor(layer: EditableLayer) {
		const language = this.data.page.language ?? this.data.site.languages[0] ?? '';
		return this.knownFor(layer).map(({ name, kind, label, words }) => ({
			...{ name, kind },
			options: words?.flatMap(({ is, words: said }) =>
				typeof is === 'string' || typeof is === 'number'
					? [{ value: is, words: wordsIn(said, language, language) ?? '' }]
					: []
			),
			label,
			value: this.templateParts(`{${name}}`)[0]?.text.slice(0, 80) ?? '',
			share: this.data.fieldShares?.[name.replace(/^page\./, '').split('.')[0] as string]
		}));
	}

	/** Reads a page that a field of the one in view names: what templates take of it is shown at once. */
	async learn(path: string) {
		if (path === this.data.page.path || this.data.others?.some((page) => page.path === path)) return;
		const found = await call('GET /sites/{site}/page', { site: this.siteName, query: { path } });
		if (!isRefused(found)) this.data = { ...this.data, others: [...(this.data.others ?? []), found.page] };
	}

	/** A picture that has just come into the library: its facts are known at once. */
	addPicture(picture: Picture) {
		const others = this.data.pictures.filter(({ src }) => src !== picture.src);
		this.data = { ...this.data, pictures: [...others, picture] };
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
		this.drafts.put(edit, body?.kind === 'template' ? body.template : '', kept);
	}
	/** The key of a draft of any tag's rule in a layer, for any language. */
	keyFor(layer: EditableLayer, tag: string): string {
		return keyOfEdit({ place: this.placeOf(layer), tag, language: '' } as Edit);
	}
	/** What a layer says of any tag, in any language: the draft, or what is kept. */
	bodyFor(layer: EditableLayer, tag: string): RuleBody | null {
		const draft = this.drafts.all[keyOfEdit({ place: this.placeOf(layer), tag } as Edit)];
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
		this.undone = undefined;
		this.drafts.put(this.editOf(layer, body), text, bodyOf(this.ruleAt(layer)));
	}

	/** The edit that sets what a layer says about the chosen tag. */
	editOf(layer: EditableLayer, body: RuleBody | null): Edit {
		const language = this.languageAt(layer);
		return { place: this.placeOf(layer), tag: this.tag, ...(language && { language }), body };
	}

	/** A first template for the chosen tag of the page's type, from its records; a sentence where there is none. */
	async proposal(): Promise<Proposal | string> {
		const query = { type: this.data.page.type, tag: this.tag };
		const found = await call('GET /sites/{site}/proposal', { site: this.siteName, query });
		if (isRefused(found)) return found.refused;
		return found.proposal ?? wording.theRecordsOfThisTypeHave;
	}

	/** What the page's own file says of the chosen tag becomes the page's own rule: its words, taken as they are. */
	takeFound(value: string) {
		this.propose('page', { kind: 'template', template: toWholeTemplate(value) }, toWholeTemplate(value));
	}
	/** Lets the rule of a layer win over what the pages' own files say of the chosen tag: those come last there. */
	letWin(place: AnyEdit['place']) {
		if (place.layer === 'site' || place.layer === 'type') this.setFoundPolicy(place.layer, 'last');
	}
	/** What a layer says of found values of the chosen tag (R13); null for nothing. */
	setFoundPolicy(layer: EditableLayer, policy: FoundPolicy | null) {
		const before = ownerOf(this.data, this.placeOf(layer)) as Owners[EditableLayer] | undefined;
		const { [this.tag]: _old, ...others } = before?.foundPolicy?.tags ?? {};
		const tags = policy === null ? others : { ...others, [this.tag]: policy };
		const { tags: _tags, ...rest } = before?.foundPolicy ?? {};
		const policies = { ...rest, ...(Object.keys(tags).length > 0 && { tags }) };
		this.change(layer, { foundPolicy: Object.keys(policies).length > 0 ? policies : null });
	}

	/** The same for settings of a layer beside its rules. */
	change<L extends EditableLayer>(layer: L, changes: Changes<Owners[L]>) {
		this.undone = undefined;
		this.changeAt(this.placeOf(layer), changes);
	}
	/** The same for what is known of a picture. */
	changePicture(src: string, changes: PictureEdit['changes']) {
		this.changeAt({ layer: 'picture', src }, changes);
	}

	private changeAt(place: SettingsEdit['place'], changes: object) {
		const key = keyOfSettings(place);
		const before = this.drafts.all[key]?.edit as SettingsEdit | undefined;
		const all = { ...(before?.changes as object), ...changes };
		const edit = { place, changes: all } as SettingsEdit;
		const base = takenBack(ownerOf(this.data, place) as object, all);
		this.drafts.put(edit, '', base);
	}

	discardAt(layer: EditableLayer) {
		this.drafts.discard(this.keyAt(layer));
	}
	async keepAt(layer: EditableLayer) {
		await this.drafts.keep(this.keyAt(layer));
	}

	isBroken(edit: AnyEdit): boolean {
		if (!('tag' in edit) || !edit.body) return false;
		const { site } = this.working;
		return checkRule({ tag: edit.tag, ...edit.body }, { site, fields: this.fieldsAt(edit.place.layer) }).some(
			(issue) => issue.severity === 'error'
		);
	}
	/** An edit was kept: it is part of the data from now on. */
	took(edit: AnyEdit) {
		const { site, types, pictures } = editModel(this.data, edit);
		this.data = { ...this.data, site, types, pictures, page: editPage(this.data.page, edit), server: undefined };
		this.kept();
		void this.release.refresh();
	}

	async refreshUses() {
		const uses = await call('GET /sites/{site}/pictures/uses', { site: this.siteName });
		if (!isRefused(uses)) this.uses = uses;
	}

	/** Makes a release, or says what stands in its way: edits that wait are shown, to be kept or taken back there. */
	async askRelease() {
		if (this.drafts.waiting > 0 && !this.release.making) this.showsWaiting = 'release';
		else if (this.release.whyNot !== undefined) this.message = this.release.whyNot;
		else await this.makeRelease();
	}

	/** Makes the working copy what visitors see. */
	async makeRelease() {
		const { isMade, says } = await this.release.make();
		this.message = says;
		if (isMade) await this.changedElsewhere();
	}
}

/** The data with fields that are written elsewhere, over those that nobody wrote here. */
function withTyped(data: BenchData, typed: Fields): BenchData {
	const held = new Set(data.page.held);
	const come = Object.entries(typed).filter(([name]) => !held.has(name));
	const { reading, ...page } = data.page;
	const fields = { ...page.fields, ...Object.fromEntries(come) };
	// What was read out of the body is of the body that was sent before.
	const isRead = reading && !come.some(([name]) => name === 'body');
	return { ...data, page: { ...page, fields, ...(isRead && { reading }) }, server: undefined };
}

/** Tags that are shown even when they come to nothing: their absence matters. */
const ALWAYS = ['title', 'description', 'og:image', 'og:title', 'og:description'];
/** What other tags came to is offered for these. */
const HEAD_NAMES = new Set(['title', 'description', 'og:title', 'og:description', 'og:image']);
