<script lang="ts">
	import { wording } from '$ui/words/en/works';
	import Button from '$ui/parts/Button.svelte';
	import { works, type Work } from './works.svelte';

	/** Long works whose room was left, and what came of them; those of other sites are called by them. */
	let { site }: { site: string } = $props();
	const away = $derived(works.all.filter(({ shown }) => shown === 0));
	const of = (work: Work) => (work.site === site ? '' : `${work.site}: `);
</script>

{#each away as work, at (at)}
	<span class="flex items-baseline gap-2" data-testid="work-away">
		{#if work.said === undefined}
			<span
				>{of(work)}{work.what}{work.far && `: ${work.far}`}<span class="text-2xs">{work.left && ` · ${work.left}`}</span
				></span
			>
			<Button look="link" aria-label={wording.stop(work.what)} onclick={work.stop}>{wording.stop2}</Button>
		{:else}
			<span class={work.isFault ? 'text-gone' : 'text-sea'} role="status">{of(work)}{work.said}</span>
			<Button look="link" aria-label={wording.close(work.what)} onclick={() => works.drop(work)}
				>{wording.close2}</Button
			>
		{/if}
	</span>
{/each}
