<script lang="ts">
	import type { LayerSign } from '$ui/bench/lines';
	/**
	 * The sign of a layer: filled, hatched, dotted, open, like the beds on a section through the ground; lined for what
	 * was found. One element, drawn by its style: a table shows a hundred of them.
	 */
	let { layer, size = 12 }: { layer: LayerSign; size?: number } = $props();
	const NAMES = { page: 'page', type: 'type', site: 'site', 'built-in': 'built-in', found: 'as found in the page' };
</script>

<span
	class="mark {layer}"
	style:width="{size}px"
	style:height="{size}px"
	role="img"
	aria-label={NAMES[layer]}
	title={NAMES[layer]}
></span>

<style>
	.mark {
		display: inline-block;
		flex: none;
		background: var(--sea);
		mask: var(--sign) center / contain no-repeat;
		forced-color-adjust: none;
	}
	.built-in {
		--sign: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 12' fill='none' stroke='%23000' stroke-width='1.3'%3E%3Crect x='.75' y='.75' width='10.5' height='10.5' rx='1.5'/%3E%3C/svg%3E");
	}
	.page {
		--sign: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 12' stroke='%23000' stroke-width='1.3'%3E%3Crect x='.75' y='.75' width='10.5' height='10.5' rx='1.5'/%3E%3C/svg%3E");
	}
	.type {
		--sign: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 12' fill='none' stroke='%23000' stroke-width='1.2'%3E%3Crect x='.75' y='.75' width='10.5' height='10.5' rx='1.5' stroke-width='1.3'/%3E%3Cpath d='M1 8 8 1M1 12 12 1M4.5 11.5 11.5 4.5'/%3E%3C/svg%3E");
	}
	.found {
		--sign: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 12' fill='none' stroke='%23000' stroke-width='1.2'%3E%3Crect x='.75' y='.75' width='10.5' height='10.5' rx='1.5' stroke-width='1.3'/%3E%3Cpath d='M3 3.8h6M3 6.2h6M3 8.6h3.5'/%3E%3C/svg%3E");
	}
	.site {
		--sign: url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 12'%3E%3Crect x='.75' y='.75' width='10.5' height='10.5' rx='1.5' fill='none' stroke='%23000' stroke-width='1.3'/%3E%3Ccircle cx='3.4' cy='3.4' r='1.05'/%3E%3Ccircle cx='8.6' cy='3.4' r='1.05'/%3E%3Ccircle cx='6' cy='6' r='1.05'/%3E%3Ccircle cx='3.4' cy='8.6' r='1.05'/%3E%3Ccircle cx='8.6' cy='8.6' r='1.05'/%3E%3C/svg%3E");
	}
</style>
