<script lang="ts">
	import { Command, Popover } from 'bits-ui';
	import type { Page } from '$core';

	interface Entry {
		readonly path: string;
		readonly type: string;
		readonly state: Page['state'];
		readonly title: string | null;
	}
	/** Which page the bench stands at, and the way to the others. */
	let { pages, path, go }: { pages: readonly Entry[]; path: string; go: (path: string) => void } = $props();

	let open = $state(false);
	let search = $state('');
	const index = $derived(pages.findIndex((page) => page.path === path));
	const found = $derived(
		pages
			.filter((page) => `${page.path} ${page.title ?? ''} ${page.type}`.toLowerCase().includes(search.toLowerCase()))
			.slice(0, 60)
	);

	export function move(step: number) {
		const next = pages[index + step];
		if (next) go(next.path);
	}
	export function find() {
		open = true;
	}
	function choose(chosen: string) {
		open = false;
		search = '';
		go(chosen);
	}
</script>

<nav class="mover" aria-label="Pages">
	<button
		class="plain-button"
		onclick={() => move(-1)}
		disabled={index <= 0}
		aria-label="Page before"
		title="Page before (Alt+←)">←</button
	>
	<Popover.Root bind:open>
		<Popover.Trigger class="plain-button mover-path" title="Find a page (Ctrl+K)">
			<span class="mono">{path}</span><span class="quiet count">{index + 1} of {pages.length}</span>
		</Popover.Trigger>
		<Popover.Portal>
			<Popover.Content class="mover-list" sideOffset={6} align="start">
				<Command.Root shouldFilter={false} label="Find a page">
					<Command.Input class="mover-input" placeholder="Find a page by title, path or type" bind:value={search} />
					<Command.List class="mover-results">
						<Command.Empty class="mover-empty">No page has that in its title, path or type.</Command.Empty>
						{#each found as page (page.path)}
							<Command.Item class="mover-item" value={page.path} onSelect={() => choose(page.path)}>
								<span class="serif">{page.title || 'No title'}</span>
								<span class="mono quiet">{page.path}</span>
								<span class="quiet">{page.type}{page.state === 'live' ? '' : `, ${page.state}`}</span>
							</Command.Item>
						{/each}
					</Command.List>
				</Command.Root>
			</Popover.Content>
		</Popover.Portal>
	</Popover.Root>
	<button
		class="plain-button"
		onclick={() => move(1)}
		disabled={index < 0 || index >= pages.length - 1}
		aria-label="Next page"
		title="Next page (Alt+→)">→</button
	>
</nav>

<style>
	.mover {
		display: flex;
		min-width: 0;
		gap: 4px;
	}
	.mover :global(.mover-path) {
		display: flex;
		align-items: baseline;
		gap: 10px;
		min-width: 0;
		max-width: 420px;
	}
	.mover :global(.mover-path .mono) {
		overflow: hidden;
		font-size: 13px;
		font-weight: 400;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.count {
		flex: none;
		font-size: 12.5px;
		font-weight: 400;
	}
	:global(.mover-list) {
		z-index: 20;
		width: 560px;
		max-width: calc(100vw - 32px);
		border: 1px solid var(--rule-strong);
		border-radius: 4px;
		background: var(--sheet);
		box-shadow: 0 10px 30px rgb(0 0 0 / 0.18);
	}
	:global(.mover-input) {
		width: 100%;
		border-bottom: 1px solid var(--rule);
		background: transparent;
		padding: 9px 12px;
	}
	:global(.mover-results) {
		max-height: 380px;
		overflow-y: auto;
	}
	:global(.mover-item) {
		display: grid;
		grid-template-columns: minmax(0, 1.2fr) minmax(0, 1.4fr) 90px;
		gap: 10px;
		align-items: baseline;
		padding: 5px 12px;
		cursor: pointer;
	}
	:global(.mover-item > *) {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-size: 13px;
	}
	:global(.mover-item[data-selected]) {
		background: var(--sea-wash);
	}
	:global(.mover-empty) {
		padding: 12px;
		color: var(--ink-soft);
	}
</style>
