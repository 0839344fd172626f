<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import { roving } from '$ui/parts/roving';
	import { pagesInWords } from '$ui/parts/words';

	/** Which page the bench stands at, and the way to the ones beside it, the hard ones, and all others. */
	let {
		path,
		beside,
		count,
		move,
		find,
		hard
	}: {
		path: string;
		beside: { readonly before?: string | undefined; readonly next?: string | undefined };
		count: number;
		move: (step: number) => void;
		find: () => void;
		hard: () => void;
	} = $props();
</script>

<nav class="flex min-w-0 gap-1 max-narrow:flex-[1_0_100%]" aria-label={wording.pages} {@attach roving('button')}>
	<Button
		class="whitespace-nowrap"
		onclick={() => move(-1)}
		disabled={beside.before === undefined}
		aria-label={wording.previousPage}
		data-tip={wording.previousPageAlt}>←</Button
	>
	<Button
		class="mover-path flex max-w-80 min-w-0 items-baseline gap-2.5 whitespace-nowrap max-narrow:max-w-none max-narrow:flex-1"
		data-tip={wording.findAPageATagAnAction}
		onclick={find}
	>
		<span class="truncate font-mono text-sm font-normal">{path}</span><span
			class="count flex-none text-sm font-normal text-ink-soft">{pagesInWords(count)}</span
		>
	</Button>
	<Button
		class="whitespace-nowrap"
		onclick={() => move(1)}
		disabled={beside.next === undefined}
		aria-label={wording.nextPage}
		data-tip={wording.nextPageAlt}>→</Button
	>
	<Button class="whitespace-nowrap max-narrow:hidden" onclick={hard} data-tip={wording.toThePagesOfThisTypeThat}
		>{wording.hardPage}</Button
	>
</nav>
