<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import Button from '$ui/parts/Button.svelte';
	import { goto } from '$app/navigation';
	import Greeting from '$ui/setup/Greeting.svelte';
	import SetupContent from '$ui/setup/SetupContent.svelte';
	import SetupSite from '$ui/setup/SetupSite.svelte';

	let { data } = $props();
	const name = $derived(data.bench?.site.name);
	/** Where the set-up goes on once there is content. */
	const goOn = (site: string) => goto(`/setup?site=${encodeURIComponent(site)}`, { invalidateAll: true });
</script>

<svelte:head><title>{wording.kephalon(name ? wording.setUpOf(name) : wording.aNewSite)}</title></svelte:head>

<div class="setup">
	<header class="flex items-center gap-3.5 border-b border-b-rule-strong bg-sheet px-4 py-1.75">
		<a class="font-serif text-lg font-bold italic" href="/sites" aria-label={wording.kephalonToTheSites}
			>{wording.kephalon2}</a
		>
		<h1 class="border-l border-l-rule pl-3.5 font-semibold">{name ? wording.setUpOf(name) : wording.aNewSite}</h1>
		{#if name}<Button class="ml-auto" href="/bench/{encodeURIComponent(name)}">{wording.toTheBench}</Button>{/if}
	</header>
	{#if data.bench}
		{#key `${name} ${data.bench.revision}`}<SetupSite
				data={data.bench}
				standIn={data.standIn}
				folders={data.folders}
				{goOn}
			/>{/key}
	{:else}
		<main class="begin mx-auto my-0 max-w-170 px-5 pt-8.5 pb-15">
			{#if data.isFirst}<Greeting hasDemo={data.hasDemo} />{/if}
			<SetupContent name="" base="" folders={data.folders} {goOn} />
		</main>
	{/if}
</div>
