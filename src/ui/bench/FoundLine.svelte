<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import { describeOutcome, type TraceStep } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import Explain from '$ui/help/Explain.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';

	/** What the page's own file says of the chosen tag, what became of it, and what can be done with it. */
	let { step }: { step: TraceStep } = $props();
	const bench = benchInView();

	const value = $derived(step.rule.kind === 'found' ? step.rule.value : '');
	const own = $derived(bench.working.page.foundPolicy?.tags?.[bench.tag]);
</script>

<div
	class="mt-1.5 border-t border-dashed border-t-rule-strong pt-1.25 text-sm"
	class:used={step.outcome.kind === 'won'}
	data-testid="found"
>
	<p class="says flex items-baseline gap-1.75 wrap-anywhere">
		<LayerMark layer="found" />
		<span
			><span class="text-ink-soft">{wording.asFoundInThePage}</span>
			<span class="font-serif in-[.used]:font-medium">{value}</span></span
		>
	</p>
	<p class="text-ink-soft">
		{describeOutcome(step.outcome)}
		<Explain topic={{ of: 'sign', name: 'found' }} called={wording.whatWasFoundInThePage} />
		{#if own === undefined}
			<Button look="link" class="ml-2" onclick={() => bench.takeFound(value)}>{wording.takeItOver}</Button>
			<Button look="link" class="ml-2" onclick={() => bench.setFoundPolicy('page', 'never')}
				>{wording.setItAside}</Button
			>
		{:else}
			<Button look="link" class="ml-2" onclick={() => bench.setFoundPolicy('page', null)}
				>{wording.asItsTypeSays}</Button
			>
		{/if}
	</p>
</div>
