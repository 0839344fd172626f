<script lang="ts">
	/** Whether the made-up site lies beside this: a package has none. */
	let { hasDemo }: { hasDemo: boolean } = $props();
</script>

<!-- Said once, where there is no site yet: what this is, and the two ways on. -->
<section class="mb-7 border-b border-b-rule-strong pb-5" aria-labelledby="greeting" data-testid="greeting">
	<h2 id="greeting" class="mb-2 font-serif text-xl font-bold italic">Welcome to Kephalon</h2>
	<p class="max-w-[58ch] font-serif text-md">
		Here you decide what every address of your website says of itself, and see the cards that feeds, chats and search
		make of it. Nothing you write is seen by anyone until you release it.
	</p>
	<p class="mt-3 text-sm text-ink-soft">
		Begin below with a site of your own.
		{#if hasDemo}To look around in a made-up one first, run
			<code class="rounded-sm bg-sunk px-1 font-mono text-ink select-all">npm run demo</code> in the folder of Kephalon: it
			has a database and an address of its own, and changes nothing here.{/if}
	</p>
</section>
