<script lang="ts">
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** A sheet over the room, for one thing to be done or read; Escape closes it. */
	let {
		open = $bindable(),
		title,
		wide = false,
		children
	}: { open: boolean; title: string; wide?: boolean; children: Snippet } = $props();
	/** A field for templates has its own use for Escape. */
	let isInField = $state(false);
	const noteFocus = (event: FocusEvent) => (isInField = (event.target as Element).closest('.cm-content') !== null);
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="veil" />
		<Dialog.Content
			class="sheet{wide ? ' sheet-wide' : ''}"
			aria-describedby={undefined}
			onfocusin={noteFocus}
			escapeKeydownBehavior={isInField ? 'ignore' : 'close'}
		>
			<Dialog.Title class="sheet-title">{title}</Dialog.Title>
			{@render children()}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	:global(.sheet) {
		position: fixed;
		z-index: 20;
		top: 70px;
		left: 50%;
		width: 520px;
		max-width: calc(100vw - 32px);
		max-height: calc(100vh - 100px);
		overflow-y: auto;
		border: 1px solid var(--rule-strong);
		border-radius: 4px;
		background: var(--sheet);
		padding: 14px 18px 18px;
		box-shadow: 0 14px 40px rgb(0 0 0 / 0.25);
		transform: translateX(-50%);
	}
	:global(.sheet-wide) {
		width: 980px;
	}
	:global(.sheet-title) {
		font-size: 16px;
		font-weight: 600;
	}
</style>
