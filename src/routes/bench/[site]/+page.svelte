<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate, goto } from '$app/navigation';
	import { page as place } from '$app/state';
	import { Bench } from '$ui/bench.svelte';
	import HeadList from '$ui/HeadList.svelte';
	import LayerStack from '$ui/LayerStack.svelte';
	import PageMover from '$ui/PageMover.svelte';
	import ReaderCard from '$ui/ReaderCard.svelte';
	import ReleaseBar from '$ui/ReleaseBar.svelte';

	let { data } = $props();

	const bench = untrack(() => new Bench(data.site.name, data));
	let mover: PageMover;

	$effect.pre(() => {
		bench.data = data;
	});
	onMount(() => void bench.refreshPending());

	const go = (path: string) =>
		goto(`/bench/${encodeURIComponent(data.site.name)}?page=${encodeURIComponent(path)}`, {
			keepFocus: true,
			noScroll: true
		});
	/** Where a picture can be fetched from now: the stand-in's server for a site that is not on the net. */
	const shown = (address: string) =>
		data.standIn && address.startsWith(data.standIn.base)
			? `${data.standIn.origin}/${address.slice(data.standIn.base.length)}`
			: address;

	// Drafts at the type and the site go along to the next page; leaving the bench would lose them.
	beforeNavigate((navigation) => {
		if (!bench.isDirty || navigation.to?.url.pathname === place.url.pathname) return;
		navigation.cancel();
		bench.message = 'Some of what you wrote is not kept yet. Keep it or take it back before you leave the bench.';
	});

	function onkeydown(event: KeyboardEvent) {
		const isCommand = event.ctrlKey || event.metaKey;
		if (event.altKey && event.key === 'ArrowRight') mover.move(1);
		else if (event.altKey && event.key === 'ArrowLeft') mover.move(-1);
		else if (isCommand && event.key.toLowerCase() === 'k') mover.find();
		else return;
		event.preventDefault();
	}
</script>

<svelte:head><title>{data.page.path} · {data.site.name} · Kephalon</title></svelte:head>
<svelte:window {onkeydown} />

<div class="bench">
	<header>
		<a class="wordmark serif" href="/" aria-label="Kephalon, to the sites">Kephalon</a>
		<span class="site">{data.site.name}</span>
		<PageMover bind:this={mover} pages={data.pages} path={data.page.path} {go} />
		{#if data.page.state !== 'live'}<span class="state">{data.page.state}: not released</span>{/if}
		<ReleaseBar {bench} />
	</header>
	{#if bench.message}
		<p class="message" role="status">
			{bench.message} <button class="plain-button" onclick={() => (bench.message = undefined)}>Close</button>
		</p>
	{/if}
	<main>
		<h1 class="sr-only">The bench at {data.page.path}</h1>
		<div class="column layers"><LayerStack {bench} /></div>
		<div class="column head"><HeadList {bench} /></div>
		<aside class="column cards" aria-label="How readers of links show it">
			{#each bench.cards as card (card.reader.id)}<ReaderCard {card} {shown} />{/each}
		</aside>
	</main>
</div>

<style>
	.bench {
		display: flex;
		flex-direction: column;
		height: 100vh;
	}
	header {
		display: flex;
		align-items: center;
		gap: 14px;
		border-bottom: 1px solid var(--rule-strong);
		background: var(--sheet);
		padding: 7px 16px;
	}
	.wordmark {
		font-size: 19px;
		font-weight: 700;
		font-style: italic;
	}
	.site {
		overflow: hidden;
		min-width: 60px;
		border-left: 1px solid var(--rule);
		padding-left: 14px;
		font-weight: 600;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.state {
		border: 1px dashed var(--flag);
		padding: 1px 8px;
		font-size: 12.5px;
		color: var(--flag);
		white-space: nowrap;
	}
	.message {
		border-bottom: 1px solid var(--rule);
		background: var(--sea-wash);
		padding: 6px 16px;
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
		padding-inline: 0;
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
