<script lang="ts">
	import { onMount } from 'svelte';
	import type { FindingsOfRelease } from './api';

	/** How many findings the pages of the last releases had, by how much they spoil. A table says the same. */
	let { releases }: { releases: readonly FindingsOfRelease[] } = $props();

	const CLASSES = [
		{ name: 'grave', of: (one: FindingsOfRelease) => one.grave, colour: '--gone' },
		{ name: 'worth mending', of: (one: FindingsOfRelease) => one.mending, colour: '--flag' },
		{ name: 'slight', of: (one: FindingsOfRelease) => one.slight, colour: '--rule-strong' }
	] as const;
	let place = $state<HTMLElement>();
	onMount(() => {
		let chart: { destroy: () => void } | undefined;
		// Large, and only here: it comes when the room is open.
		void import('apexcharts').then(({ default: Chart }) => {
			if (!place) return;
			const style = getComputedStyle(place);
			const colour = (name: string) => style.getPropertyValue(name).trim();
			const made = new Chart(place, {
				chart: {
					...{ type: 'bar', stacked: true, height: 190 },
					...{ toolbar: { show: false }, animations: { enabled: false } },
					...{ fontFamily: 'inherit', foreColor: colour('--ink-soft') }
				},
				series: CLASSES.map(({ name, of }) => ({ name, data: releases.map(of) })),
				xaxis: { categories: releases.map(({ number }) => String(number)), title: { text: 'Release' } },
				yaxis: { title: { text: 'Findings' }, forceNiceScale: true },
				colors: CLASSES.map((one) => colour(one.colour)),
				legend: { position: 'top', horizontalAlign: 'left' },
				dataLabels: { enabled: false },
				plotOptions: { bar: { columnWidth: releases.length < 6 ? '18%' : '60%' } },
				grid: { borderColor: colour('--rule') },
				tooltip: { enabled: false }
			});
			chart = made;
			void made.render();
		});
		return () => chart?.destroy();
	});
</script>

<figure>
	<figcaption>Findings on the pages of the last releases</figcaption>
	<div bind:this={place} aria-hidden="true"></div>
	<details>
		<summary>The same as a table</summary>
		<table>
			<thead
				><tr
					><th>Release</th>{#each CLASSES as { name } (name)}<th>{name}</th>{/each}</tr
				></thead
			>
			<tbody>
				{#each releases as one (one.number)}
					<tr
						><td>{one.number}</td>{#each CLASSES as { name, of } (name)}<td>{of(one).toLocaleString('en')}</td
							>{/each}</tr
					>
				{/each}
			</tbody>
		</table>
	</details>
</figure>

<style>
	figcaption {
		font-weight: 600;
	}
	details {
		font-size: 13px;
	}
	th,
	td {
		padding: 1px 14px 1px 0;
		text-align: left;
	}
</style>
