<script lang="ts">
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
	const pages = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;
	const reading = $derived(found?.reading ?? 0);
	const kept = $derived(found ? found.under - found.changed + reading : 0);
	const isPage = $derived(draft.edit.place.layer === 'page');

	/** What stands there now, in words. */
	function inWords(current: unknown): string {
		const body = current as RuleBody | null;
		if (body === null) return 'nothing is set there any more';
		if (!('kind' in body)) return 'it has other settings now';
		return body.kind === 'template' ? `it says “${body.template}” now` : 'it has another rule now';
	}
	const worst = $derived(found && found.worst.length > 1 ? found.worst.slice(0, 3) : []);
	const show = (text: string) => text || 'nothing';
	const inSentence = (text: string) => text.charAt(0).toLowerCase() + text.slice(1).replace(/\.$/, '');

	/** Why a page got worse or better, by the findings on it. */
	function reasonOf({ gained, lost, kept }: ReachedPage): string {
		const [first] = gained.length > 0 ? gained : lost.length > 0 ? lost : kept;
		if (!first) return '';
		const when = gained.length > 0 ? 'now' : lost.length > 0 ? 'no longer' : 'still';
		return `${when}: ${inSentence(describeFinding(first))}`;
	}
</script>

<div class="reach mt-1.5 border-t border-dashed border-t-rule-strong pt-1.5 text-sm" data-testid="reach">
	{#if draft.conflict}
		<div class="conflict border-l-4 border-l-flag bg-flag-wash px-2.25 py-1.5" role="alert">
			<p><strong>Changed elsewhere meanwhile:</strong> {inWords(draft.conflict.current)}. Yours is still here.</p>
			<p class="actions mt-1.5 flex items-center gap-2">
				<Button look="main" onclick={overrule}>Keep mine instead</Button>
				<Button onclick={discard}>Take theirs</Button>
			</p>
		</div>
	{:else}
		<p role="status">
			{#if counting}
				Counting the pages it reaches{counting.seen > 0 ? `: ${counting.seen.toLocaleString('en')} seen` : ''} …
				<Button look="link" onclick={stop}>Stop counting</Button>
			{:else if reach === 'stopped'}
				Counting was stopped: how far it reaches is not known.
			{:else if found}
				<strong>{pages(found.changed)} would change</strong>{kept > 0
					? `, ${pages(kept)} under it would not`
					: ''}{reading > 0
					? `, ${pages(reading)} by what ${reading === 1 ? 'it reads' : 'they read'} here`
					: ''}{found.worse ? `; ${found.worse} for the worse` : ''}{found.better
					? `; ${found.better} for the better`
					: ''}{found.leaving ? `; ${pages(found.leaving)} would leave the site` : ''}{found.entering
					? `; ${pages(found.entering)} would come to it`
					: ''}.
				{#if found.pinned}
					<strong
						>{pages(found.pinned)} would no longer say what {found.pinned === 1 ? 'it is' : 'they are'} pinned to.</strong
					>
				{/if}
				{#if found.sayThemselves > 0}
					{pages(found.sayThemselves)}
					{found.sayThemselves === 1 ? 'says' : 'say'} it in {found.sayThemselves === 1 ? 'its' : 'their'} own file, and
					{found.sayThemselves === 1 ? 'keeps' : 'keep'} that.
					{#if letWin}<Button look="link" onclick={letWin}>Let the template win</Button>{/if}
				{/if}
			{:else}
				How far it reaches could not be counted.{typeof reach === 'object' && 'refused' in reach
					? ` ${reach.refused}`
					: ''}
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
				>Keep{#if hasKeys}<kbd class="ml-2 font-mono text-2xs leading-normal font-normal not-italic">Enter</kbd
					>{/if}</Button
			>
			<Button onclick={discard}
				>Take back{#if hasKeys}<kbd class="ml-2 font-mono text-2xs leading-normal font-normal not-italic">Esc</kbd
					>{/if}</Button
			>
			{#if isPage && !draft.refused}<span class="text-ink-soft">kept by itself in a moment</span>{/if}
		</p>
	{/if}
</div>
