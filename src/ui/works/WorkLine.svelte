<script lang="ts">
	import { wording } from '$ui/words/en/works';
	import { onMount } from 'svelte';
	import { Progress } from 'bits-ui';
	import Button from '$ui/parts/Button.svelte';
	import type { Work } from './works.svelte';

	/** A long work where it was begun: what, how far, how long still, stop. */
	let { work }: { work: Work } = $props();
	onMount(() => {
		work.shown++;
		return () => work.shown--;
	});
</script>

<!-- It stands within sentences as well: nothing in it is a block of the markup. -->
<span class="grid max-w-120 min-w-60 flex-1 gap-1 text-sm" data-testid="work">
	<span class="flex flex-wrap items-baseline gap-x-3">
		<span>{work.what}{work.far && `: ${work.far}`}</span>
		<span class="text-ink-soft">{work.left}</span>
		<Button type="button" look="link" class="ml-auto" aria-label={wording.stop(work.what)} onclick={work.stop}
			>{wording.stop2}</Button
		>
	</span>
	<Progress.Root
		aria-label={work.what}
		value={work.all > 0 ? Math.min(work.done, work.all) : null}
		max={Math.max(work.all, 1)}
	>
		{#snippet child({ props })}
			<span {...props} class="block h-1 overflow-hidden rounded-sm bg-sunk outline-1 outline-rule">
				<span
					class="block h-full origin-left bg-sea transition-transform motion-reduce:transition-none"
					style:transform="scaleX({work.all > 0 ? Math.min(1, work.done / work.all) : 0})"
				></span>
			</span>
		{/snippet}
	</Progress.Root>
</span>
