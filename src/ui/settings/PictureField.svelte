<script lang="ts">
	import type { Picture } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import PictureIntake from '$ui/pictures/PictureIntake.svelte';
	import Setting from './Setting.svelte';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { whyNotPicture } from './fieldValues';
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

	/** What was typed and is no picture; what stands there may be none, too. */
	let refused = $state<string | undefined>();
	const wrong = $derived(whyNotPicture(refused ?? src));
	function take(typed: string) {
		const text = typed.trim();
		refused = whyNotPicture(text) && text;
		if (refused === undefined) set(text);
	}
	function put(picture: Picture) {
		bench.addPicture(picture);
		refused = undefined;
		set(picture.src);
	}
</script>

<div class="field">
	<Setting {name} {hint}>
		<TextInput
			class="mono"
			late
			value={refused ?? src}
			set={take}
			aria-invalid={wrong !== undefined}
			placeholder="/pictures/…"
		/>
	</Setting>
	{#if held?.kept || held?.src.startsWith('/media/')}
		<img src={wholeOf(held, bench.working.site.base, null)} alt="" />
	{/if}
</div>
{#if wrong}<p class="refused" role="alert">{wrong}</p>{/if}
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
