<script lang="ts">
	import type { Look } from './pictureLook';

	/**
	 * A picture, or the part of one that is meant, as a reader shows it: filling its frame and cut round the middle, or
	 * whole.
	 */
	let {
		look,
		alt = '',
		whole = false,
		broken
	}: { look: Look; alt?: string; whole?: boolean; broken?: () => void } = $props();

	const box = $derived(look.part?.box);
	/** An attachment and not an attribute: the page's policy allows no handlers in markup. */
	const told = (image: Element) => {
		const note = () => broken?.();
		image.addEventListener('error', note);
		if (image instanceof HTMLImageElement && image.complete && image.naturalWidth === 0 && image.src) note();
		return () => image.removeEventListener('error', note);
	};
</script>

<span class="view" class:whole>
	{#if box && look.part}
		<svg
			role={alt ? 'img' : 'presentation'}
			aria-label={alt || undefined}
			viewBox="{box.left} {box.top} {box.width} {box.height}"
			preserveAspectRatio="xMidYMid {whole ? 'meet' : 'slice'}"
			style:aspect-ratio={whole ? `${box.width} / ${box.height}` : undefined}
		>
			<image href={look.src} width={look.part.width} height={look.part.height} {@attach told} />
		</svg>
	{:else}
		<img src={look.src} {alt} {@attach told} />
	{/if}
	{#if look.play}
		<svg class="play" viewBox="0 0 100 100" aria-hidden="true">
			<circle cx="50" cy="50" r="46" />
			<path d="M40 29 L74 50 L40 71 Z" />
		</svg>
	{/if}
</span>

<style>
	.view {
		display: grid;
		width: 100%;
		height: 100%;
		overflow: hidden;
		place-items: center;
	}
	.view > :global(*) {
		grid-area: 1 / 1;
		min-width: 0;
	}
	img,
	svg {
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	.whole {
		height: auto;
	}
	.whole img,
	.whole > svg:not(.play) {
		height: auto;
		object-fit: contain;
	}
	.play {
		width: 25%;
		height: 25%;
	}
	.play circle {
		fill: rgb(16 24 23 / 0.62);
		stroke: #fff;
		stroke-width: 4;
	}
	.play path {
		fill: #fff;
	}
</style>
