<script lang="ts">
	import { pagesInWords } from '$ui/parts/words';

	/** Which page the bench stands at, and the way to the ones beside it, the hard ones, and all others. */
	let {
		path,
		beside,
		count,
		move,
		find,
		hard
	}: {
		path: string;
		beside: { readonly before?: string | undefined; readonly next?: string | undefined };
		count: number;
		move: (step: number) => void;
		find: () => void;
		hard: () => void;
	} = $props();
</script>

<nav class="mover" aria-label="Pages">
	<button
		class="plain-button"
		onclick={() => move(-1)}
		disabled={beside.before === undefined}
		aria-label="Page before"
		title="Page before (Alt+←)">←</button
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
</style>
