<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import Button from '$ui/parts/Button.svelte';
	import { roomAt } from '$ui/places/rooms';
	import { pagesInWords } from '$ui/parts/words';
	import { onMount } from 'svelte';
	import { placeIn } from '$ui/places/place';
	let { data } = $props();
	/** Where one was in each, once the browser has told. */
	let places = $state.raw<Readonly<Record<string, string | undefined>>>({});
	onMount(() => (places = Object.fromEntries(data.sites.map(({ name }) => [name, placeIn(name)]))));
</script>

<svelte:head><title>{wording.sitesKephalon}</title></svelte:head>

<main class="mx-auto my-0 max-w-160 px-6 py-16">
	<h1 class="font-serif text-xl font-bold italic">{wording.kephalon2}</h1>
	<p class="text-ink-soft">{wording.whatEveryAddressOfASiteSays}</p>
	{#if data.isNone}<p role="alert">{wording.thereIsNoSuchSiteOrIt}</p>{/if}
	<ul class="mx-0 my-5.5">
		{#each data.sites as site (site.name)}
			<li class="grid grid-cols-[1fr_auto] gap-x-4 gap-y-0.5 border-t border-t-rule px-0 py-2.25 text-sm">
				<a class="first:text-md first:font-semibold" href={places[site.name] ?? roomAt('overview', site.name)}
					>{site.name}</a
				>
				<span class="text-right font-mono text-ink-soft">{site.base}</span>
				<span class="text-ink-soft"
					>{pagesInWords(site.pages)}, {site.release === undefined
						? wording.nothingReleasedYet
						: wording.release(site.release)}</span
				>
				<a
					class="text-right underline first:text-md first:font-semibold"
					href="/setup?site={encodeURIComponent(site.name)}">{wording.setUp}</a
				>
			</li>
		{/each}
	</ul>
	{#if data.sites.length === 0 && !data.mayMake}<p>
			{wording.noSiteIsOpenToYouYet}
		</p>{/if}
	<p class="flex items-center gap-4">
		{#if data.mayMake}<Button href="/setup">{wording.setUpANewSite}</Button>{/if}
		{#if data.mayOwn}<a href="/people">{wording.people}</a>{/if}
		{#if data.who}<a href="/account">{data.who}</a>{/if}
	</p>
</main>
