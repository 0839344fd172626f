<script lang="ts">
	import { roomAt } from '$ui/rooms/rooms';
	import { pagesInWords } from '$ui/parts/words';
	import { onMount } from 'svelte';
	import { placeIn } from '$ui/rooms/place';
	let { data } = $props();
	/** Where one was in each, once the browser has told. */
	let places = $state.raw<Readonly<Record<string, string | undefined>>>({});
	onMount(() => (places = Object.fromEntries(data.sites.map(({ name }) => [name, placeIn(name)]))));
</script>

<svelte:head><title>Sites · Kephalon</title></svelte:head>

<main>
	<h1 class="serif">Kephalon</h1>
	<p class="quiet">What every address of a site says in its head.</p>
	{#if data.isNone}<p role="alert">There is no such site, or it is not open to you.</p>{/if}
	<ul>
		{#each data.sites as site (site.name)}
			<li>
				<a href={places[site.name] ?? roomAt('overview', site.name)}>{site.name}</a>
				<span class="quiet mono">{site.base}</span>
				<span class="quiet"
					>{pagesInWords(site.pages)}, {site.release === undefined
						? 'nothing released yet'
						: `release ${site.release}`}</span
				>
				<a class="setup" href="/setup?site={encodeURIComponent(site.name)}">Set-up</a>
			</li>
		{/each}
	</ul>
	{#if data.sites.length === 0 && !data.mayMake}<p>
			No site is open to you yet. Whoever invited you says what you may do.
		</p>{/if}
	<p class="go">
		{#if data.mayMake}<a class="plain-button" href="/setup">Set up a new site</a>{/if}
		{#if data.mayOwn}<a href="/people">People</a>{/if}
		{#if data.who}<a href="/account">{data.who}</a>{/if}
	</p>
</main>

<style>
	main {
		margin: 0 auto;
		max-width: 640px;
		padding: 64px 24px;
	}
	h1 {
		font-size: 30px;
		font-style: italic;
		font-weight: 700;
	}
	.go {
		display: flex;
		gap: 16px;
		align-items: center;
	}
	ul {
		margin: 22px 0;
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 16px;
		border-top: 1px solid var(--rule);
		padding: 9px 0;
		font-size: 13px;
	}
	li > a:first-child {
		font-size: 16px;
		font-weight: 600;
	}
	li > .mono {
		text-align: right;
	}
	.setup {
		text-align: right;
		text-decoration: underline;
	}
</style>
