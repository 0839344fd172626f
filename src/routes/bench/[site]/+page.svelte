<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Toggles from '$ui/parts/Toggles.svelte';
	import { toText } from '$core';
	import { onMount, tick, untrack } from 'svelte';
	import { beforeNavigate, goto } from '$app/navigation';
	import { refresh } from '$ui/parts/refresh';
	import { page as place } from '$app/state';
	import { call, isRefused } from '$ui/client';
	import { actOnPage, actOnType, pinned, type Action } from '$ui/workspace/actions';
	import { Bench, type Panel } from '$ui/workspace/bench.svelte';
	import type { EditableLayer } from '$ui/parts/words';
	import { HardRound } from '$ui/workspace/hardRound';
	import { BenchPlace, type View } from '$ui/bench/place.svelte';
	import { setBench } from '$ui/workspace/context';
	import HeadList from '$ui/bench/HeadList.svelte';
	import { isWriting, keyOf, type KeyId } from '$ui/parts/keys';
	import MoreMenu from '$ui/bench/MoreMenu.svelte';
	import LayerStack from '$ui/bench/LayerStack.svelte';
	import PageMover from '$ui/bench/PageMover.svelte';
	import type { Command } from '$ui/parts/command';
	import type { CommandsDo } from '$ui/bench/commands';
	import { comeBackTo, leaveField } from '$ui/parts/fields';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { type Part } from '$ui/share/shareLayout';
	import { benchAt } from '$ui/places/rooms';
	import { keepFocus, takeFocus } from '$ui/parts/shown/focus';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import BenchMessage from '$ui/bench/BenchMessage.svelte';
	import ReleaseBar from '$ui/bench/ReleaseBar.svelte';
	import { lookAt, wholeOf, type Look } from '$ui/cards/pictureLook';
	import { Shares } from '$ui/share/shares.svelte';
	import { keepDrafts, restoreDrafts, Neighbours } from '$ui/workspace/sharing';

	let { data } = $props();

	const siteName = untrack(() => data.site.name);
	const neighbours = new Neighbours(siteName);
	const bench = untrack(() => new Bench(siteName, data, () => neighbours.tell(), reload));
	setBench(bench);
	bench.working.fallBehind();
	/** What was taken back may have brought the page to the bench, or taken it away. */
	async function reload() {
		const isThere = !isRefused(
			await call('GET /sites/{site}/page', { site: siteName, query: { path: bench.data.page.path } })
		);
		if (isThere) await refresh();
		else await goto(`/bench/${encodeURIComponent(siteName)}`, { invalidateAll: true });
	}
	const position = new BenchPlace(bench, () => data.page.path);
	const hardRound = new HardRound(siteName);
	/** The part of the share picture's layout that is worked on. */
	let part = $state<Part>('title');
	let [paletteOpen, keysOpen, recordOpen, takingAway] = $state([false, false, false, false]);
	/** A page that is being made: of which page a version, and in which language. */
	let making = $state<{ readonly language?: string; readonly isVersion?: true; readonly type?: string } | undefined>();
	/** What was opened once: it stays, so that closing it gives the focus back. */
	const opened = $state({
		palette: false,
		keys: false,
		record: false,
		takingAway: false,
		making: false
	});
	$effect(() => {
		opened.palette ||= paletteOpen;
		opened.keys ||= keysOpen;
		opened.record ||= recordOpen;
		opened.takingAway ||= takingAway;
		opened.making ||= making !== undefined;
	});
	/** The panel that settings are drawn for; the last one while they are on their way out. */
	const panelShown = $derived.by(() => {
		const { panel } = bench;
		return panel === 'layers' || panel === 'picture' ? 'page' : panel;
	});
	$effect.pre(() => {
		bench.data = data;
		untrack(() => bench.drafts.findConflicts());
	});
	// Signed in again, what waited is kept.
	onMount(() => {
		const goOn = () => void bench.drafts.settle();
		window.addEventListener('kephalon:signed-in', goOn);
		return () => window.removeEventListener('kephalon:signed-in', goOn);
	});
	onMount(() => {
		restoreDrafts(siteName, bench.drafts);
		const all = data.count.all;
		bench.working.rehearse((edit, times) => {
			if (times % 4 === 0) bench.drafts.tryOut(edit, { seen: 0, all });
		});
		void bench.release.refresh();
		void bench.refreshUses();
		// Another tab has kept something: what stands here is looked at again.
		const deaf = neighbours.listen(() => {
			void refresh();
			void bench.release.refresh();
		});
		return () => {
			deaf();
			keepDrafts(siteName, bench.drafts.all);
		};
	});

	// After what was put down has been taken up.
	$effect(() => {
		const { all } = bench.drafts;
		// Not within the frame that shows a keystroke.
		const timer = setTimeout(() => keepDrafts(siteName, all), 100);
		return () => clearTimeout(timer);
	});
	/** The tab is left or closed: a field that is taken late is taken now, and what is a page's own is sent. */
	function onpagehide() {
		(document.activeElement as HTMLElement | null)?.blur();
		bench.drafts.leave();
		keepDrafts(siteName, bench.drafts.all);
		keepDrafts(siteName, bench.drafts.all, 'browser');
	}

	/** What is typed belongs to the page in view: the field that one is in takes it before another page comes. */
	const go = async (path: string) => {
		const name = leaveField();
		await bench.drafts.settle();
		await goto(position.addressAt(path), { keepFocus: true, noScroll: true });
		comeBackTo(name);
	};
	const shares = new Shares(siteName, (why) => (bench.message = why));
	function shown(address: string): Look {
		const { share } = bench.working;
		if (share?.recipe && share.address === address) return { src: shares.at('bench', share.recipe) };
		return lookAt(address, bench.working.site.base, data.standIn, bench.working.pictures);
	}
	const whole = (source: string) => {
		const picture = bench.working.pictures.find(({ src }) => src === source);
		return picture ? wholeOf(picture, bench.working.site.base, data.standIn) : '';
	};

	// A page with a new path, a site with a new name: the bench follows.
	$effect(() => {
		const [path, name] = [bench.data.page.path, bench.data.site.name];
		if (name !== siteName) location.assign(benchAt(name, path));
		else if (path !== untrack(() => data.page.path))
			void goto(
				untrack(() => position.addressAt(path)),
				{ replaceState: true, invalidateAll: true }
			);
	});
	// Drafts at the type and the site are put down, and the bar of every room tells of them; a page's own are kept now.
	beforeNavigate((navigation) => {
		if (navigation.type === 'leave') return;
		leaveField();
		if (navigation.to?.url.pathname !== place.url.pathname) void bench.drafts.settle();
	});

	// What had the focus may be gone with another page, tag or panel: it goes on where one is.
	let isFirst = true;
	/** Somebody asked for it by a key or in the palette: the focus goes there from wherever it is. */
	let isAsked = false;
	function ask(work: () => void) {
		isAsked = true;
		work();
		setTimeout(() => (isAsked = false));
	}
	$effect(() => {
		const isAtSettings = bench.panel !== 'layers' && bench.panel !== 'picture';
		void [data.page.path, bench.tag];
		if (!isFirst) {
			// A tag that comes to nothing has no line.
			const places = isAtSettings
				? [`[data-settings][data-panel=${bench.panel}]`]
				: ['.line.chosen', '[data-layer=page] .name'];
			void (isAsked ? takeFocus : keepFocus)(...places);
		}
		isFirst = false;
	});

	function move(step: number) {
		const next = step < 0 ? data.beside.before : data.beside.next;
		if (next !== undefined) void go(next);
	}
	/** One column: a chosen tag's layers lie below all tags, and are brought in. */
	const isNarrow = () => matchMedia('(width < 700px)').matches;
	const bringIn = (place: string) => document.querySelector(place)?.scrollIntoView({ block: 'start' });
	function choose(tag: string) {
		bench.tag = tag;
		bench.panel = 'layers';
		if (isNarrow()) void tick().then(() => requestAnimationFrame(() => bringIn('.stack')));
	}
	function moveTag(step: number) {
		const at = bench.lines.findIndex((line) => line.tag === bench.tag);
		choose(bench.lines[(at + step + bench.lines.length) % bench.lines.length]?.tag ?? bench.tag);
	}
	async function hard() {
		const next = await hardRound.next(data.page.type);
		if (next?.path !== undefined) await go(next.path);
		if (next) bench.message = next.says;
	}
	/** Pins what the cards of pages say now; an edit that changes it says so from then on. */
	async function pinPages(paths: readonly string[]) {
		await bench.drafts.settle();
		const told = await pinned(siteName, paths);
		await bench.changedElsewhere();
		bench.message = told;
	}
	async function pinHard() {
		const paths = await hardRound.all(data.page.type);
		if (typeof paths === 'string') bench.message = paths;
		else if (paths.length > 0) await pinPages(paths);
	}
	async function act(action: Action) {
		switch (action.do) {
			case 'tag':
				return choose(action.name);
			case 'takeAway':
				return void (takingAway = true);
			case 'makePage':
				return void (making = { type: action.type });
			case 'makeVersion':
				return void (making = { language: action.language, isVersion: true });
			case 'add':
			case 'rename':
			case 'remove':
			case 'renameField':
			case 'renamePiece':
				return actOnType(bench, action);
			default: {
				const done = await actOnPage(bench, action);
				if (done) await comeTo(done.path, done.says);
			}
		}
	}
	async function comeTo(path: string, told?: string) {
		neighbours.tell();
		await goto(benchAt(siteName, path, bench.tag), { invalidateAll: true });
		bench.message = told;
		await bench.release.refresh();
	}
	function writeAt(layer: EditableLayer, tag = bench.tag) {
		choose(tag);
		setTimeout(() => {
			const bed = document.querySelector(`[data-layer=${layer}]`);
			(bed?.querySelector<HTMLElement>('.cm-content') ?? bed?.querySelector<HTMLElement>('[data-select]'))?.focus();
		});
	}
	/** Writes at the page what search shows; asked again, what sharing shows. */
	const writeEither = (search: string, sharing: string) => () =>
		writeAt('page', bench.tag === search ? sharing : search);
	const openPanel = (panel: Panel) => () => ask(() => (bench.panel = bench.panel === panel ? 'layers' : panel));
	const toggle = (wanted: View) => () => position.toggle(wanted);

	const DO: Partial<Record<KeyId, () => void>> = {
		palette: () => (paletteOpen = true),
		next: () => move(1),
		before: () => move(-1),
		hard: () => void hard(),
		tagDown: () => moveTag(1),
		tagUp: () => moveTag(-1),
		page: () => writeAt('page'),
		type: () => writeAt('type'),
		site: () => writeAt('site'),
		fields: openPanel('fields'),
		own: openPanel('own'),
		versions: openPanel('versions'),
		settings: openPanel('page'),
		title: writeEither('title', 'og:title'),
		description: writeEither('description', 'og:description'),
		picture: writeEither('og:image', 'twitter:image'),
		newPage: () => (making = {}),
		markup: toggle('markup'),
		cards: toggle('cards'),
		share: toggle('share'),
		undo: () => void bench.history.undo(),
		redo: () => void bench.history.redo(),
		record: () => (recordOpen = true),
		release: () => void bench.askRelease(),
		keys: () => (keysOpen = true)
	};
	const isBusy = $derived(
		paletteOpen || keysOpen || recordOpen || takingAway || bench.showsWaiting !== undefined || making !== undefined
	);
	function onkeydown(event: KeyboardEvent) {
		const id = keyOf(event);
		if (event.defaultPrevented || !id || !DO[id] || isBusy) return;
		// In a plain field, taking back is the field's own.
		if ((id === 'undo' || id === 'redo') && isWriting(event.target) && !(event.target as HTMLElement).isContentEditable)
			return;
		event.preventDefault();
		DO[id]();
	}
	const commands: CommandsDo = {
		goTo: (address) => void goto(address),
		siteName,
		choose: (tag) => ask(() => choose(tag)),
		open: (layer, setting) => ask(() => ([bench.panel, bench.lookedFor] = [layer, setting])),
		takeAway: () => (takingAway = true),
		pin: () => void pinPages([data.page.path]),
		pinHard: () => void pinHard()
	};
	async function findPages(text: string): Promise<Command[]> {
		const found = await call('GET /sites/{site}/pages', { site: siteName, query: { find: text } });
		if (isRefused(found)) return [];
		return found.pages.map((page) => ({
			group: 'Pages',
			name: page.title || wording.noTitle,
			more: `${page.path}  ${page.type}${page.state === 'live' ? '' : `, ${page.state}`}`,
			run: () => void go(page.path)
		}));
	}
	const signOf = (tag: string) => bench.lines.find((line) => line.tag === tag)?.sign;
	const ways = { choose, write: (tag: string) => writeAt('page', tag), signOf };
