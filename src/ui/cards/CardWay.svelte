<script lang="ts" module>
	import type { LayerSign } from '$ui/parts/lines';

	/** What a part of a card leads to: the tag that the reader took it from. */
	export interface CardWays {
		readonly choose: (tag: string) => void;
		/** Goes to the page's own field of the tag. */
		readonly write: (tag: string) => void;
		/** The layer that the tag came from. */
		readonly signOf: (tag: string) => LayerSign | undefined;
	}
</script>

<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A part of a card as the way to its tag: pointing shows where it came from, a double click or Enter writes it. */
	let {
		ways,
		tag,
		isBlock = false,
		children
	}: { ways: CardWays | undefined; tag: string | undefined; isBlock?: boolean; children: Snippet } = $props();

	const SIGNS: Readonly<Record<LayerSign, string>> = {
		page: 'from this page',
		type: 'from its type',
		site: 'from the site',
		'built-in': 'built in',
		found: 'as found in the page'
	};
	const sign = $derived(tag === undefined ? undefined : ways?.signOf(tag));
</script>

{#if ways && tag !== undefined}
	<button
		class="way"
		class:block={isBlock}
		data-way={tag}
		title="{tag}{sign ? `, ${SIGNS[sign]}` : ''}. A double click writes it at this page."
		onclick={() => ways.choose(tag)}
		ondblclick={() => ways.write(tag)}
		onkeydown={(event) => {
			if (event.key !== 'Enter') return;
			event.preventDefault();
			ways.write(tag);
		}}>{@render children()}</button
	>
{:else}{@render children()}{/if}

<style>
	.way {
		font: inherit;
		color: inherit;
		line-height: inherit;
		text-align: inherit;
		text-decoration: inherit;
	}
	.way:hover {
		background: var(--sea-wash);
	}
	.block {
		display: grid;
		width: 100%;
		height: 100%;
		place-items: inherit;
	}
	.block:hover {
		outline: 2px solid var(--sea);
		outline-offset: -2px;
	}
</style>
