<script lang="ts">
	import { wording } from '$ui/words/en/workspace';
	import { pagesInWords } from '$ui/parts/words';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { describeFinding, type ReachedPage, type RuleBody } from '$core';
	import type { Draft } from './drafts.svelte';

	/** How far an edit reaches, before it is kept, and the pages it hits hardest. */
	let {
		draft,
		keep,
		discard,
		stop,
		overrule,
		letWin,
		addressOf,
		hasKeys = true
	}: {
		draft: Draft;
		keep: () => void;
		discard: () => void;
		stop: () => void;
		overrule: () => void;
		/** Lets the edited rule win over what the pages' own files say; not offered where it is not at hand. */
		letWin?: (() => void) | undefined;
		/** Where a page is seen with the edit. */
		addressOf: (path: string) => string;
		/** Enter keeps it and Escape takes it back, as in the field that it stands under. */
		hasKeys?: boolean;
	} = $props();

	const reach = $derived(draft.reach);
	const found = $derived(typeof reach === 'object' && 'under' in reach ? reach : undefined);
	const counting = $derived(typeof reach === 'object' && 'seen' in reach ? reach : undefined);
	const reading = $derived(found?.reading ?? 0);
	const kept = $derived(found ? found.under - found.changed + reading : 0);
	const isPage = $derived(draft.edit.place.layer === 'page');

	/** What stands there now, in words. */
	function inWords(current: unknown): string {
		const body = current as RuleBody | null;
		if (body === null) return wording.nothingIsSetThereAnyMore;
		if (!('kind' in body)) return wording.itHasOtherSettingsNow;
		return body.kind === 'template' ? wording.itSaysNow(body.template) : wording.itHasAnotherRuleNow;
	}
	const worst = $derived(found && found.worst.length > 1 ? found.worst.slice(0, 3) : []);
	const show = (text: string) => text || 'nothing';
	const inSentence = (text: string) => text.charAt(0).toLowerCase() + text.slice(1).replace(/\.$/, '');

	/** Why a page got worse or better, by the findings on it. */
	function reasonOf({ gained, lost, kept }: ReachedPage): string {
		const [first] = gained.length > 0 ? gained : lost.length > 0 ? lost : kept;
		if (!first) return '';
		const when = gained.length > 0 ? 'now' : lost.length > 0 ? wording.noLonger : 'still';
		return `${when}: ${inSentence(describeFinding(first))}`;
	}
</script>

<div class="reach mt-1.5 border-t border-dashed border-t-rule-strong pt-1.5 text-sm" data-testid="reach">
	{#if draft.conflict}
		<div class="conflict border-l-4 border-l-flag bg-flag-wash px-2.25 py-1.5" role="alert">
			<p>
				<strong>{wording.changedElsewhereMeanwhile}</strong>
				{wording.yoursIsStillHere(inWords(draft.conflict.current))}
			</p>
			<p class="actions mt-1.5 flex items-center gap-2">
				<Button look="main" onclick={overrule}>{wording.keepMineInstead}</Button>
				<Button onclick={discard}>{wording.takeTheirs}</Button>
			</p>
		</div>
	{:else}
		<p role="status">
			{#if counting}
				{wording.countingThePagesItReaches(counting.seen > 0 ? wording.seen(counted(counting.seen)) : '')}
				<Button look="link" onclick={stop}>{wording.stopCounting}</Button>
			{:else if reach === 'stopped'}
				{wording.countingWasStoppedHowFarIt}
			{:else if found}
				<strong>{wording.wouldChange(pagesInWords(found.changed))}</strong>{kept > 0
					? wording.underItWouldNot(pagesInWords(kept))
					: ''}{reading > 0
					? wording.byWhatHere(pagesInWords(reading), reading === 1 ? wording.itReads : wording.theyRead)
					: ''}{found.worse ? wording.forTheWorse(found.worse) : ''}{found.better
					? wording.forTheBetter(found.better)
					: ''}{found.leaving ? wording.wouldLeaveTheSite(pagesInWords(found.leaving)) : ''}{found.entering
					? wording.wouldComeToIt(pagesInWords(found.entering))
					: ''}.
				{#if found.pinned}
					<strong
						>{wording.wouldNoLongerSayWhatPinnedTo(
							pagesInWords(found.pinned),
							found.pinned === 1 ? wording.itIs : wording.theyAre
						)}</strong
					>
				{/if}
				{#if found.sayThemselves > 0}
					{wording.itInOwnFileAndThat(
						pagesInWords(found.sayThemselves),
						found.sayThemselves === 1 ? wording.says : wording.say,
						found.sayThemselves === 1 ? wording.its : wording.their,
						found.sayThemselves === 1 ? wording.keeps : wording.keep
					)}
					{#if letWin}<Button look="link" onclick={letWin}>{wording.letTheTemplateWin}</Button>{/if}
				{/if}
			{:else}
				{wording.howFarItReachesCouldNotBe(typeof reach === 'object' && 'refused' in reach ? ` ${reach.refused}` : '')}
			{/if}
		</p>
		{#if worst.length > 0}
			<ul>
				{#each worst as page (page.path)}
					<li class="mt-1 grid grid-cols-1 border-l-2 border-l-rule pl-1.75">
						<span class="truncate font-serif text-ink-soft line-through decoration-1">{show(page.before)}</span>
						<span class="truncate font-serif">{show(page.after)}</span>
						<p class="why text-xs wrap-anywhere text-ink-soft">
							{reasonOf(page)}
							<Button look="link" class="block w-fit font-mono" href={addressOf(page.path)}>{page.path}</Button>
						</p>
					</li>
				{/each}
			</ul>
		{/if}
		{#if draft.refused}<Refused>{draft.refused}</Refused>{/if}
		<p class="actions mt-1.5 flex items-center gap-2">
			<Button look="main" onclick={keep}
				>{wording.keep2}{#if hasKeys}<kbd class="ml-2 font-mono text-2xs leading-normal font-normal not-italic"
						>Enter</kbd
					>{/if}</Button
			>
			<Button onclick={discard}
				>{wording.takeBack}{#if hasKeys}<kbd class="ml-2 font-mono text-2xs leading-normal font-normal not-italic"
						>Esc</kbd
					>{/if}</Button
			>
			{#if isPage && !draft.refused}<span class="text-ink-soft">{wording.keptByItselfInAMoment}</span>{/if}
		</p>
	{/if}
</div>
