<script lang="ts">
	import { Tooltip } from 'bits-ui';
	import { untrack } from 'svelte';
	import { landmarkOf } from './landmark';
	import type { Tip } from './tips';

	/** What is said beside something. */
	let { tip, hide }: { tip: Tip; hide: () => void } = $props();
	const id = $props.id();
	// One for each thing it stands beside: it goes with it.
	const { at, says } = untrack(() => tip);
	// It describes what it stands beside, for those who hear it.
	$effect(() => {
		const before = at.getAttribute('aria-describedby');
		at.setAttribute('aria-describedby', [before, id].filter(Boolean).join(' '));
		return () =>
			before === null ? at.removeAttribute('aria-describedby') : at.setAttribute('aria-describedby', before);
	});
</script>

<Tooltip.Provider>
	<Tooltip.Root disableHoverableContent bind:open={() => true, (open) => !open && hide()}>
		<Tooltip.Portal to={landmarkOf(at)}>
			<Tooltip.Content
				{id}
				role="tooltip"
				class="pointer-events-none z-40 max-w-80 rounded-sm bg-ink px-2 py-1 text-sm wrap-anywhere whitespace-pre-line text-sheet shadow-over"
				strategy="fixed"
				customAnchor={at}
				sideOffset={6}
				collisionPadding={8}
			>
				{says}
			</Tooltip.Content>
		</Tooltip.Portal>
	</Tooltip.Root>
</Tooltip.Provider>
