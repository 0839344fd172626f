<script lang="ts">
	import type { Picture } from '$core';
	import type { Bench } from './bench.svelte';
	import PictureIntake from './PictureIntake.svelte';
	import PicturePicker from './PicturePicker.svelte';
	import Setting from './Setting.svelte';
	import { wholeOf } from './pictureLook';

	/** A setting that is one picture: by its path or address, by a file, or from the library. */
	let {
		bench,
		name,
		hint = '',
		src,
		set
	}: { bench: Bench; name: string; hint?: string; src: string; set: (src: string) => void } = $props();

	let picking = $state(false);
	const held = $derived(bench.pictures.find((picture) => picture.src === src));

	function put(picture: Picture) {
		picking = false;
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
		<img src={wholeOf(held, bench.site.base, null)} alt="" />
	{/if}
</div>
<PictureIntake site={bench.data.site.name} label="A file for: {name}" taken={put}>
	{#snippet more()}
		<button class="link" aria-expanded={picking} onclick={() => (picking = !picking)}>or from the library</button>
	{/snippet}
</PictureIntake>
{#if picking}<PicturePicker site={bench.data.site.name} pick={put} />{/if}

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
	.link {
		flex: none;
		text-decoration: underline;
		text-underline-offset: 2px;
	}
</style>
