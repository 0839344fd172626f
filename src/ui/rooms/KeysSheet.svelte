<script lang="ts">
	import { wording } from '$ui/words/en/rooms';
	import { KEYS } from '$ui/parts/keys';
	import Sheet from '$ui/parts/Sheet.svelte';
	import { ROOMS } from '$ui/places/rooms';

	const ALL = [...KEYS, ...ROOMS.map(({ key, name }) => ({ keys: key, does: wording.theRoom(name) }))];

	/** What the keys do. */
	let { open = $bindable() }: { open: boolean } = $props();
</script>

<Sheet bind:open title={wording.keys} size="middle">
	<dl class="mb-3.5 grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-x-4.5 gap-y-1.25 text-base">
		{#each ALL as { keys, does } (keys)}<div class="flex gap-2.5">
				<dt class="w-29.5 flex-none">
					<kbd class="font-mono text-xs leading-normal font-normal not-italic">{keys}</kbd>
				</dt>
				<dd>{does}</dd>
			</div>{/each}
	</dl>
</Sheet>
