<script lang="ts">
	import { wording } from '$ui/words/en/findings';
	import { counted } from '$ui/words/speaking';
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
	caption={wording.howWideTheTitlesAreAndWhere}
	options={(colour) => ({
		series: [{ name: wording.pages, data: bars.map(({ pages }) => pages) }],
		xaxis: {
			...{ type: 'category' as const, categories: bars.map(({ from }) => String(from)) },
			title: { text: wording.widthOfTheTitleInEms }
		},
		yaxis: { title: { text: wording.pages }, forceNiceScale: true },
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
		<thead><tr><th>{wording.ems}</th><th>{wording.pages}</th></tr></thead>
		<tbody>
			{#each bars.filter(({ pages }) => pages > 0) as { from, pages } (from)}
				<tr><td>{wording.to(from, from + step)}</td><td>{counted(pages)}</td></tr>
			{/each}
		</tbody>
	</table>
	<p>{wording.cut(TITLE_CUTS.map(({ reader, ems }) => wording.atEms(reader, ems.toFixed(1))).join(', '))}</p>
</Chart>
