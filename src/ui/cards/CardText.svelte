<script lang="ts">
	import { wording } from '$ui/words/en/cards';
	import type { CardText } from '$core';
	/** A text as a reader shows it; what it would cut is drawn behind the cut. */
	let { text }: { text: CardText } = $props();
</script>

{text.shown}{#if text.cut}<span
		class="mx-0.5 mt-0 -mb-0.5 inline-block h-[1em] border-l-2 border-dashed border-l-flag"
		aria-hidden="true"
	></span><span class="text-ink-soft line-through decoration-flag" data-tip={wording.thisReaderCutsHere}
		>{text.cut}</span
	>{/if}
