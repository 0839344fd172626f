<script lang="ts">
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

<section aria-label="The picture of this page" data-testid="picture">
	<button class="back" onclick={back}>← The layers of <span class="mono">{bench.tag}</span></button>
	<h2>The picture</h2>
	{#if picture}
		<PictureStudy
			{picture}
			src={whole(source)}
			languages={bench.working.site.languages}
			{use}
			spoken={bench.picture?.recipe ? '' : (bench.picture?.alt ?? '')}
			change={(changes) => bench.changePicture(source, changes)}
		/>
		<p class="quiet told">
			{#if shapes.length > 0}
				<span class="mono">{bench.tag}</span> shows it cut to {shapes
					.map((shape) => SHAPES[shape].ratio)
					.join(' and ')}.
			{:else}
				<span class="mono">{bench.tag}</span> shows it whole: each reader cuts it round its middle. Cuts are chosen with the
				picture sources.
			{/if}
		</p>
		<DraftNote draftKey={keyOfSettings({ layer: 'picture', src: source })} />
	{:else}
		<p class="quiet">Nothing is known of this picture: it stands at an address that was never looked at.</p>
	{/if}
</section>

<style>
	h2 {
		margin: 6px 0;
		font-size: 17px;
		font-weight: 600;
	}
	.told {
		margin-top: 10px;
		font-size: 13px;
	}
</style>
