<script lang="ts">
	import type { LayerSign } from '$ui/bench/lines';
	/** The sign of a layer: filled, hatched, dotted, open, like the beds on a section through the ground; lined for what was found. */
	let { layer, size = 12 }: { layer: LayerSign; size?: number } = $props();
	const NAMES = { page: 'page', type: 'type', site: 'site', 'built-in': 'built-in', found: 'as found in the page' };
</script>

<svg class="mark" width={size} height={size} viewBox="0 0 12 12" role="img" aria-label={NAMES[layer]}>
	<title>{NAMES[layer]}</title>
	<rect x="0.75" y="0.75" width="10.5" height="10.5" rx="1.5" class:solid={layer === 'page'} />
	{#if layer === 'type'}<path d="M1 8 8 1M1 12 12 1M4.5 11.5 11.5 4.5" />{/if}
	{#if layer === 'found'}<path d="M3 3.8h6M3 6.2h6M3 8.6h3.5" />{/if}
	{#if layer === 'site'}
		{#each [[3.4, 3.4], [8.6, 3.4], [6, 6], [3.4, 8.6], [8.6, 8.6]] as [x, y] (`${x} ${y}`)}<circle
				cx={x}
				cy={y}
				r="1.05"
			/>{/each}
	{/if}
</svg>

<style>
	.mark {
		flex: none;
		color: var(--sea);
	}
	rect {
		fill: none;
		stroke: currentColor;
		stroke-width: 1.3;
	}
	.solid,
	circle {
		fill: currentColor;
	}
	path {
		stroke: currentColor;
		stroke-width: 1.2;
	}
</style>
