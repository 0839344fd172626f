<script lang="ts">
	import { Collapsible } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** What is seldom needed, behind one line of words; what is typed in it stays while it is closed. */
	let {
		label,
		open = $bindable(false),
		strong = false,
		class: more = '',
		children
	}: {
		label: string;
		open?: boolean;
		/** A heading, among others of its kind. */
		strong?: boolean;
		class?: string;
		children: Snippet;
	} = $props();
</script>

<Collapsible.Root bind:open class={more} data-disclosure={label}>
	<Collapsible.Trigger class={['flex items-baseline gap-1.5 text-left', strong && 'font-semibold']}>
		<span class={['text-2xs text-ink-soft transition-transform', open && 'rotate-90']} aria-hidden="true">▶</span
		>{label}
	</Collapsible.Trigger>
	<Collapsible.Content forceMount>
		{#snippet child({ props })}<div {...props} hidden={!open}>{@render children()}</div>{/snippet}
	</Collapsible.Content>
</Collapsible.Root>
