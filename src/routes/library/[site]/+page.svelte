<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import Toggles from '$ui/parts/Toggles.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Told from '$ui/parts/Told.svelte';
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate } from '$app/navigation';
	import { refresh } from '$ui/parts/refresh';
	import { keptCopyOf, findInPicture, type Picture } from '$core';
	import { call, isRefused } from '$ui/client';
	import { Bench } from '$ui/workspace/bench.svelte';
	import { setBench } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { keyOfSettings } from '$ui/workspace/edits';
	import { keyOf } from '$ui/parts/keys';
	import { wholeOf } from '$ui/cards/pictureLook';
	import PictureIntake from '$ui/pictures/PictureIntake.svelte';
	import PictureStudy from '$ui/pictures/PictureStudy.svelte';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import ReleaseBar from '$ui/bench/ReleaseBar.svelte';
	import { keepDrafts, Neighbours, restoreDrafts } from '$ui/workspace/sharing';
	import { findPictures, nameOfPicture, pagesInWords } from '$ui/parts/words';

	let { data } = $props();

	const siteName = untrack(() => data.site.name);
	const neighbours = new Neighbours(siteName);
	const bench = untrack(() => new Bench(siteName, data, () => neighbours.tell()));
	setBench(bench);
	$effect.pre(() => {
		bench.data = data;
		untrack(() => bench.drafts.findConflicts());
	});
	onMount(() => {
		restoreDrafts(siteName, bench.drafts);
		void bench.release.refresh();
		void bench.refreshUses();
		const deaf = neighbours.listen(() => void refresh());
		return () => {
			deaf();
			keepDrafts(siteName, bench.drafts.all);
		};
	});
	// What waits goes along: every room says so.
	beforeNavigate(() => keepDrafts(siteName, bench.drafts.all));
	function onpagehide() {
		keepDrafts(siteName, bench.drafts.all);
		keepDrafts(siteName, bench.drafts.all, 'browser');
	}

	let wanted = $state('');
	let only = $state<'all' | 'weak' | 'wordless' | 'unused'>('all');
	const weakOf = (picture: Picture) => findInPicture(picture, bench.uses[picture.src]);
	/** What the site and its types name is used, though on no page by itself. */
	const namedAbove = $derived(JSON.stringify([bench.working.site, bench.working.types]));
	const isNamedAbove = (picture: Picture) => namedAbove.includes(JSON.stringify(picture.src));
	const isUnused = (picture: Picture) => bench.uses[picture.src] === undefined && !isNamedAbove(picture);
	const KINDS = {
		all: { name: wording.all, fits: () => true },
		weak: { name: wording.weakInSomething, fits: (picture: Picture) => weakOf(picture).length > 0 },
		wordless: { name: wording.withoutWords, fits: (picture: Picture) => !picture.alt },
		unused: { name: wording.notUsed, fits: isUnused }
	} as const;
	const found = $derived(findPictures(bench.working.pictures, wanted).filter(KINDS[only].fits));
	let chosenSource = $state(untrack(() => data.chosen));
	const chosen = $derived(bench.working.pictures.find(({ src }) => src === chosenSource) ?? found[0]);
	const whole = (picture: Picture) => wholeOf(picture, bench.working.site.base, data.standIn);
	const use = $derived(chosen && bench.uses[chosen.src]);
	const bytes = $derived(bench.working.pictures.reduce((sum, picture) => sum + (picture.bytes ?? 0), 0));
	/** So many stand on the wall at once. */
	const SHOWN = 200;

	function taken(picture: Picture) {
		bench.addPicture(picture);
		chosenSource = picture.src;
		only = 'all';
		wanted = '';
		neighbours.tell();
		void bench.refreshUses();
	}
	async function remove(picture: Picture) {
		const answer = await call('DELETE /sites/{site}/pictures', { site: siteName, body: { src: picture.src } });
		if (isRefused(answer)) return void (bench.message = answer.refused);
		bench.message = wording.isOutOfTheLibrary(nameOfPicture(picture));
		chosenSource = null;
		await refresh();
		neighbours.tell();
	}
	const benchAt = (path: string) =>
		`/bench/${encodeURIComponent(siteName)}?page=${encodeURIComponent(path)}&tag=og:image`;
	function onkeydown(event: KeyboardEvent) {
		const id = keyOf(event);
		if (id === 'undo' && !/^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) {
			event.preventDefault();
			void bench.history.undo();
		}
		if (id === 'redo') void bench.history.redo();
		if (id === 'release') void bench.askRelease();
	}
</script>

<svelte:head><title>{wording.libraryKephalon(data.site.name)}</title></svelte:head>
<svelte:window {onkeydown} {onpagehide} />

