<script lang="ts">
	let { data } = $props();
</script>

<svelte:head><title>Kephalon</title></svelte:head>

<main class="mx-auto max-w-xl px-6 py-16">
	<h1 class="serif text-3xl">Kephalon</h1>
	{#if data.sites.length === 0}
		<p class="mt-4">There is no site yet. Read one in from a folder of HTML:</p>
		<pre
			class="mono mt-3 overflow-x-auto rounded border p-3 text-sm"
			style="border-color: var(--rule); background: var(--sheet)">kephalon import ./public --base https://www.example.org --site "My site"</pre>
		<p class="quiet mt-3">Then load this page again.</p>
	{:else}
		<p class="mt-4">Which site?</p>
		<ul class="mt-3">
			{#each data.sites as site (site.name)}
				<li class="border-t py-2" style="border-color: var(--rule)">
					<a class="font-semibold underline" href="/bench/{encodeURIComponent(site.name)}">{site.name}</a>
					<span class="quiet mono ml-2 text-xs">{site.base}</span>
				</li>
			{/each}
		</ul>
	{/if}
</main>
