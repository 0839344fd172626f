<script lang="ts">
	import { page } from '$app/state';
	import { roomAt } from '$ui/places/rooms';

	/** A site that is there, of which something was asked that is not. */
	const site = $derived(page.error?.site);
	const isEmpty = $derived(page.error?.isEmpty);
</script>

<svelte:head><title>{page.status} · Kephalon</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-16">
	<h1 class="font-serif text-xl">{page.status === 404 ? 'Nothing here' : 'That did not work'}</h1>
	<p class="mt-4">{page.error?.message}</p>
	<ul class="mt-4 list-disc pl-5">
		{#if site !== undefined && isEmpty}
			<li><a class="underline" href="/setup?site={encodeURIComponent(site)}">To the set-up of {site}</a></li>
		{:else if site !== undefined}
			<li><a class="underline" href={roomAt('pages', site)}>All pages of {site}</a></li>
			<li><a class="underline" href={roomAt('bench', site)}>Its home page</a></li>
		{/if}
		<li><a class="underline" href="/sites">All sites</a></li>
	</ul>
</main>
