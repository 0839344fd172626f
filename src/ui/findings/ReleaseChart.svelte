<script lang="ts">
	import Chart from './Chart.svelte';
	import type { FindingsOfRelease } from '$server/store/releases/releases';

	/** How many findings the pages of the last releases had, by how much they spoil. */
	let { releases }: { releases: readonly FindingsOfRelease[] } = $props();

	const CLASSES = [
		{ name: 'grave', of: (one: FindingsOfRelease) => one.grave, colour: 'gone' },
		{ name: 'worth mending', of: (one: FindingsOfRelease) => one.mending, colour: 'flag' },
		{ name: 'slight', of: (one: FindingsOfRelease) => one.slight, colour: 'rule-strong' }
	] as const;
</script>

<Chart
	caption="Findings on the pages of the last releases"
	options={(colour) => ({
		chart: { stacked: true },
		series: CLASSES.map(({ name, of }) => ({ name, data: releases.map(of) })),
		xaxis: { categories: releases.map(({ number }) => String(number)), title: { text: 'Release' } },
		yaxis: { title: { text: 'Findings' }, forceNiceScale: true },
		colors: CLASSES.map((one) => colour(one.colour)),
		legend: { position: 'top', horizontalAlign: 'left' },
		plotOptions: { bar: { columnWidth: releases.length < 6 ? '18%' : '60%' } }
	})}
>
	<table>
		<thead
			><tr
				><th>Release</th>{#each CLASSES as { name } (name)}<th>{name}</th>{/each}</tr
			></thead
		>
		<tbody>
			{#each releases as one (one.number)}
				<tr
					><td>{one.number}</td>{#each CLASSES as { name, of } (name)}<td>{of(one).toLocaleString('en')}</td>{/each}</tr
				>
			{/each}
		</tbody>
	</table>
</Chart>
