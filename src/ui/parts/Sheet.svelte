<script lang="ts">
	import { wording } from '$ui/words/en/parts';
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { button, over, VEIL, type WindowSize } from './looks';

	/** A sheet over the room, for one thing to be done or read; Escape closes it. */
	let {
		open = $bindable(),
		title,
		size = 'small',
		children
	}: { open: boolean; title: string; size?: WindowSize; children: Snippet } = $props();
	/** A field for templates has its own use for Escape. */
	let isInField = $state(false);
	const noteFocus = (event: FocusEvent) => (isInField = (event.target as Element).closest('.cm-content') !== null);
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class={VEIL} />
		<Dialog.Content
			class={[over({ size }), 'flex max-h-[calc(100vh-100px)] flex-col overflow-y-auto px-4.5 pt-3.5 pb-4.5']}
			data-testid="sheet"
			aria-describedby={undefined}
			onfocusin={noteFocus}
			escapeKeydownBehavior={isInField ? 'ignore' : 'close'}
		>
			<Dialog.Title class="mb-1 pr-14 text-md font-semibold" data-testid="sheet-title">{title}</Dialog.Title>
			{@render children()}
			<!-- Last, so that the focus comes to what the sheet is for. -->
			<Dialog.Close class={[button({ look: 'link' }), 'absolute top-3.5 right-4.5 text-sm']}
				>{wording.close}</Dialog.Close
			>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
