<script lang="ts">
	import type { CardText } from '$core';
	/** A text as a reader shows it; what it would cut is drawn behind the cut. */
	let { text }: { text: CardText } = $props();
</script>

{text.shown}{#if text.cut}<span class="edge" aria-hidden="true"></span><span class="cut" title="This reader cuts here"
		>{text.cut}</span
	>{/if}

<style>
	.edge {
		display: inline-block;
		height: 1em;
		margin: 0 2px -2px;
		border-left: 2px dashed var(--flag);
	}
	.cut {
		color: var(--ink-soft);
		text-decoration: line-through;
		text-decoration-color: var(--flag);
	}
</style>
