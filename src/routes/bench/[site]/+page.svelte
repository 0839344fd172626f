<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate, goto, invalidateAll } from '$app/navigation';
	import { page as place } from '$app/state';
	import { CATALOGUE, HARD_KINDS } from '$core';
	import * as api from '$ui/api';
	import { Bench, type EditableLayer } from '$ui/bench/bench.svelte';
	import HeadList from '$ui/bench/HeadList.svelte';
	import { isWriting, keyOf, KEYS, type KeyId } from '$ui/parts/keys';
	import KeysSheet from '$ui/parts/KeysSheet.svelte';
	import LayerSettings from '$ui/settings/LayerSettings.svelte';
	import LayerStack from '$ui/bench/LayerStack.svelte';
	import MarkupView from '$ui/bench/MarkupView.svelte';
	import PageMover from '$ui/bench/PageMover.svelte';
	import Palette, { type Command } from '$ui/parts/Palette.svelte';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import RecordSheet from '$ui/record/RecordSheet.svelte';
	import { type Part } from '$ui/share/shareLayout';
	import ShareParts from '$ui/share/ShareParts.svelte';
	import ShareView from '$ui/share/ShareView.svelte';
	import { roomAt, ROOMS } from '$ui/rooms/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import ReleaseBar from '$ui/bench/ReleaseBar.svelte';
	import { lookAt, wholeOf, type Look } from '$ui/cards/pictureLook';
	import PicturePanel from '$ui/pictures/PicturePanel.svelte';
	import { Shares } from '$ui/share/shares.svelte';
	import { keepDrafts, restoreDrafts, Neighbours } from '$ui/bench/sharing';

	let { data } = $props();

	const siteName = untrack(() => data.site.name);
	const neighbours = new Neighbours(siteName);
	const bench = untrack(() => new Bench(siteName, data, () => neighbours.tell(), reload));
	/** What was taken back may have brought the page to the bench, or taken it away. */
	async function reload() {
		const isThere = !api.isRefused(await api.page(siteName, bench.data.page.path));
		if (isThere) await invalidateAll();
		else await goto(`/bench/${encodeURIComponent(siteName)}`, { invalidateAll: true });
	}
	untrack(() => (bench.tag = data.tag));
	let view = $state<'tags' | 'markup' | 'cards' | 'share'>('tags');
	/** The part of the share picture's layout that is worked on. */
	let part = $state<Part>('title');
	let settings = $state<EditableLayer | undefined>();
	let [paletteOpen, keysOpen, recordOpen] = $state([false, false, false]);
	/** Where the round of the hard pages stands. */
	let round = { type: '', pages: [] as { path: string; kind: keyof typeof HARD_KINDS; measure: number }[], at: -1 };

	$effect.pre(() => {
		bench.data = data;
		untrack(() => bench.findConflicts());
	});
	onMount(() => {
		restoreDrafts(siteName, bench);
		void bench.refreshPending();
		void bench.refreshUses();
		// Another tab has kept something: what stands here is looked at again.
		return neighbours.listen(() => {
			void invalidateAll();
			void bench.refreshPending();
		});
	});

	// After what was put down has been taken up.
	$effect(() => keepDrafts(siteName, $state.snapshot(bench.drafts)));

	const addressOf = (path: string, site = siteName) =>
		`/bench/${encodeURIComponent(site)}?page=${encodeURIComponent(path)}`;
	const go = async (path: string) => {
		await bench.settle();
		await goto(addressOf(path), { keepFocus: true, noScroll: true });
	};
	const shares = new Shares(siteName, (why) => (bench.message = why));
	function shown(address: string): Look {
		const { share } = bench;
		if (share?.recipe && share.address === address) return { src: shares.at('bench', share.recipe) };
		return lookAt(address, bench.site.base, data.standIn, bench.pictures);
	}
	const whole = (source: string) => {
		const picture = bench.pictures.find(({ src }) => src === source);
		return picture ? wholeOf(picture, bench.site.base, data.standIn) : '';
	};
	/** The picture that is studied in the place of the layers. */
	let studied = $state(false);

	// A page with a new path, a site with a new name: the bench follows.
	$effect(() => {
		const [path, name] = [bench.data.page.path, bench.data.site.name];
		if (name !== siteName) location.assign(addressOf(path, name));
		else if (path !== untrack(() => data.page.path))
			void goto(addressOf(path), { replaceState: true, invalidateAll: true });
	});
	// Drafts at the type and the site go along to the next page; leaving the bench would lose them.
	beforeNavigate((navigation) => {
		if (bench.waiting === 0 || navigation.to?.url.pathname === place.url.pathname || navigation.type === 'leave')
			return;
		navigation.cancel();
		bench.message = 'Some of what you wrote is not kept yet. Keep it or take it back before you leave the bench.';
	});

	function move(step: number) {
		const next = step < 0 ? data.beside.before : data.beside.next;
		if (next !== undefined) void go(next);
	}
	function moveTag(step: number) {
		const at = bench.lines.findIndex((line) => line.tag === bench.tag);
		bench.tag = bench.lines[(at + step + bench.lines.length) % bench.lines.length]?.tag ?? bench.tag;
	}
	async function hard() {
		if (round.type !== data.page.type || round.at + 1 >= round.pages.length) {
			const found = await api.hard(siteName, data.page.type);
			if (api.isRefused(found)) return void (bench.message = found.refused);
			round = { type: data.page.type, pages: found, at: -1 };
		}
		round.at++;
		const next = round.pages[round.at];
		if (!next) return;
		await go(next.path);
		bench.message = `${round.at + 1} of ${round.pages.length} hard pages: the one with ${HARD_KINDS[next.kind]} (${next.measure}).`;
	}
	async function act(action: Readonly<Record<string, string>>) {
		if (action.do === 'tag') {
			bench.tag = action.name as string;
			settings = undefined;
			return;
		}
		if (action.do === 'set' || action.do === 'type') {
			const added = await api.addType(siteName, {
				name: action.name as string,
				...(action.set && { set: action.set })
			});
			bench.message = api.isRefused(added)
				? added.refused
				: action.set
					? `The set “${action.set}” is in the type “${added.name}”. Look at its templates, then release.`
					: `The type “${added.name}” is added: give it to pages in their settings.`;
			await invalidateAll();
			neighbours.tell();
			return;
		}
		const done = await api.actOnPage(siteName, action);
		if (api.isRefused(done)) return void (bench.message = done.refused);
		neighbours.tell();
		await goto(addressOf(done.path), { invalidateAll: true });
		bench.message = action.do === 'copy' ? `The copy stands at ${done.path} as a draft.` : undefined;
		await bench.refreshPending();
	}
	function writeAt(layer: EditableLayer) {
		settings = undefined;
		setTimeout(() => {
			const bed = document.querySelector(`[data-layer=${layer}]`);
			(bed?.querySelector<HTMLElement>('.cm-content') ?? bed?.querySelector('select'))?.focus();
		});
	}

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
		markup: () => (view = view === 'markup' ? 'tags' : 'markup'),
		cards: () => (view = view === 'cards' ? 'tags' : 'cards'),
		share: () => (view = view === 'share' ? 'tags' : 'share'),
		undo: () => void bench.undo(),
		redo: () => void bench.redo(),
		record: () => (recordOpen = true),
		release: () => void bench.release(),
		keys: () => (keysOpen = true)
	};
	function onkeydown(event: KeyboardEvent) {
		const id = keyOf(event);
		if (event.defaultPrevented || !id || !DO[id] || paletteOpen || keysOpen || recordOpen) return;
		// In a plain field, taking back is the field's own.
		if ((id === 'undo' || id === 'redo') && isWriting(event.target) && !(event.target as HTMLElement).isContentEditable)
			return;
		event.preventDefault();
		DO[id]();
	}
	const commands: Command[] = $derived([
		...KEYS.filter(({ id }) => DO[id] && id !== 'palette').map(({ id, keys, does }): Command => ({
			group: 'Do',
			name: does,
			keys,
			run: DO[id] as () => void
		})),
		...(['page', 'type', 'site'] as const).map((layer): Command => ({
			group: 'Do',
			name: `Settings of ${layer === 'page' ? 'this page' : layer === 'type' ? 'its type' : 'the site'}`,
			run: () => (settings = layer)
		})),
		...ROOMS.filter(({ id }) => id !== 'bench').map(({ id, name, key }): Command => ({
			...{ group: 'Rooms', name, keys: key },
			run: () => void goto(roomAt(id, siteName))
		})),
		{ group: 'Do', name: 'Set-up of the site', run: () => void goto(`/setup?site=${encodeURIComponent(siteName)}`) },
		{ group: 'Do', name: 'All sites', run: () => void goto('/sites') },
		...CATALOGUE.filter((tag) => !tag.fact || tag.fact === 'alt').map((tag): Command => ({
			group: 'Tags',
			name: tag.name,
			more: tag.purpose,
			isCode: true,
			run: () => {
				settings = undefined;
				bench.tag = tag.name;
			}
		}))
	]);
	async function findPages(text: string): Promise<Command[]> {
		const found = await api.findPages(siteName, text);
		if (api.isRefused(found)) return [];
		return found.pages.map((page) => ({
			group: 'Pages',
			name: page.title || 'No title',
			more: `${page.path}  ${page.type}${page.state === 'live' ? '' : `, ${page.state}`}`,
			run: () => void go(page.path)
		}));
	}
