<script lang="ts">
	import type { Snippet } from 'svelte';
	/** One setting: its name, the control, and what it means in words. */
	let { name, hint = '', children }: { name: string; hint?: string; children: Snippet } = $props();
</script>

<label
	class="setting mt-2.25 block has-[>input[type=checkbox]]:grid has-[>input[type=checkbox]]:grid-cols-[20px_1fr] has-[>input[type=checkbox]]:items-center [&>*:not([type=checkbox])]:col-start-2 not-has-[>input[type=checkbox]]:[&>:not(span)]:w-full [&>[type=checkbox]]:justify-self-start [&>[type=checkbox]]:[grid-area:1/1]"
>
	<span class="name block text-sm font-semibold">{name}</span>
	{@render children()}
	{#if hint}<span class="mt-px block text-sm text-ink-soft">{hint}</span>{/if}
</label>
