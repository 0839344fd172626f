<script lang="ts">
	import type { Draft } from './bench.svelte';

	/** How far an edit reaches, before it is kept, and the pages it hits hardest. */
	let { draft, keep, discard }: { draft: Draft; keep: () => void; discard: () => void } = $props();

	const reach = $derived(draft.reach);
	const pages = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;
	const kept = $derived(typeof reach === 'object' ? reach.under - reach.changed : 0);
</script>

<div class="reach" data-testid="reach">
	<p role="status">
		{#if reach === 'counting'}
			Counting the pages it reaches …
		{:else if reach === undefined}
			How far it reaches could not be counted.
		{:else}
			<strong>{pages(reach.changed)} would change</strong>{kept > 0
				? `, ${pages(kept)} under it would not`
				: ''}{reach.worse ? `; ${reach.worse} for the worse` : ''}{reach.better
				? `; ${reach.better} for the better`
				: ''}.
		{/if}
	</p>
	{#if typeof reach === 'object' && reach.worst.length > 1}
		<ul>
			{#each reach.worst.slice(0, 3) as page (page.path)}
				<li>
					<span class="serif" title="{page.path}: {page.after}">{page.after || 'nothing'}</span>
					<span class="path">{page.reason ?? page.path.split('/').at(-1)}</span>
				</li>
			{/each}
		</ul>
	{/if}
	<p class="actions">
		<button class="main-button" onclick={keep}>Keep <kbd>Enter</kbd></button>
		<button class="plain-button" onclick={discard}>Take back <kbd>Esc</kbd></button>
	</p>
</div>

<style>
	.reach {
		margin-top: 6px;
		border-top: 1px dashed var(--rule-strong);
		padding-top: 6px;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) fit-content(48%);
		gap: 10px;
		align-items: baseline;
	}
	li > span {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.path {
		font-size: 12px;
		color: var(--ink-soft);
	}
	.actions {
		display: flex;
		gap: 8px;
		margin-top: 6px;
	}
	kbd {
		margin-left: 4px;
		font: 11px var(--mono);
		opacity: 0.85;
	}
</style>