</script>

<svelte:head><title>{wording.kephalon3(data.page.path, data.site.name)}</title></svelte:head>
<svelte:window {onkeydown} {onpagehide} onpopstate={position.onpopstate} />

<div class="bench flex h-screen flex-col max-wide:h-auto">
	<RoomBar site={siteName} room="bench" path={data.page.path} />
	<header class="top flex items-center gap-3 border-b border-b-rule-strong bg-sheet px-4 py-1.75 max-wide:flex-wrap">
		<PageMover
			path={data.page.path}
			beside={data.beside}
			count={data.count.all}
			{move}
			find={() => (paletteOpen = true)}
			{hard}
		/>
		<MoreMenu act={DO} open={(panel) => ask(() => (bench.panel = panel))} />
		{#if data.page.state !== 'live'}<span
				class="state border border-dashed border-flag px-2 py-px text-sm whitespace-nowrap text-flag"
				>{wording.notReleased(data.page.state)}</span
			>{/if}
		<ReleaseBar />
	</header>
	<BenchMessage />
	<main
		class="grid min-h-0 flex-1 grid-cols-[minmax(330px,396px)_minmax(0,1fr)_minmax(300px,376px)] max-wide:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] max-narrow:grid-cols-1"
		id="room"
		tabindex="-1"
	>
		<h1 class="sr-only">{wording.theBenchAt(data.page.path)}</h1>
		<div
			class="head relative col-start-2 row-start-1 overflow-y-auto bg-sheet px-0 pt-2 pb-3.5 [contain:strict] [border-inline:1px_solid_var(--color-rule)] max-wide:[contain:none] max-narrow:col-start-1 max-narrow:row-auto max-narrow:[border-inline:0] [&.whole]:col-[2/-1]"
			class:whole={position.view === 'cards' || position.view === 'share'}
		>
			<Toggles
				class="views mb-2 px-2.5 text-sm"
				label={wording.howTheHeadIsShown}
				value={position.view}
				choices={[
					['tags', wording.tags],
					['markup', wording.markup],
					['cards', wording.allCards],
					['share', wording.sharePicture]
				]}
				set={(view) => (position.view = view)}
			/>
			{#if position.view === 'tags'}<HeadList {choose} />
			{:else if position.view === 'markup'}
				{#await import('$ui/bench/MarkupView.svelte') then { default: MarkupView }}<MarkupView />{/await}
			{:else if position.view === 'share'}
				{#await import('$ui/share/ShareView.svelte') then { default: ShareView }}
					<ShareView {shares} bind:chosen={part} {go} />
				{/await}
			{:else}
				<section
					class="all [columns:250px] gap-x-5.5 px-3.5 py-0 [&>figure]:mb-5 [&>figure]:[break-inside:avoid]"
					aria-label={wording.howReadersOfLinksShowIt}
				>
					{#each bench.working.cards as card (card.reader.id)}<ReaderCard {card} {shown} {ways} />{/each}
				</section>
			{/if}
		</div>
		<div
			class="relative col-start-1 row-start-1 overflow-y-auto p-3.5 [contain:strict] max-wide:[contain:none] max-narrow:col-start-1 max-narrow:row-auto max-narrow:[border-inline:0]"
		>
			{#if bench.panel !== 'layers' && bench.panel !== 'picture'}
				{#await import('$ui/settings/LayerSettings.svelte') then { default: LayerSettings }}
					<LayerSettings panel={panelShown} back={() => (bench.panel = 'layers')} {act} {shown} />
				{/await}
			{:else if position.view === 'share'}
				{#await import('$ui/share/ShareParts.svelte') then { default: ShareParts }}
					<ShareParts bind:chosen={part} back={() => (position.view = 'tags')} />
				{/await}
			{:else if bench.panel === 'picture' && bench.pictureSource !== undefined}
				{#await import('$ui/pictures/PicturePanel.svelte') then { default: PicturePanel }}
					<PicturePanel
						source={bench.pictureSource ?? ''}
						{whole}
						use={bench.uses[bench.pictureSource ?? '']}
						back={() => (bench.panel = 'layers')}
					/>
				{/await}
			{:else}<LayerStack settings={(layer) => (bench.panel = layer)} study={() => (bench.panel = 'picture')} />{/if}
		</div>
		{#if position.view !== 'cards' && position.view !== 'share'}
			<!-- It scrolls, so it takes the focus itself. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<aside
				class="cards relative col-start-3 row-start-1 flex flex-col gap-4.5 overflow-y-auto p-3.5 [contain:strict] max-wide:col-span-full max-wide:row-start-2 max-wide:[contain:none] max-narrow:col-start-1 max-narrow:row-auto max-narrow:[border-inline:0] [&>figure]:flex-none [&>figure]:[contain-intrinsic-size:auto_280px] [&>figure]:[content-visibility:auto]"
				aria-label={wording.howReadersOfLinksShowIt}
				tabindex="0"
			>
				{#each bench.working.cards as card (card.reader.id)}<ReaderCard {card} {shown} {ways} />{/each}
			</aside>
		{/if}
	</main>
</div>
<!-- What is opened by hand comes when it is asked for, and stays. -->
{#if opened.palette}
	{#await Promise.all( [import('$ui/parts/Palette.svelte'), import('$ui/bench/commands')] ) then [{ default: Palette }, { commandsOf }]}
		<Palette bind:open={paletteOpen} commands={commandsOf(DO, commands)} {findPages} />
	{/await}
{/if}
{#if opened.keys}
	{#await import('$ui/rooms/KeysSheet.svelte') then { default: KeysSheet }}
		<KeysSheet bind:open={keysOpen} />
	{/await}
{/if}
{#if opened.making}
	{#await import('$ui/bench/NewPage.svelte') then { default: NewPage }}
		<NewPage
			bind:open={() => making !== undefined, (open) => (making = open ? (making ?? {}) : undefined)}
			site={siteName}
			types={bench.data.types}
			languages={bench.working.site.languages}
			usual={making?.type ?? bench.working.page.type}
			versionOf={making?.isVersion
				? { path: data.page.path, title: toText(bench.working.page.fields.title) }
				: undefined}
			language={making?.language ?? ''}
			made={(path) =>
				void comeTo(path, wording.isThereAsADraftWriteWhat(path)).then(() => ask(() => (bench.panel = 'fields')))}
		/>
	{/await}
{/if}
{#if opened.takingAway}
	{#await import('$ui/bench/TakeAway.svelte') then { default: TakeAway }}
		<TakeAway
			bind:open={takingAway}
			site={siteName}
			path={data.page.path}
			isReleased={data.released !== null}
			gone={(path) => void comeTo(path, wording.isTakenAwayCtrlZBringsIt(data.page.path))}
		/>
	{/await}
{/if}
{#if opened.record}
	{#await import('$ui/record/RecordSheet.svelte') then { default: RecordSheet }}
		<RecordSheet bind:open={recordOpen} site={siteName} history={bench.history} />
	{/await}
{/if}
