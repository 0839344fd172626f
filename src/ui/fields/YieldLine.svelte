<script lang="ts">
	import { wording } from '$ui/words/en/fields';
	import type { TemplatePart } from '$core';
	/** What a template comes to on the page in view: values set apart, gaps where a variable is empty. */
	let { pieces }: { pieces: readonly TemplatePart[] } = $props();
	const isPrinted = (piece: TemplatePart) => !piece.gone;
	const gaps = $derived(pieces.filter((piece) => piece.kind === 'gap'));
</script>

{#if pieces.length > 0}
	<p class="mt-1.25 font-serif text-base wrap-anywhere" data-testid="yield">
		{#each pieces.filter(isPrinted) as piece (piece.start)}{#if piece.kind === 'value'}<span
					class="value border-b border-b-sea">{piece.text}</span
				>{:else if piece.kind === 'gap'}<span
					class="mx-0.5 mt-0 -mb-0.5 inline-block h-[1em] w-6.5 rounded-sm border-[1.5px] border-dashed border-flag"
					data-tip={wording.emptyHere(piece.names.join(', '))}><span class="sr-only">{wording.gap}</span></span
				>{:else}{piece.text}{/if}{/each}
	</p>
	{#if gaps.length > 0}
		<p class="text-sm text-flag">
			{wording.emptyHere2}
			<span class="font-mono">{[...new Set(gaps.flatMap((gap) => gap.names))].join(', ')}</span>{gaps.every(
				(gap) => gap.gone
			)
				? wording.leftOutWithItsWords
				: ''}
		</p>
	{/if}
{/if}
