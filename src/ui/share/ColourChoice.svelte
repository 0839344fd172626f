<script lang="ts">
	import { COLOUR_USES, colourOf, type Look } from '$core';

	/** One of the site's colours by its use, or one of its own. */
	let {
		name,
		colour,
		look,
		set
	}: { name: string; colour: string; look: Required<Look>; set: (colour: string) => void } = $props();

	const isOwn = $derived(colour.startsWith('#'));
	function choose(event: Event & { currentTarget: HTMLSelectElement }) {
		const { value } = event.currentTarget;
		set(value === 'own' ? colourOf(colour, look) : value);
	}
</script>

<div class="mt-1.5 flex items-center gap-1.75 text-sm">
	<span>{name}</span>
	<span class="h-4.5 w-4.5 border border-rule-strong" style:background={colourOf(colour, look)}></span>
	<select aria-label={name} value={isOwn ? 'own' : colour} onchange={choose}>
		{#each COLOUR_USES as use (use)}<option value={use}>the site’s {use}</option>{/each}
		<option value="own">a colour of its own</option>
	</select>
	{#if isOwn}
		<input
			class="h-6 w-8.5 p-px"
			type="color"
			aria-label="{name}, its own"
			value={colour}
			onchange={(event) => set(event.currentTarget.value)}
		/>
	{/if}
</div>
