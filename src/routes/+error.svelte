<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { page } from '$app/state';
	import { roomAt } from '$ui/places/rooms';

	/** A site that is there, of which something was asked that is not. */
	const site = $derived(page.error?.site);
	const isEmpty = $derived(page.error?.isEmpty);
</script>

<svelte:head><title>{wording.kephalon(page.status)}</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-16">
	<h1 class="font-serif text-xl">{page.status === 404 ? wording.nothingHere : wording.thatDidNotWork}</h1>
	<p class="mt-4">{page.error?.message}</p>
	<ul class="mt-4 list-disc pl-5">
		{#if site !== undefined && isEmpty}
			<li><a class="underline" href="/setup?site={encodeURIComponent(site)}">{wording.toTheSetUpOf(site)}</a></li>
		{:else if site !== undefined}
			<li><a class="underline" href={roomAt('pages', site)}>{wording.allPagesOf(site)}</a></li>
			<li><a class="underline" href={roomAt('bench', site)}>{wording.itsHomePage}</a></li>
		{/if}
		<li><a class="underline" href="/sites">{wording.allSites}</a></li>
	</ul>
</main>
