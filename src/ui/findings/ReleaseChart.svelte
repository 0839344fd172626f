<script lang="ts">
	import { wording } from '$ui/words/en/findings';
	import { counted } from '$ui/words/speaking';
	import Chart from './Chart.svelte';
	import type { FindingsOfRelease } from '$server/store/releases/releases';

	/** How many findings the pages of the last releases had, by how much they spoil. */
	let { releases }: { releases: readonly FindingsOfRelease[] } = $props();

	const CLASSES = [
		{ name: wording.grave, of: (one: FindingsOfRelease) => one.grave, colour: 'gone' },
		{ name: wording.worthMending, of: (one: FindingsOfRelease) => one.mending, colour: 'flag' },
		{ name: wording.slight, of: (one: FindingsOfRelease) => one.slight, colour: 'rule-strong' }
	] as const;
</script>

<Chart
	caption={wording.findingsOnThePagesOfTheLast}
	options={(colour) => ({
		chart: { stacked: true },
		series: CLASSES.map(({ name, of }) => ({ name, data: releases.map(of) })),
		xaxis: { categories: releases.map(({ number }) => String(number)), title: { text: wording.release } },
		yaxis: { title: { text: wording.findings }, forceNiceScale: true },
		colors: CLASSES.map((one) => colour(one.colour)),
		legend: { position: 'top', horizontalAlign: 'left' },
		plotOptions: { bar: { columnWidth: releases.length < 6 ? '18%' : '60%' } }
	})}
>
	<table>
		<thead
			><tr
				><th>{wording.release}</th>{#each CLASSES as { name } (name)}<th>{name}</th>{/each}</tr
			></thead
		>
		<tbody>
			{#each releases as one (one.number)}
				<tr
					><td>{one.number}</td>{#each CLASSES as { name, of } (name)}<td>{counted(of(one))}</td>{/each}</tr
				>
			{/each}
		</tbody>
	</table>
</Chart>
