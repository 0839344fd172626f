<script lang="ts">
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
	import { Neighbours } from '$ui/workspace/sharing';
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
		void bench.release.refresh();
		void bench.refreshUses();
		return neighbours.listen(() => void refresh());
	});
	beforeNavigate((navigation) => {
		if (bench.drafts.waiting === 0 || navigation.type === 'leave') return;
		navigation.cancel();
		bench.message = 'Something you changed is not kept yet. Keep it or take it back before you leave the library.';
	});

	let wanted = $state('');
	let only = $state<'all' | 'weak' | 'wordless' | 'unused'>('all');
	const weakOf = (picture: Picture) => findInPicture(picture, bench.uses[picture.src]);
	/** What the site and its types name is used, though on no page by itself. */
	const namedAbove = $derived(JSON.stringify([bench.working.site, bench.working.types]));
	const isNamedAbove = (picture: Picture) => namedAbove.includes(JSON.stringify(picture.src));
	const isUnused = (picture: Picture) => bench.uses[picture.src] === undefined && !isNamedAbove(picture);
	const KINDS = {
		all: { name: 'All', fits: () => true },
		weak: { name: 'Weak in something', fits: (picture: Picture) => weakOf(picture).length > 0 },
		wordless: { name: 'Without words', fits: (picture: Picture) => !picture.alt },
		unused: { name: 'Not used', fits: isUnused }
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
		bench.message = `${nameOfPicture(picture)} is out of the library.`;
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
		if (id === 'release') void bench.makeRelease();
	}
</script>

<svelte:head><title>Library · {data.site.name} · Kephalon</title></svelte:head>
<svelte:window {onkeydown} />

