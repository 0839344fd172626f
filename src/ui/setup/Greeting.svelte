<script lang="ts">
	import { wording } from '$ui/words/en/setup';
	/** Whether the made-up site lies beside this: a package has none. */
	let { hasDemo }: { hasDemo: boolean } = $props();
</script>

<!-- Said once, where there is no site yet: what this is, and the two ways on. -->
<section class="mb-7 border-b border-b-rule-strong pb-5" aria-labelledby="greeting" data-testid="greeting">
	<h2 id="greeting" class="mb-2 font-serif text-xl font-bold italic">{wording.welcomeToKephalon}</h2>
	<p class="max-w-[58ch] font-serif text-md">
		{wording.hereYouDecideWhatEvery}
	</p>
	<p class="mt-3 text-sm text-ink-soft">
		{wording.beginBelowWithASiteOfYour}
		{#if hasDemo}{wording.toLookAroundInAMadeUp}
			<code class="rounded-sm bg-sunk px-1 font-mono text-ink select-all">npm run demo</code>
			{wording.inTheFolderOfKephalonItHas}{/if}
	</p>
</section>
