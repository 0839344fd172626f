<script lang="ts">
	import { wording } from '$ui/words/en/parts';
	import type { LayerSign } from '$ui/parts/lines';
	/**
	 * The sign of a layer: filled, hatched, dotted, open, like the beds on a section through the ground; lined for what
	 * was found. One element, drawn by its style: a table shows a hundred of them.
	 */
	let { layer, size = 12 }: { layer: LayerSign; size?: number } = $props();
	const NAMES = {
		...{ page: wording.layerPage, type: wording.layerType, site: wording.layerSite },
		...{ 'built-in': wording.layerBuiltIn, found: wording.asFoundInThePage }
	};
</script>

<span class="mark {layer}" style:--size="{size}px" role="img" aria-label={NAMES[layer]} data-tip={NAMES[layer]}></span>

<style>
	/* Drawn by gradients: a mask for each would be a layer of its own, and every frame would put dozens together. */
	.mark {
		display: inline-block;
		flex: none;
		width: var(--size);
		height: var(--size);
		border: 1px solid var(--color-sea);
		border-radius: 2px;
		forced-color-adjust: none;
	}
	.page {
		background: var(--color-sea);
	}
	.type {
		background: repeating-linear-gradient(
			-45deg,
			var(--color-sea) 0 calc(var(--size) * 0.1),
			transparent calc(var(--size) * 0.1 + 0.3px) calc(var(--size) * 0.28)
		);
	}
	.found {
		--line: linear-gradient(var(--color-sea), var(--color-sea)) no-repeat;
		background:
			var(--line) 50% 22% / 60% 1px,
			var(--line) 50% 50% / 60% 1px,
			var(--line) 38% 78% / 38% 1px;
	}
	.site {
		--dot: var(--color-sea) calc(var(--size) * 0.09), transparent calc(var(--size) * 0.09 + 0.5px);
		background:
			radial-gradient(circle at 24% 24%, var(--dot)), radial-gradient(circle at 76% 24%, var(--dot)),
			radial-gradient(circle at 50% 50%, var(--dot)), radial-gradient(circle at 24% 76%, var(--dot)),
			radial-gradient(circle at 76% 76%, var(--dot));
	}
</style>