</script>

<svelte:head><title>{data.page.path} · {data.site.name} · Kephalon</title></svelte:head>
<svelte:window {onkeydown} />

<div class="bench">
	<RoomBar site={siteName} room="bench" path={data.page.path} />
	<header class="top">
		<button class="site" title="Settings of the site" onclick={() => (settings = 'site')}>Settings of the site</button>
		<PageMover
			path={data.page.path}
			beside={data.beside}
			count={data.count.all}
			{move}
			find={() => (paletteOpen = true)}
			{hard}
		/>
		{#if data.page.state !== 'live'}<span class="state">{data.page.state}: not released</span>{/if}
		<ReleaseBar {bench} />
	</header>
	{#if bench.message}
		<p class="message top" role="status">
			{bench.message} <button class="plain-button" onclick={() => (bench.message = undefined)}>Close</button>
		</p>
	{/if}
	<main id="room">
		<h1 class="sr-only">The bench at {data.page.path}</h1>
		<div class="column layers">
			{#if settings}<LayerSettings {bench} layer={settings} back={() => (settings = undefined)} {act} />
			{:else if view === 'share'}<ShareParts {bench} bind:chosen={part} back={() => (view = 'tags')} />
			{:else if studied && bench.pictureSource !== undefined}
				<PicturePanel
					{bench}
					source={bench.pictureSource}
					{whole}
					use={bench.uses[bench.pictureSource]}
					back={() => (studied = false)}
				/>
			{:else}<LayerStack {bench} settings={(layer) => (settings = layer)} study={() => (studied = true)} />{/if}
		</div>
		<div class="column head" class:whole={view === 'cards' || view === 'share'}>
			<div class="views" role="group" aria-label="How the head is shown">
				<button aria-pressed={view === 'tags'} onclick={() => (view = 'tags')}>Tags</button>
				<button aria-pressed={view === 'markup'} onclick={() => (view = 'markup')}>Markup</button>
				<button aria-pressed={view === 'cards'} onclick={() => (view = 'cards')}>All cards</button>
				<button aria-pressed={view === 'share'} onclick={() => (view = 'share')}>Share picture</button>
				<button class="keys" onclick={() => (recordOpen = true)}>Changes</button>
				<button onclick={() => (keysOpen = true)}>Keys <kbd>?</kbd></button>
			</div>
			{#if view === 'tags'}<HeadList {bench} />
			{:else if view === 'markup'}<MarkupView {bench} />
			{:else if view === 'share'}<ShareView {bench} {shares} bind:chosen={part} {go} />
			{:else}
				<section class="all" aria-label="How readers of links show it">
					{#each bench.cards as card (card.reader.id)}<ReaderCard {card} {shown} />{/each}
				</section>
			{/if}
		</div>
		{#if view !== 'cards' && view !== 'share'}
			<!-- It scrolls and holds nothing that takes the focus, so it takes it itself. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<aside class="column cards" aria-label="How readers of links show it" tabindex="0">
				{#each bench.cards as card (card.reader.id)}<ReaderCard {card} {shown} />{/each}
			</aside>
		{/if}
	</main>
</div>
<Palette bind:open={paletteOpen} {commands} {findPages} />
<KeysSheet bind:open={keysOpen} />
<RecordSheet bind:open={recordOpen} site={siteName} takeBack={(id) => bench.takeBack(id)} />

<style>
	.bench {
		display: flex;
		flex-direction: column;
		height: 100vh;
	}
	.site {
		overflow: hidden;
		min-width: 60px;
		text-decoration: underline;
		text-underline-offset: 2px;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.site:hover {
		color: var(--sea);
	}
	.state {
		border: 1px dashed var(--flag);
		padding: 1px 8px;
		font-size: 12.5px;
		color: var(--flag);
		white-space: nowrap;
	}
	main {
		display: grid;
		flex: 1;
		grid-template-columns: minmax(330px, 396px) minmax(0, 1fr) minmax(300px, 376px);
		min-height: 0;
	}
	.column {
		overflow-y: auto;
		padding: 14px;
	}
	.head {
		border-inline: 1px solid var(--rule);
		background: var(--sheet);
		padding: 8px 0 14px;
	}
	.whole {
		grid-column: 2 / -1;
	}
	.all {
		padding: 0 14px;
		columns: 250px;
		column-gap: 22px;
	}
	.all > :global(figure) {
		margin-bottom: 20px;
		break-inside: avoid;
	}
	.views {
		display: flex;
		gap: 14px;
		margin-bottom: 8px;
		padding: 0 10px;
		font-size: 13px;
	}
	.views button {
		border-bottom: 2px solid transparent;
		padding: 2px 1px;
		color: var(--ink-soft);
	}
	.views button[aria-pressed='true'] {
		border-bottom-color: var(--sea);
		font-weight: 600;
		color: var(--ink);
	}
	.views .keys {
		margin-left: auto;
	}
	kbd {
		font: 11px var(--mono);
	}
	.cards {
		display: flex;
		flex-direction: column;
		gap: 18px;
	}
	@media (max-width: 1080px) {
		.bench {
			height: auto;
		}
		header {
			flex-wrap: wrap;
		}
		main {
			grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		}
		.cards {
			grid-column: 1 / -1;
		}
	}
</style>
