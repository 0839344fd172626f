<script lang="ts">
	import { benchAt } from '$ui/places/rooms';
	import { benchInView } from './context';
	import ReachNote from './ReachNote.svelte';

	/** What the draft of a key would do, if there is one, and the ways to keep it or take it back. */
	let { draftKey: key }: { draftKey: string } = $props();
	const bench = benchInView();

	const draft = $derived(bench.drafts.all[key]);
</script>

{#if draft}
	<ReachNote
		{draft}
		keep={() => bench.drafts.keep(key)}
		discard={() => bench.drafts.discard(key)}
		stop={() => bench.drafts.stopCounting(key)}
		overrule={() => bench.drafts.overrule(key)}
		letWin={() => bench.letWin(draft.edit.place)}
		addressOf={(path) => benchAt(bench.siteName, path, bench.tag)}
	/>
{/if}
