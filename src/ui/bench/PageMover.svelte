<script lang="ts">
	import { roving } from '$ui/parts/roving';
	import { pagesInWords } from '$ui/parts/words';

	/** Which page the bench stands at, and the way to the ones beside it, the hard ones, and all others. */
	let {
		path,
		beside,
		count,
		move,
		find,
		hard,
		make
	}: {
		path: string;
		beside: { readonly before?: string | undefined; readonly next?: string | undefined };
		count: number;
		move: (step: number) => void;
		find: () => void;
		hard: () => void;
		make: () => void;
	} = $props();
</script>

<nav class="mover" aria-label="Pages" {@attach roving('button')}>
	<button
		class="plain-button"
		onclick={() => move(-1)}
		disabled={beside.before === undefined}
		aria-label="Previous page"
		title="Previous page (Alt+←)">←</button
	>
	<button class="plain-button mover-path" title="Find a page, a tag, an action (Ctrl+K)" onclick={find}>
		<span class="mono">{path}</span><span class="quiet count">{pagesInWords(count)}</span>
	</button>
	<button
		class="plain-button"
		onclick={() => move(1)}
		disabled={beside.next === undefined}
		aria-label="Next page"
		title="Next page (Alt+→)">→</button
	>
	<button class="plain-button" onclick={hard} title="To the pages of this type that are hardest on a template (Alt+H)"
		>Hard page</button
	>
	<button class="plain-button" onclick={make} title="A new page (Alt+N)">New page</button>
</nav>

<style>
	.mover {
		display: flex;
		min-width: 0;
		gap: 4px;
	}
	.mover-path {
		display: flex;
		align-items: baseline;
		gap: 10px;
		min-width: 0;
		max-width: 320px;
	}
	.mover-path .mono {
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
	.mover .plain-button {
		white-space: nowrap;
	}
	@media (max-width: 700px) {
		.mover {
			flex-wrap: wrap;
		}
	}
</style>