<div class="flex h-screen flex-col">
	<RoomBar site={siteName} room="library" />
	<header class="top flex items-center gap-3 border-b border-b-rule-strong bg-sheet px-4 py-1.75 max-narrow:flex-wrap">
		<h1 class="text-md font-semibold">{wording.library}</h1>
		<span class="text-ink-soft"
			>{wording.mb(
				bench.working.pictures.length,
				bench.working.pictures.length === 1 ? wording.picture : wording.pictures,
				(bytes / 1e6).toFixed(1)
			)}</span
		>
		<ReleaseBar />
	</header>
	{#if bench.message}
		<Told>
			{bench.message}
			<Button onclick={() => (bench.message = undefined)}>{wording.close}</Button>
		</Told>
	{/if}
	<main class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(380px,520px)] max-narrow:grid-cols-1" id="room">
		<section class="wall overflow-y-auto p-3.5" aria-label={wording.thePictures}>
			<div class="flex flex-wrap items-center gap-x-4.5 gap-y-2">
				<input
					class="min-w-50 flex-1"
					type="search"
					aria-label={wording.findAPicture}
					placeholder={wording.findByNamePlaceOrWords}
					bind:value={wanted}
				/>
				<Toggles
					class="text-sm"
					label={wording.whichAreShown}
					value={only}
					choices={Object.entries(KINDS).map(([id, kind]) => [id as keyof typeof KINDS, kind.name] as const)}
					set={(id) => (only = id)}
				/>
			</div>
			<PictureIntake site={siteName} label={wording.aPictureForTheLibrary} {taken} />
			<ul class="mt-3.5 [columns:168px] gap-x-3.5">
				{#each found.slice(0, SHOWN) as picture (picture.src)}
					<li class="mb-3.5 [break-inside:avoid]">
						<button
							class="block w-full text-left text-xs leading-[1.3]"
							class:chosen={picture.src === chosen?.src}
							aria-pressed={picture.src === chosen?.src}
							data-src={picture.src}
							onclick={() => (chosenSource = picture.src)}
						>
							<img
								class="w-full bg-sunk object-cover in-[.chosen]:outline-3 in-[.chosen]:outline-sea in-[:hover]:outline-2 in-[:hover]:outline-rule-strong"
								src={whole(picture)}
								alt=""
								loading="lazy"
								style:aspect-ratio="{picture.width ?? 3} / {picture.height ?? 2}"
							/>
							<span class="name mt-1 block truncate text-sm font-semibold">{nameOfPicture(picture)}</span>
							<span class="text-ink-soft"
								>{bench.uses[picture.src]?.shown
									? wording.on(
											bench.uses[picture.src]!.shown,
											bench.uses[picture.src]!.shown === 1 ? wording.card : wording.cards
										)
									: wording.onNoCard}{weakOf(picture).length > 0
									? wording.toMend(
											weakOf(picture).length,
											weakOf(picture).length === 1 ? wording.thing : wording.things
										)
									: ''}</span
							>
						</button>
					</li>
				{:else}
					<li class="mb-3.5 [break-inside:avoid] text-ink-soft">
						{bench.working.pictures.length === 0 ? wording.nothingIsInTheLibraryYetDrop : wording.noPictureFits}
					</li>
				{/each}
			</ul>
			{#if found.length > SHOWN}<p class="text-ink-soft">
					{wording.andMoreWriteAWordToFind(found.length - SHOWN)}
				</p>{/if}
		</section>
		<section
			class="table overflow-y-auto border-l border-l-rule bg-sheet p-3.5"
			aria-label={wording.theChosenPicture}
			data-testid="chosen"
		>
			{#if chosen}
				<h2 class="mb-2 text-md font-semibold wrap-anywhere">{nameOfPicture(chosen)}</h2>
				<PictureStudy
					picture={chosen}
					src={whole(chosen)}
					languages={bench.working.site.languages}
					{use}
					change={(changes) => bench.changePicture(chosen.src, changes)}
				/>
				<DraftNote draftKey={keyOfSettings({ layer: 'picture', src: chosen.src })} />
				<h3 class="mt-3.5 border-t border-t-rule pt-1.75 text-sm font-semibold">{wording.whereItIsUsed}</h3>
				{#if use}
					<ul class="uses text-sm">
						{#each [[wording.onTheCardOf, use.shown, use.shownOn], [wording.namedBy, use.named, use.namedOn]] as const as [told, count, paths] (told)}
							{#if count > 0}
								<li>
									{told}
									{pagesInWords(count)}:
									{#each paths as path (path)}<a
											class="mr-1.75 font-mono text-xs wrap-anywhere underline underline-offset-2"
											href={benchAt(path)}>{path}</a
										>{/each}
									{#if count > paths.length}{wording.andMore(count - paths.length)}{/if}
								</li>
							{/if}
						{/each}
					</ul>
				{/if}
				{#if isNamedAbove(chosen)}<p class="uses text-sm">{wording.theSiteOrOneOfItsTypes}</p>{/if}
				{#if isUnused(chosen)}
					<p class="text-ink-soft">{wording.nowhere}</p>
					<Button onclick={() => void remove(chosen)}>{wording.removeFromTheLibrary}</Button>
				{/if}
				<p class="place mt-3 font-mono text-xs wrap-anywhere text-ink-soft">
					{keptCopyOf(chosen) ? chosen.src : wording.notHeldHere(chosen.src)}
				</p>
			{:else}
				<p class="text-ink-soft">{wording.chooseAPictureOnTheWallTo}</p>
			{/if}
		</section>
	</main>
</div>
