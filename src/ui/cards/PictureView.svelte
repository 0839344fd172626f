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

<span
	class="view grid h-full w-full place-items-center overflow-hidden [&.whole]:h-auto [&>*]:min-w-0 [&>*]:[grid-area:1/1]"
	class:whole
>
	{#if box && look.part}
		<svg
			class="h-full w-full object-cover in-[.whole]:h-auto in-[.whole]:object-contain"
			role={alt ? 'img' : 'presentation'}
			aria-label={alt || undefined}
			viewBox="{box.left} {box.top} {box.width} {box.height}"
			preserveAspectRatio="xMidYMid {whole ? 'meet' : 'slice'}"
			style:aspect-ratio={whole ? `${box.width} / ${box.height}` : undefined}
		>
			<image href={look.src} width={look.part.width} height={look.part.height} {@attach told} />
		</svg>
	{:else}
		<img
			class="h-full w-full object-cover in-[.whole]:h-auto in-[.whole]:object-contain"
			src={look.src}
			{alt}
			{@attach told}
		/>
	{/if}
	{#if look.play}
		<svg class="play h-1/4 w-1/4 object-cover" viewBox="0 0 100 100" aria-hidden="true">
			<circle class="fill-[rgb(16_24_23/0.62)] stroke-paper stroke-[4]" cx="50" cy="50" r="46" />
			<path class="fill-paper" d="M40 29 L74 50 L40 71 Z" />
		</svg>
	{/if}
</span>
