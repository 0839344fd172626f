<script lang="ts">
	import { onMount, type Snippet } from 'svelte';
	import type { ApexOptions } from 'apexcharts';

	/** A chart for those who see it, and the same as a table. */
	let {
		caption,
		options,
		children
	}: {
		caption: string;
		/** What is special about this one; `colour` gives a colour of the page by its name. */
		options: (colour: (name: string) => string) => ApexOptions;
		/** The table. */
		children: Snippet;
	} = $props();

	let place = $state<HTMLElement>();
	onMount(() => {
		let chart: { destroy: () => void } | undefined;
		// Large, and only here: it comes when the room is open.
		void import('apexcharts').then(({ default: Chart }) => {
			if (!place) return;
			const style = getComputedStyle(place);
			const colour = (name: string) => style.getPropertyValue(name).trim();
			const { chart: own, ...rest } = options(colour);
			const made = new Chart(place, {
				chart: {
					...{ type: 'bar', height: 190, toolbar: { show: false }, animations: { enabled: false } },
					...{ fontFamily: 'inherit', foreColor: colour('--ink-soft') },
					...own
				},
				dataLabels: { enabled: false },
				grid: { borderColor: colour('--rule') },
				tooltip: { enabled: false },
				...rest
			});
			chart = made;
			void made.render();
		});
		return () => chart?.destroy();
	});
</script>

<figure>
	<figcaption>{caption}</figcaption>
	<div bind:this={place} aria-hidden="true"></div>
	<details>
		<summary>The same as a table</summary>
		{@render children()}
	</details>
</figure>

<style>
	/* The drawing follows a narrower window a moment later: until then it is cut, not scrolled to. */
	figcaption + div {
		overflow: clip;
	}
	figcaption {
		font-weight: 600;
	}
	details {
		font-size: 13px;
	}
	details :global(:is(th, td)) {
		padding: 1px 14px 1px 0;
		text-align: left;
	}
</style>
