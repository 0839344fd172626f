<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Refused from '$ui/parts/Refused.svelte';
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

<div class="field flex items-end gap-2 [&>.setting]:min-w-0 [&>.setting]:flex-1">
	<Setting {name} {hint} isSet={src !== ''}>
		<TextInput
			class="font-mono"
			late
			value={refused ?? src}
			set={take}
			aria-invalid={wrong !== undefined}
			placeholder="/pictures/…"
		/>
	</Setting>
	{#if held?.kept || held?.src.startsWith('/media/')}
		<img class="h-11.5 max-w-21 object-cover" src={wholeOf(held, bench.working.site.base, null)} alt="" />
	{/if}
</div>
{#if wrong}<Refused>{wrong}</Refused>{/if}
<PictureIntake site={bench.data.site.name} label={wording.aFileFor(name)} taken={put} offersLibrary />
