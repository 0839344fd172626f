<script lang="ts">
	import { onMount } from 'svelte';
	import { TITLE_CUTS } from './matrix';

	/** How wide titles are, against where readers cut them. A table says the same. */
	let { widths, step }: { widths: readonly { step: number; pages: number }[]; step: number } = $props();

	let place = $state<HTMLElement>();
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
	onMount(() => {
		let chart: { destroy: () => void } | undefined;
		// Large, and only here: it comes when the room is open.
		void import('apexcharts').then(({ default: Chart }) => {
			if (!place) return;
			const style = getComputedStyle(place);
			const colour = (name: string) => style.getPropertyValue(name).trim();
			const made = new Chart(place, {
				chart: {
					type: 'bar',
					height: 190,
					toolbar: { show: false },
					animations: { enabled: false },
					fontFamily: 'inherit',
					foreColor: colour('--ink-soft')
				},
				series: [{ name: 'Pages', data: bars.map(({ pages }) => pages) }],
				xaxis: {
					...{ type: 'category' as const, categories: bars.map(({ from }) => String(from)) },
					title: { text: 'Width of the title, in ems' }
				},
				yaxis: { title: { text: 'Pages' }, forceNiceScale: true },
				colors: [colour('--sea')],
				dataLabels: { enabled: false },
				plotOptions: { bar: { columnWidth: '88%' } },
				grid: { borderColor: colour('--rule') },
				tooltip: { enabled: false },
				annotations: {
					xaxis: TITLE_CUTS.map(({ reader, ems }) => ({
						...{ x: String(Math.floor(ems / step) * step), borderColor: colour('--flag'), strokeDashArray: 0 },
						label: {
							text: reader,
							orientation: 'vertical',
							style: { color: colour('--flag'), background: colour('--sheet') }
						}
					}))
				}
			});
			chart = made;
			void made.render();
		});
		return () => chart?.destroy();
	});
</script>

<figure>
	<figcaption>How wide the titles are, and where readers that measure cut them</figcaption>
	<div bind:this={place} aria-hidden="true"></div>
	<details>
		<summary>The same as a table</summary>
		<table>
			<thead><tr><th>Ems</th><th>Pages</th></tr></thead>
			<tbody>
				{#each bars.filter(({ pages }) => pages > 0) as { from, pages } (from)}
					<tr><td>{from} to {from + step}</td><td>{pages.toLocaleString('en')}</td></tr>
				{/each}
			</tbody>
		</table>
		<p>Cut: {TITLE_CUTS.map(({ reader, ems }) => `${reader} at ${ems.toFixed(1)} ems`).join(', ')}.</p>
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
