<script lang="ts">
	import type { Bench } from './bench.svelte';

	/** What visitors do not see yet, and the one action that shows it to them. */
	let { bench }: { bench: Bench } = $props();

	const pending = $derived(bench.pending);
	const total = $derived(pending ? pending.changed + pending.added + pending.removed : 0);
	const words = $derived.by(() => {
		if (!pending) return 'Comparing with the release …';
		if (!pending.release) return 'Nothing is released yet';
		return total === 0
			? `All as in release ${pending.release.number}`
			: `${total} ${total === 1 ? 'page differs' : 'pages differ'} from release ${pending.release.number}`;
	});
</script>

<div class="bar">
	<p class:differs={total > 0} role="status" data-testid="pending">
		{#if total > 0}<span class="pennant" aria-hidden="true"></span>{/if}{bench.isDirty
			? `Not kept yet. ${words}`
			: words}
	</p>
	<button
		class="main-button"
		disabled={bench.releasing || bench.isDirty || total === 0}
		title={bench.isDirty ? 'Keep or take back what you are writing first' : undefined}
		onclick={() => bench.release()}
	>
		{bench.releasing ? 'Releasing …' : 'Release'}
	</button>
</div>

<style>
	.bar {
		display: flex;
		align-items: center;
		gap: 12px;
		margin-left: auto;
		white-space: nowrap;
	}
	p {
		font-size: 13px;
		color: var(--ink-soft);
	}
	.differs {
		font-weight: 600;
		color: var(--flag);
	}
</style>
