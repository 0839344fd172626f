<script lang="ts">
	import type { Bench } from './bench.svelte';
	import ReachNote from './ReachNote.svelte';

	/** What the draft of a key would do, if there is one, and the ways to keep it or take it back. */
	let { bench, draftKey: key }: { bench: Bench; draftKey: string } = $props();

	const draft = $derived(bench.drafts[key]);
</script>

{#if draft}
	<ReachNote
		{draft}
		keep={() => bench.keep(key)}
		discard={() => bench.discard(key)}
		stop={() => bench.stopCounting(key)}
		overrule={() => bench.overrule(key)}
		letWin={() => bench.letWin(draft.edit.place)}
	/>
{/if}
