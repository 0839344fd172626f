<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { KEYS } from '$ui/parts/keys';
	import { ROOMS } from '$ui/rooms/rooms';

	const ALL = [...KEYS, ...ROOMS.map(({ key, name }) => ({ keys: key, does: `The room “${name}”` }))];

	/** What the keys do. */
	let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="veil" />
		<Dialog.Content class="palette keys-sheet">
			<Dialog.Title class="keys-title serif">Keys</Dialog.Title>
			<dl>
				{#each ALL as { keys, does } (keys)}<div>
						<dt><kbd>{keys}</kbd></dt>
						<dd>{does}</dd>
					</div>{/each}
			</dl>
			<Dialog.Close class="plain-button">Close</Dialog.Close>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	:global(.keys-sheet) {
		padding: 16px 20px;
	}
	:global(.keys-title) {
		margin-bottom: 8px;
		font-size: 19px;
	}
	dl {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
		gap: 5px 18px;
		margin-bottom: 14px;
		font-size: 13.5px;
	}
	dl > div {
		display: flex;
		gap: 10px;
	}
	dt {
		flex: none;
		width: 118px;
	}
	kbd {
		font: 12px var(--mono);
	}
</style>
