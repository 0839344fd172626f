<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import { benchInView } from '$ui/workspace/context';

	/** What is kept, what visitors do not see yet, and the one action that shows it to them. */
	const bench = benchInView();

	const pending = $derived(bench.release.pending);
	const total = $derived(pending ? pending.changed + pending.added + pending.removed : 0);
	const release = $derived.by(() => {
		if (!pending)
			return bench.release.unknown === undefined
				? wording.comparingWithTheRelease
				: wording.whatDiffersFromTheReleaseIs;
		if (pending.unseen > 0)
			return wording.comparingOfPagesLookedAt(counted(pending.all - pending.unseen), counted(pending.all));
		if (!pending.release) return wording.nothingIsReleasedYet;
		return total === 0
			? wording.allAsInRelease(pending.release.number)
			: wording.fromRelease(
					counted(total),
					total === 1 ? wording.pageDiffers : wording.pagesDiffer,
					pending.release.number
				);
	});
	/** Where edits wait, Release leads to them: nobody is left at a button that does nothing. */
	const isShut = $derived(
		bench.release.making !== undefined ||
			(bench.drafts.waiting === 0 && (bench.release.whyNot !== undefined || total === 0))
	);
	let wasOpened = $state(false);
	/** What the sheet was opened for last: it stays as it is on its way out. */
	let isForRelease = $state(false);
	$effect(() => {
		if (bench.showsWaiting === undefined) return;
		wasOpened = true;
		isForRelease = bench.showsWaiting === 'release';
	});
	/** The state of what is written, in words. */
	const saved = $derived.by(() => {
		if (bench.drafts.saving === 'saving') return wording.keeping;
		if (bench.drafts.saving === 'failed') return wording.notKeptYetTheReasonStandsAt;
		if (bench.drafts.waiting > 0)
			return wording.toBeKept(bench.drafts.waiting, bench.drafts.waiting === 1 ? wording.editWaits : wording.editsWait);
		return bench.drafts.savedAt ? wording.allKeptLastAt(bench.drafts.savedAt) : wording.allKept;
	});
</script>

<div class="bar ml-auto flex flex-wrap items-center justify-end gap-x-3 gap-y-1">
	<p
		class="saved sm:whitespace-nowrap border-r border-r-rule pr-3 text-sm text-ink-soft"
		role="status"
		data-testid="saved"
	>
		{#if bench.drafts.waiting > 0}<Button look="link" onclick={() => (bench.showsWaiting = 'alone')}>{saved}</Button
			>{:else}{saved}{/if}
	</p>
	{#if bench.release.making}
		{#await import('$ui/works/WorkLine.svelte') then { default: WorkLine }}
			{#if bench.release.making}<WorkLine work={bench.release.making} />{/if}
		{/await}
	{/if}
	<p
		hidden={bench.release.making !== undefined}
		class="sm:whitespace-nowrap text-sm text-ink-soft [&.differs]:font-semibold [&.differs]:text-flag"
		class:differs={total > 0}
		role="status"
		data-testid="pending"
	>
		{#if total > 0}<span class="pennant" aria-hidden="true"></span>{/if}{release}
	</p>
	<Button
		look="main"
		disabled={isShut}
		data-tip={bench.release.whyNot ?? wording.showsTheWorkingCopyTo}
		onclick={() => void bench.askRelease()}
	>
		{bench.release.making ? wording.releasing : wording.release}
	</Button>
</div>
{#if wasOpened}
	{#await import('$ui/workspace/WaitingSheet.svelte') then { default: WaitingSheet }}
		<WaitingSheet
			bind:open={
				() => bench.showsWaiting !== undefined,
				(open) => (bench.showsWaiting = open ? (bench.showsWaiting ?? 'alone') : undefined)
			}
			site={bench.siteName}
			drafts={bench.drafts}
			release={isForRelease ? () => void bench.makeRelease() : undefined}
		/>
	{/await}
{/if}