<div class="library">
	<RoomBar site={siteName} room="library" />
	<header class="top">
		<h1>Library</h1>
		<span class="quiet"
			>{bench.working.pictures.length}
			{bench.working.pictures.length === 1 ? 'picture' : 'pictures'}, {(bytes / 1e6).toFixed(1)} MB</span
		>
		<ReleaseBar />
	</header>
	{#if bench.message}
		<p class="message top" role="status">
			{bench.message} <button class="plain-button" onclick={() => (bench.message = undefined)}>Close</button>
		</p>
	{/if}
	<main id="room">
		<section class="wall" aria-label="The pictures">
			<div class="tools">
				<input
					type="search"
					aria-label="Find a picture"
					placeholder="Find by name, place or words"
					bind:value={wanted}
				/>
				<div class="kinds" role="group" aria-label="Which are shown">
					{#each Object.entries(KINDS) as [id, kind] (id)}
						<button aria-pressed={only === id} onclick={() => (only = id as keyof typeof KINDS)}>{kind.name}</button>
					{/each}
				</div>
			</div>
			<PictureIntake site={siteName} label="A picture for the library" {taken} />
			<ul>
				{#each found.slice(0, SHOWN) as picture (picture.src)}
					<li>
						<button
							class:chosen={picture.src === chosen?.src}
							aria-pressed={picture.src === chosen?.src}
							data-src={picture.src}
							onclick={() => (chosenSource = picture.src)}
						>
							<img
								src={whole(picture)}
								alt=""
								loading="lazy"
								style:aspect-ratio="{picture.width ?? 3} / {picture.height ?? 2}"
							/>
							<span class="name">{nameOfPicture(picture)}</span>
							<span class="quiet"
								>{bench.uses[picture.src]?.shown
									? `on ${bench.uses[picture.src]!.shown} ${bench.uses[picture.src]!.shown === 1 ? 'card' : 'cards'}`
									: 'on no card'}{weakOf(picture).length > 0
									? `, ${weakOf(picture).length} ${weakOf(picture).length === 1 ? 'thing' : 'things'} to mend`
									: ''}</span
							>
						</button>
					</li>
				{:else}
					<li class="quiet">
						{bench.working.pictures.length === 0
							? 'Nothing is in the library yet. Drop a picture above.'
							: 'No picture fits.'}
					</li>
				{/each}
			</ul>
			{#if found.length > SHOWN}<p class="quiet">… and {found.length - SHOWN} more. Write a word to find them.</p>{/if}
		</section>
		<section class="table" aria-label="The chosen picture" data-testid="chosen">
			{#if chosen}
				<h2>{nameOfPicture(chosen)}</h2>
				<PictureStudy
					picture={chosen}
					src={whole(chosen)}
					languages={bench.working.site.languages}
					{use}
					change={(changes) => bench.changePicture(chosen.src, changes)}
				/>
				<DraftNote draftKey={keyOfSettings({ layer: 'picture', src: chosen.src })} />
				<h3>Where it is used</h3>
				{#if use}
					<ul class="uses">
						{#each [['On the card of', use.shown, use.shownOn], ['Named by', use.named, use.namedOn]] as const as [told, count, paths] (told)}
							{#if count > 0}
								<li>
									{told}
									{pagesInWords(count)}:
									{#each paths as path (path)}<a class="mono" href={benchAt(path)}>{path}</a>{/each}
									{#if count > paths.length}and {count - paths.length} more{/if}
								</li>
							{/if}
						{/each}
					</ul>
				{/if}
				{#if isNamedAbove(chosen)}<p class="uses">The site or one of its types names it.</p>{/if}
				{#if isUnused(chosen)}
					<p class="quiet">Nowhere.</p>
					<button class="plain-button" onclick={() => void remove(chosen)}>Remove from the library</button>
				{/if}
				<p class="quiet place mono">{keptCopyOf(chosen) ? chosen.src : `${chosen.src} (not held here)`}</p>
			{:else}
				<p class="quiet">Choose a picture on the wall to see its shapes.</p>
			{/if}
		</section>
	</main>
</div>

<style>
	.library {
		display: flex;
		flex-direction: column;
		height: 100vh;
	}
	h1 {
		font-size: 15px;
		font-weight: 600;
	}
	main {
		display: grid;
		flex: 1;
		grid-template-columns: minmax(0, 1fr) minmax(380px, 520px);
		min-height: 0;
	}
	.wall,
	.table {
		overflow-y: auto;
		padding: 14px;
	}
	.table {
		border-left: 1px solid var(--rule);
		background: var(--sheet);
	}
	.tools {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 18px;
		align-items: center;
	}
	.tools input {
		flex: 1;
		min-width: 200px;
	}
	.kinds {
		display: flex;
		gap: 14px;
		font-size: 13px;
	}
	.kinds button {
		border-bottom: 2px solid transparent;
		color: var(--ink-soft);
	}
	.kinds [aria-pressed='true'] {
		border-bottom-color: var(--sea);
		font-weight: 600;
		color: var(--ink);
	}
	.wall > ul {
		margin-top: 14px;
		columns: 168px;
		column-gap: 14px;
	}
	.wall li {
		margin-bottom: 14px;
		break-inside: avoid;
	}
	.wall li button {
		display: block;
		width: 100%;
		font-size: 12px;
		line-height: 1.3;
		text-align: left;
	}
	.wall img {
		width: 100%;
		background: var(--sheet-sunk);
		object-fit: cover;
	}
	.wall button:hover img {
		outline: 2px solid var(--rule-strong);
	}
	.wall .chosen img {
		outline: 3px solid var(--sea);
	}
	.name {
		display: block;
		margin-top: 4px;
		overflow: hidden;
		font-size: 13px;
		font-weight: 600;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	h2 {
		margin-bottom: 8px;
		font-size: 17px;
		font-weight: 600;
		overflow-wrap: anywhere;
	}
	h3 {
		margin-top: 14px;
		border-top: 1px solid var(--rule);
		padding-top: 7px;
		font-size: 13px;
		font-weight: 600;
	}
	.uses {
		font-size: 13px;
	}
	.uses a {
		margin-right: 7px;
		font-size: 12px;
		text-decoration: underline;
		text-underline-offset: 2px;
		overflow-wrap: anywhere;
	}
	.place {
		margin-top: 12px;
		font-size: 12px;
		overflow-wrap: anywhere;
	}
	@media (max-width: 700px) {
		header {
			flex-wrap: wrap;
		}
		main {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
