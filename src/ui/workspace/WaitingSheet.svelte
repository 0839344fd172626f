<script lang="ts">
	import { wording } from '$ui/words/en/workspace';
	import Button from '$ui/parts/Button.svelte';
	import Sheet from '$ui/parts/Sheet.svelte';
	import { benchAt } from '$ui/places/rooms';
	import type { Drafts } from './drafts.svelte';
	import ReachNote from './ReachNote.svelte';
	import { addressOfEdit, editNamed, editSays } from './waiting';

	/** Every edit that waits to be kept: where it stands, how far it reaches, and the ways to keep it or to take it back. */
	let {
		open = $bindable(),
		site,
		drafts,
		release
	}: {
		open: boolean;
		site: string;
		drafts: Drafts;
		/** Makes a release, where that is what one wanted. */ release?: (() => void) | undefined;
	} = $props();

	const all = $derived(Object.entries(drafts.all));
	let isBusy = $state(false);

	/** One after the other: what is refused, or stands against another's, stays. */
	async function keepAll() {
		isBusy = true;
		for (const [key] of all) await drafts.keep(key);
		isBusy = false;
		if (drafts.waiting === 0 && release) {
			open = false;
			release();
		}
	}
	function giveUpAll() {
		for (const [key] of all) drafts.discard(key);
	}
</script>

<Sheet bind:open title={release ? wording.beforeTheRelease : wording.whatWaitsToBeKept} size="middle">
	<p class="text-ink-soft" role="status">
		{all.length === 0
			? wording.nothingWaitsAnyMore
			: wording.writtenAndNotKeptInThis(
					all.length === 1 ? wording.oneEditIs : wording.editsAre(all.length),
					all.length === 1 ? wording.itStands : wording.theyStand,
					all.length === 1 ? wording.it : wording.them
				)}
	</p>
	<ul class="mt-2">
		{#each all as [key, draft] (key)}
			<li class="mt-3 border-l-3 border-l-rule-strong pl-3" data-testid="waiting">
				<h3 class="font-semibold">{editNamed(draft.edit)}</h3>
				<p class="font-serif wrap-anywhere">{editSays(draft.edit)}</p>
				<ReachNote
					{draft}
					hasKeys={false}
					keep={() => void drafts.keep(key)}
					discard={() => drafts.discard(key)}
					stop={() => drafts.stopCounting(key)}
					overrule={() => void drafts.overrule(key)}
					addressOf={(path) => benchAt(site, path, 'tag' in draft.edit ? draft.edit.tag : undefined)}
				/>
				<a
					class="mt-1 block w-fit text-sm underline underline-offset-2"
					href={addressOfEdit(site, draft.edit)}
					onclick={() => (open = false)}>{wording.seeItWhereItStands}</a
				>
			</li>
		{/each}
	</ul>
	{#if all.length > 1 || release}
		<p class="mt-4 flex gap-2 border-t border-t-rule pt-3">
			<Button look="main" disabled={isBusy || all.length === 0} onclick={() => void keepAll()}
				>{all.length > 1 ? wording.keepAll(all.length) : wording.keepIt}{release ? wording.thenRelease : ''}</Button
			>
			{#if all.length > 1}<Button disabled={isBusy} onclick={giveUpAll}>{wording.takeAllBack}</Button>{/if}
			{#if release && all.length === 0}<Button look="main" onclick={() => ((open = false), release())}
					>{wording.release}</Button
				>{/if}
		</p>
	{/if}
</Sheet>
