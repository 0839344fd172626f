<script lang="ts">
	import { wording } from '$ui/words/en/share';
	import { type Box } from '$core';
	import { inCanvas, resized } from './shareLayout';

	/** Where a part stands and how large it is, in pixels of the share picture. */
	let { box, set }: { box: Box; set: (box: Box) => void } = $props();

	const FIELDS = [
		['x', wording.fromTheLeft],
		['y', wording.fromTheTop],
		['width', wording.width],
		['height', wording.height]
	] as const;
	function change(field: keyof Box, event: Event & { currentTarget: HTMLInputElement }) {
		const { x, y, width, height }: Box = { ...box, [field as string]: Number(event.currentTarget.value) || 0 };
		const next = field === 'x' || field === 'y' ? inCanvas({ x, y, width, height }) : resized(box, width, height);
		set({ x: next.x, y: next.y, width: next.width, height: next.height });
	}
</script>

<div class="box mt-1.5 grid grid-cols-2 gap-x-3 gap-y-1 text-sm">
	{#each FIELDS as [field, name] (field)}
		<label class="flex items-center justify-between gap-1.5"
			>{name}
			<input
				class="w-18"
				type="number"
				value={Math.round(box[field])}
				onchange={(event) => change(field, event)}
			/></label
		>
	{/each}
</div>
