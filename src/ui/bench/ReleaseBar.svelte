<script lang="ts">
	import { benchInView } from '$ui/workspace/context';

	/** What is kept, what visitors do not see yet, and the one action that shows it to them. */
	const bench = benchInView();

	const pending = $derived(bench.release.pending);
	const total = $derived(pending ? pending.changed + pending.added + pending.removed : 0);
	const release = $derived.by(() => {
		if (bench.release.making)
			return `Releasing: ${bench.release.making.done.toLocaleString('en')} of ${bench.release.making.all.toLocaleString('en')} pages`;
		if (!pending)
			return bench.release.unknown === undefined
				? 'Comparing with the release …'
				: 'What differs from the release is not known';
		if (pending.unseen > 0)
			return `Comparing: ${(pending.all - pending.unseen).toLocaleString('en')} of ${pending.all.toLocaleString('en')} pages looked at`;
		if (!pending.release) return 'Nothing is released yet';
		return total === 0
			? `All as in release ${pending.release.number}`
			: `${total.toLocaleString('en')} ${total === 1 ? 'page differs' : 'pages differ'} from release ${pending.release.number}`;
	});
	/** The state of what is written, in words. */
	const saved = $derived.by(() => {
		if (bench.drafts.saving === 'saving') return 'Keeping …';
		if (bench.drafts.saving === 'failed') return 'Not kept yet: the reason stands at the field';
		if (bench.drafts.waiting > 0)
			return `${bench.drafts.waiting} ${bench.drafts.waiting === 1 ? 'edit waits' : 'edits wait'} to be kept`;
		return bench.drafts.savedAt ? `All kept, last at ${bench.drafts.savedAt}` : 'All kept';
	});
</script>

<div class="bar">
	<p class="saved" role="status" data-testid="saved">{saved}</p>
	<p class:differs={total > 0} role="status" data-testid="pending">
		{#if total > 0}<span class="pennant" aria-hidden="true"></span>{/if}{release}
	</p>
	<button
		class="main-button"
		disabled={bench.release.whyNot !== undefined || total === 0}
		title={bench.release.whyNot ?? 'Shows the working copy to visitors (Ctrl+Enter)'}
		onclick={() => bench.makeRelease()}
	>
		{bench.release.making ? 'Releasing …' : 'Release'}
	</button>
	{#if bench.release.making}<button class="link" onclick={bench.release.stop}>Stop</button>{/if}
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
	.saved {
		border-right: 1px solid var(--rule);
		padding-right: 12px;
	}
	.differs {
		font-weight: 600;
		color: var(--flag);
	}
</style>
