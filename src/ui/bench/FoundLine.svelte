<script lang="ts">
	import { describeOutcome, type TraceStep } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import LayerMark from '$ui/parts/LayerMark.svelte';

	/** What the page's own file says of the chosen tag, what became of it, and what can be done with it. */
	let { step }: { step: TraceStep } = $props();
	const bench = benchInView();

	const value = $derived(step.rule.kind === 'found' ? step.rule.value : '');
	const own = $derived(bench.working.page.foundPolicy?.tags?.[bench.tag]);
</script>

<div class="found" class:used={step.outcome.kind === 'won'} data-testid="found">
	<p class="says">
		<LayerMark layer="found" />
		<span><span class="quiet">As found in the page:</span> <span class="serif">{value}</span></span>
	</p>
	<p class="quiet">
		{describeOutcome(step.outcome)}
		{#if own === undefined}
			<button class="link" onclick={() => bench.takeFound(value)}>Take it over</button>
			<button class="link" onclick={() => bench.setFoundPolicy('page', 'never')}>Set it aside</button>
		{:else}
			<button class="link" onclick={() => bench.setFoundPolicy('page', null)}>As its type says</button>
		{/if}
	</p>
</div>

<style>
	.found {
		margin-top: 6px;
		border-top: 1px dashed var(--rule-strong);
		padding-top: 5px;
		font-size: 13px;
	}
	.says {
		display: flex;
		gap: 7px;
		align-items: baseline;
		overflow-wrap: anywhere;
	}
	.used .serif {
		font-weight: 500;
	}
	.link {
		margin-left: 8px;
		text-decoration: underline;
		text-underline-offset: 2px;
	}
</style>
