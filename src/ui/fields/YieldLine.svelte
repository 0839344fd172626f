<script lang="ts">
	import type { TemplatePart } from '$core';
	/** What a template comes to on the page in view: values set apart, gaps where a variable is empty. */
	let { pieces }: { pieces: readonly TemplatePart[] } = $props();
	const isPrinted = (piece: TemplatePart) => !piece.gone;
	const gaps = $derived(pieces.filter((piece) => piece.kind === 'gap'));
</script>

{#if pieces.length > 0}
	<p class="yield serif" data-testid="yield">
		{#each pieces.filter(isPrinted) as piece (piece.start)}{#if piece.kind === 'value'}<span class="value"
					>{piece.text}</span
				>{:else if piece.kind === 'gap'}<span class="gap" title="Empty here: {piece.names.join(', ')}"
					><span class="sr-only">gap</span></span
				>{:else}{piece.text}{/if}{/each}
	</p>
	{#if gaps.length > 0}
		<p class="empty">
			Empty here: <span class="mono">{[...new Set(gaps.flatMap((gap) => gap.names))].join(', ')}</span>{gaps.every(
				(gap) => gap.gone
			)
				? ', left out with its words'
				: ''}
		</p>
	{/if}
{/if}

<style>
	.yield {
		margin-top: 5px;
		overflow-wrap: anywhere;
		font-size: 13.5px;
	}
	.value {
		border-bottom: 1px solid var(--sea);
	}
	.gap {
		display: inline-block;
		width: 26px;
		height: 1em;
		margin: 0 2px -2px;
		border: 1.5px dashed var(--flag);
		border-radius: 2px;
	}
	.empty {
		font-size: 12.5px;
		color: var(--flag);
	}
</style>
