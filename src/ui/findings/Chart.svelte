<script lang="ts">
	import { wording } from '$ui/words/en/findings';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import { onMount, type Snippet } from 'svelte';
	import type { ApexOptions } from 'apexcharts';
	import { withLook } from '$ui/look/look';
	import { styleNonce } from '$ui/look/nonce';

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
		let isOver = false;
		let end = () => {};
		// Large, and only here: it comes when the room is open.
		void import('apexcharts').then(({ default: Chart }) => {
			if (!place || isOver) return;
			const asked = place;
			const colour = (name: string) => {
				asked.style.color = `var(--color-${name})`;
				const said = getComputedStyle(asked).color;
				asked.style.color = '';
				return said;
			};
			// Its colours are its own: drawn anew when the page's become others.
			end = withLook(() => {
				chart?.destroy();
				const { chart: own, ...rest } = options(colour);
				const made = new Chart(asked, {
					chart: {
						nonce: styleNonce(),
						...{ type: 'bar', height: 190, toolbar: { show: false }, animations: { enabled: false } },
						...{ fontFamily: 'inherit', foreColor: colour('ink-soft') },
						...own
					},
					dataLabels: { enabled: false },
					grid: { borderColor: colour('rule') },
					tooltip: { enabled: false },
					...rest
				});
				chart = made;
				void made.render();
			});
		});
		return () => {
			isOver = true;
			end();
			chart?.destroy();
		};
	});
</script>

<figure>
	<figcaption class="font-semibold">{caption}</figcaption>
	<!-- The drawing follows a narrower window a moment later: until then it is cut, not scrolled to. -->
	<div bind:this={place} class="overflow-clip" aria-hidden="true"></div>
	<Disclosure
		class="text-sm [&_:is(th,_td)]:py-px [&_:is(th,_td)]:pr-3.5 [&_:is(th,_td)]:pl-0 [&_:is(th,_td)]:text-left"
		label={wording.theSameAsATable}
	>
		{@render children()}
	</Disclosure>
</figure>
