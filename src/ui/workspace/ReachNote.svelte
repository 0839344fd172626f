<script lang="ts">
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
		addressOf
	}: {
		draft: Draft;
		keep: () => void;
		discard: () => void;
		stop: () => void;
		overrule: () => void;
		/** Lets the edited rule win over what the pages' own files say. */
		letWin: () => void;
		/** Where a page is seen with the edit. */
		addressOf: (path: string) => string;
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

<div class="reach" data-testid="reach">
	{#if draft.conflict}
		<div class="conflict" role="alert">
			<p><strong>Changed elsewhere meanwhile:</strong> {inWords(draft.conflict.current)}. Yours is still here.</p>
			<p class="actions">
				<button class="main-button" onclick={overrule}>Keep mine instead</button>
				<button class="plain-button" onclick={discard}>Take theirs</button>
			</p>
		</div>
	{:else}
		<p role="status">
			{#if counting}
				Counting the pages it reaches{counting.seen > 0 ? `: ${counting.seen.toLocaleString('en')} seen` : ''} …
				<button class="link" onclick={stop}>Stop counting</button>
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
					<button class="link" onclick={letWin}>Let the template win</button>
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
					<li>
						<span class="was serif">{show(page.before)}</span>
						<span class="serif">{show(page.after)}</span>
						<p class="why">{reasonOf(page)} <a class="link mono" href={addressOf(page.path)}>{page.path}</a></p>
					</li>
				{/each}
			</ul>
		{/if}
		{#if draft.refused}<p class="refused" role="alert">{draft.refused}</p>{/if}
		<p class="actions">
			<button class="main-button" onclick={keep}>Keep <kbd>Enter</kbd></button>
			<button class="plain-button" onclick={discard}>Take back <kbd>Esc</kbd></button>
			{#if isPage && !draft.refused}<span class="quiet">kept by itself in a moment</span>{/if}
		</p>
	{/if}
</div>

<style>
	.reach {
		margin-top: 6px;
		border-top: 1px dashed var(--rule-strong);
		padding-top: 6px;
		font-size: 13px;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		border-left: 2px solid var(--rule);
		margin-top: 4px;
		padding-left: 7px;
	}
	li > span {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.was {
		color: var(--ink-soft);
		text-decoration: line-through;
		text-decoration-thickness: 1px;
	}
	.why {
		overflow-wrap: anywhere;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.why a {
		display: block;
		width: fit-content;
	}
	.actions {
		display: flex;
		align-items: center;
		gap: 8px;
		margin-top: 6px;
	}
	.conflict {
		border-left: 4px solid var(--flag);
		background: var(--flag-wash);
		padding: 6px 9px;
	}
	kbd {
		margin-left: 4px;
		font: 11px var(--mono);
	}
</style>
