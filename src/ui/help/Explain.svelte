<script lang="ts">
	import { wording } from '$ui/words/en/help';
	import type { Component } from 'svelte';
	import { button as looks } from '$ui/parts/looks';
	import type { Topic } from './help';

	/** `?` beside anything: what it is, in three sentences and an example. They come when somebody asks. */
	let { topic, called }: { topic: Topic; called: string } = $props();
	let Came = $state.raw<Component<{ topic: Topic; at: HTMLElement; close: () => void }>>();
	let at = $state<HTMLElement>();
	let open = $state(false);
	async function ask() {
		Came ??= (await import('./Explained.svelte')).default;
		open = !open;
	}
</script>

<button
	bind:this={at}
	type="button"
	class={[looks({ look: 'link' }), 'explain px-0.5 text-sm text-ink-soft hover:text-sea']}
	aria-label={wording.whatIs(called)}
	aria-expanded={open}
	onclick={ask}>?</button
>
{#if open && Came && at}<Came {topic} {at} close={() => (open = false)} />{/if}
