import {
	pagesIn,
	cardOf,
	editModel,
	editPage,
	headToJson,
	READERS,
	Resolver,
	type AnyEdit,
	type Card,
	type PictureSource,
	type Rule,
	type RuleBody
} from '$core';
import { flushSync, untrack } from 'svelte';
import type { BenchData } from './data';
import { differencesOf, sameCard, Stable } from '$ui/parts/lines';
import { rehearsing } from '$ui/parts/idle';

/** The page in view with every edit that is being made in it: what its layers say then, its head, and its cards. */
export class WorkingPage {
	constructor(
		private readonly data: () => BenchData,
		private readonly edits: () => readonly AnyEdit[]
	) {}

	/** What is only tried for an instant, see `rehearse`. */
	private rehearsed = $state.raw<readonly AnyEdit[]>([]);
	private readonly edited = $derived.by(() => {
		const { site, types, pictures } = this.data();
		let [model, page] = [{ site, types, pictures }, this.data().page];
		for (const edit of [...this.edits(), ...this.rehearsed])
			[model, page] = [editModel(model, edit), editPage(page, edit)];
		return { ...model, page };
	});
	readonly site = $derived(this.edited.site);
	readonly types = $derived(this.edited.types);
	readonly pictures = $derived(this.edited.pictures);
	readonly page = $derived(this.edited.page);
	readonly type = $derived(this.types.find(({ name }) => name === this.page.type));
	/** The fields that its type declares: the same list as long as no edit changes them. */
	readonly fields = $derived(this.type?.fields ?? NO_FIELDS);

	private readonly others = $derived.by(() => pagesIn(this.data().others ?? [], this.data().moved));
	private readonly resolver = $derived(new Resolver({ ...this.edited, others: this.others }, new Date().toISOString()));
	private readonly look = $derived(this.resolver.look(this.page));
	readonly head = $derived(this.look.head);
	/** What templates are tried in. */
	readonly scope = $derived(this.look.scope);
	private turn = $state(0);
	private isBehind = false;
	/**
	 * The same page as its tags are told in words. While someone writes, the field and the cards come first: see
	 * `fallBehind`. Other data is told at once.
	 */
	readonly told = $derived.by(() => {
		if (!this.isBehind) return this.look;
		void [this.turn, this.data()];
		return untrack(() => this.look);
	});

	/** From now on what is told follows in the task after the frame that shows the cards. Called by a room as it is made. */
	fallBehind() {
		this.isBehind = true;
		let isWaiting = false;
		$effect(() => {
			void this.look;
			if (isWaiting) return;
			isWaiting = true;
			requestAnimationFrame(() =>
				setTimeout(() => {
					isWaiting = false;
					this.turn++;
				})
			);
		});
	}
	/**
	 * Tries words in the page's title and description while nobody does anything, each for an instant that is never
	 * painted: what a browser has run often it runs fast, so that the first words somebody writes are shown as fast as
	 * later ones. Nothing is kept of it, and nothing asked of the server. `also` is what else is tried each time.
	 */
	rehearse(also: (edit: AnyEdit, times: number) => void = () => undefined) {
		const once = (times: number) => {
			const { path } = this.page;
			const [page, type] = [
				{ layer: 'page', path } as const,
				this.type && ({ layer: 'type', name: this.type.name } as const)
			];
			const body = { kind: 'template', template: `{page.title} ${'words '.repeat(times % 9)}` } as const;
			this.rehearsed = ['title', 'description'].map((tag) => ({ place: (times % 2 && type) || page, tag, body }));
			flushSync();
			this.rehearsed = [];
			flushSync();
			also({ place: type ?? page, tag: 'title', body }, times);
		};
		rehearsing(once);
	}
	/** What comes out as before stays the same object: only what an edit touches is drawn again. */
	private readonly stableCards = new Stable<Card>((card) => card.reader.id, sameCard);
	readonly cards = $derived(this.stableCards.of(READERS.map((reader) => cardOf(reader, this.head))));

	/**
	 * The tags that the server writes otherwise than this browser, with what it writes: the two may know other locale
	 * data. What reach counts and a release holds is the server's.
	 */
	readonly serverWrites = $derived.by(() => {
		const { site, types, pictures, page, server } = this.data();
		if (!server) return NO_DIFFERENCES;
		const here = headToJson(new Resolver({ site, types, pictures, others: this.others }, server.now).resolveHead(page));
		return differencesOf(here, server.head);
	});

	/** The share picture of the page, whatever its rules say of it. */
	readonly share = $derived(this.scope.sharePicture());
	/** Whether the type's rules ask for it. */
	readonly asksForShare = $derived(
		this.type?.rules.some((rule) => rule.kind === 'pictures' && rule.sources.some(({ from }) => from === 'composed')) ??
			false
	);

	/** What one source of pictures gives on this page, or why it is skipped. */
	tryPictures(sources: readonly PictureSource[], body: Extract<RuleBody, { kind: 'pictures' }>) {
		const rule: Rule = { ...body, sources, tag: 'og:image' };
		const page = { ...this.page, rules: [rule], families: { og: true } };
		return this.resolver.look(page).traces.find((trace) => trace.tag === 'og:image');
	}
}

const NO_DIFFERENCES: ReadonlyMap<string, string> = new Map();
const NO_FIELDS = [] as const;
