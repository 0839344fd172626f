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
	import { wording } from '$ui/words/en/cards';
	import type { Snippet } from 'svelte';

	/** A part of a card as the way to its tag: pointing shows where it came from, a double click or Enter writes it. */
	let {
		ways,
		tag,
		isBlock = false,
		children
	}: { ways: CardWays | undefined; tag: string | undefined; isBlock?: boolean; children: Snippet } = $props();

	const SIGNS: Readonly<Record<LayerSign, string>> = {
		page: wording.fromThisPage,
		type: wording.fromItsType,
		site: wording.fromTheSite,
		'built-in': wording.builtIn,
		found: wording.asFoundInThePage
	};
	const sign = $derived(tag === undefined ? undefined : ways?.signOf(tag));
</script>

{#if ways && tag !== undefined}
	<button
		class="[text-align:inherit] leading-[inherit] text-inherit [font:inherit] [text-decoration:inherit] hover:bg-sea-wash [&.block]:grid [&.block]:h-full [&.block]:w-full [&.block]:[place-items:inherit] [&.block]:hover:outline-2 [&.block]:hover:-outline-offset-2 [&.block]:hover:outline-sea"
		class:block={isBlock}
		data-way={tag}
		aria-label={isBlock || tag === 'icon' ? tag : undefined}
		data-tip={wording.aDoubleClickWritesItAtThis(tag, sign ? `, ${SIGNS[sign]}` : '')}
		onclick={() => ways.choose(tag)}
		ondblclick={() => ways.write(tag)}
		onkeydown={(event) => {
			if (event.key !== 'Enter') return;
			event.preventDefault();
			ways.write(tag);
		}}>{@render children()}</button
	>
{:else}{@render children()}{/if}
