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

<div class="colour">
	<span>{name}</span>
	<span class="patch" style:background={colourOf(colour, look)}></span>
	<select aria-label={name} value={isOwn ? 'own' : colour} onchange={choose}>
		{#each COLOUR_USES as use (use)}<option value={use}>the site’s {use}</option>{/each}
		<option value="own">a colour of its own</option>
	</select>
	{#if isOwn}
		<input
			type="color"
			aria-label="{name}, its own"
			value={colour}
			onchange={(event) => set(event.currentTarget.value)}
		/>
	{/if}
</div>

<style>
	.colour {
		display: flex;
		gap: 7px;
		align-items: center;
		margin-top: 6px;
		font-size: 13px;
	}
	.patch {
		width: 18px;
		height: 18px;
		border: 1px solid var(--rule-strong);
	}
	input {
		width: 34px;
		height: 24px;
		padding: 1px;
	}
</style>
