<script lang="ts">
	import { goto } from '$app/navigation';
	import SetupContent from '$ui/setup/SetupContent.svelte';
	import SetupSite from '$ui/setup/SetupSite.svelte';

	let { data } = $props();
	const name = $derived(data.bench?.site.name);
	/** Where the set-up goes on once there is content. */
	const goOn = (site: string) => goto(`/setup?site=${encodeURIComponent(site)}`, { invalidateAll: true });
</script>

<svelte:head><title>{name ? `Set-up of ${name}` : 'A new site'} · Kephalon</title></svelte:head>

<div class="setup">
	<header>
		<a class="wordmark serif" href="/sites" aria-label="Kephalon, to the sites">Kephalon</a>
		<h1>{name ? `Set-up of ${name}` : 'A new site'}</h1>
		{#if name}<a class="plain-button to-bench" href="/bench/{encodeURIComponent(name)}">To the bench</a>{/if}
	</header>
	{#if data.bench}
		{#key `${name} ${data.bench.revision}`}<SetupSite
				data={data.bench}
				standIn={data.standIn}
				folders={data.folders}
				{goOn}
			/>{/key}
	{:else}
		<main class="begin"><SetupContent name="" base="" folders={data.folders} {goOn} /></main>
	{/if}
</div>

<style>
	header {
		display: flex;
		gap: 14px;
		align-items: center;
		border-bottom: 1px solid var(--rule-strong);
		background: var(--sheet);
		padding: 7px 16px;
	}
	h1 {
		border-left: 1px solid var(--rule);
		padding-left: 14px;
		font-weight: 600;
	}
	.to-bench {
		margin-left: auto;
	}
	.begin {
		margin: 0 auto;
		max-width: 680px;
		padding: 34px 20px 60px;
	}
</style>
