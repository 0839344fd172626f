<script lang="ts">
	import { wording } from '$ui/words/en/share';
	import Select from '$ui/parts/select/Select.svelte';
	import { COLOUR_USES, colourOf, type Look } from '$core';

	/** One of the site's colours by its use, or one of its own. */
	let {
		name,
		colour,
		look,
		set
	}: { name: string; colour: string; look: Required<Look>; set: (colour: string) => void } = $props();

	const isOwn = $derived(colour.startsWith('#'));
	const choose = (value: string) => set(value === 'own' ? colourOf(colour, look) : value);
</script>

<div class="mt-1.5 flex items-center gap-1.75 text-sm">
	<span>{name}</span>
	<span class="h-4.5 w-4.5 border border-rule-strong" style:background={colourOf(colour, look)}></span>
	<Select
		aria-label={name}
		value={isOwn ? 'own' : colour}
		choices={[...COLOUR_USES.map((use) => [use, wording.theSites(use)] as const), ['own', wording.aColourOfItsOwn]]}
		set={choose}
	/>
	{#if isOwn}
		<input
			class="h-6 w-8.5 p-px"
			type="color"
			aria-label={wording.itsOwn(name)}
			value={colour}
			onchange={(event) => set(event.currentTarget.value)}
		/>
	{/if}
</div>
