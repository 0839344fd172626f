<script lang="ts">
	import { Popover } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { landmarkOf } from './landmark';
	import { button as looks, LEAF } from '../looks';

	/** A few choices or fields behind one word, over what stands under it; Escape and a press beside it close it. */
	let { label, children }: { label: string; children: Snippet } = $props();
	let button = $state<HTMLElement | null>(null);
</script>

<Popover.Root>
	<Popover.Trigger bind:ref={button} class={looks({ look: 'link' })}>{label}</Popover.Trigger>
	<Popover.Portal to={landmarkOf(button)}>
		<Popover.Content
			strategy="fixed"
			class={LEAF}
			sideOffset={4}
			align="end"
			collisionPadding={8}
			data-testid="leaf"
			aria-label={label}
		>
			{@render children()}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
