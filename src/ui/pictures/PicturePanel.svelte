<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import Button from '$ui/parts/Button.svelte';
	import type { PictureUse } from '$server/heads/uses';
	import { benchInView } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { keyOfSettings } from '$ui/workspace/edits';
	import PictureStudy from './PictureStudy.svelte';
	import { SHAPES } from '$core';

	/** The picture of the page in view, in the place of the layers: what is set here goes wherever it is shown. */
	let {
		source,
		whole,
		use,
		back
	}: {
		/** The picture, by its source. */
		source: string;
		whole: (source: string) => string;
		use: PictureUse | undefined;
		back: () => void;
	} = $props();
	const bench = benchInView();

	const picture = $derived(bench.working.pictures.find(({ src }) => src === source));
	const shapes = $derived(bench.shapesInForce ?? []);
</script>

<section aria-label={wording.thePictureOfThisPage} data-testid="picture">
	<Button look="link" class="back text-sm" onclick={back}
		>{wording.theLayersOf} <span class="font-mono">{bench.tag}</span></Button
	>
	<h2 class="mx-0 my-1.5 text-md font-semibold">{wording.thePicture}</h2>
	{#if picture}
		<PictureStudy
			{picture}
			src={whole(source)}
			languages={bench.working.site.languages}
			{use}
			spoken={bench.picture?.recipe ? '' : (bench.picture?.alt ?? '')}
			change={(changes) => bench.changePicture(source, changes)}
		/>
		<p class="told mt-2.5 text-sm text-ink-soft">
			{#if shapes.length > 0}
				<span class="font-mono">{bench.tag}</span>
				{wording.showsItCutTo(shapes.map((shape) => SHAPES[shape].ratio).join(' and '))}
			{:else}
				<span class="font-mono">{bench.tag}</span> {wording.showsItWholeEachReaderCutsIt}
			{/if}
		</p>
		<DraftNote draftKey={keyOfSettings({ layer: 'picture', src: source })} />
	{:else}
		<p class="text-ink-soft">{wording.nothingIsKnownOfThisPicture}</p>
	{/if}
</section>
