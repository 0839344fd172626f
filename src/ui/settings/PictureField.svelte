<script lang="ts">
	import type { Picture } from '$core';
	import { benchInView } from '$ui/bench/context';
	import PictureIntake from '$ui/pictures/PictureIntake.svelte';
	import Setting from './Setting.svelte';
	import { wholeOf } from '$ui/cards/pictureLook';

	/** A setting that is one picture: by its path or address, by a file, or from the library. */
	let {
		name,
		hint = '',
		src,
		set
	}: { name: string; hint?: string; src: string; set: (src: string) => void } = $props();
	const bench = benchInView();

	const held = $derived(bench.working.pictures.find((picture) => picture.src === src));

	function put(picture: Picture) {
		bench.addPicture(picture);
		set(picture.src);
	}
</script>

<div class="field">
	<Setting {name} {hint}>
		<input
			class="mono"
			value={src}
			onchange={(event) => set(event.currentTarget.value.trim())}
			placeholder="/pictures/…"
		/>
	</Setting>
	{#if held?.kept || held?.src.startsWith('/media/')}
		<img src={wholeOf(held, bench.working.site.base, null)} alt="" />
	{/if}
</div>
<PictureIntake site={bench.data.site.name} label="A file for: {name}" taken={put} offersLibrary />

<style>
	.field {
		display: flex;
		gap: 8px;
		align-items: end;
	}
	.field > :global(.setting) {
		flex: 1;
		min-width: 0;
	}
	img {
		max-width: 84px;
		height: 46px;
		object-fit: cover;
	}
</style>
