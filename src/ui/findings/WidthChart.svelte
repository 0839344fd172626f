<script lang="ts">
	import Chart from './Chart.svelte';
	import { TITLE_CUTS } from '$core';

	/** How wide titles are, against where readers cut them. */
	let { widths, step }: { widths: readonly { step: number; pages: number }[]; step: number } = $props();

	const MOST = 60;
	const bars = $derived.by(() => {
		const last = Math.min(MOST / step, Math.max(20, ...widths.map((one) => one.step)));
		return Array.from({ length: last + 1 }, (_, at) => ({
			from: at * step,
			pages: widths
				.filter((one) => one.step === at || (at === last && one.step > last))
				.reduce((sum, { pages }) => sum + pages, 0)
		}));
	});
</script>

<Chart
	caption="How wide the titles are, and where readers that measure cut them"
	options={(colour) => ({
		series: [{ name: 'Pages', data: bars.map(({ pages }) => pages) }],
		xaxis: {
			...{ type: 'category' as const, categories: bars.map(({ from }) => String(from)) },
			title: { text: 'Width of the title, in ems' }
		},
		yaxis: { title: { text: 'Pages' }, forceNiceScale: true },
		colors: [colour('sea')],
		plotOptions: { bar: { columnWidth: '88%' } },
		annotations: {
			xaxis: TITLE_CUTS.map(({ reader, ems }) => ({
				...{ x: String(Math.floor(ems / step) * step), borderColor: colour('flag'), strokeDashArray: 0 },
				label: {
					text: reader,
					orientation: 'vertical',
					style: { color: colour('flag'), background: colour('sheet') }
				}
			}))
		}
	})}
>
	<table>
		<thead><tr><th>Ems</th><th>Pages</th></tr></thead>
		<tbody>
			{#each bars.filter(({ pages }) => pages > 0) as { from, pages } (from)}
				<tr><td>{from} to {from + step}</td><td>{pages.toLocaleString('en')}</td></tr>
			{/each}
		</tbody>
	</table>
	<p>Cut: {TITLE_CUTS.map(({ reader, ems }) => `${reader} at ${ems.toFixed(1)} ems`).join(', ')}.</p>
</Chart>
