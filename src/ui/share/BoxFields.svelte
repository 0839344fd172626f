<script lang="ts">
	import { type Box } from '$core';
	import { inCanvas, resized } from './shareLayout';

	/** Where a part stands and how large it is, in pixels of the share picture. */
	let { box, set }: { box: Box; set: (box: Box) => void } = $props();

	const FIELDS = [
		['x', 'From the left'],
		['y', 'From the top'],
		['width', 'Width'],
		['height', 'Height']
	] as const;
	function change(field: keyof Box, event: Event & { currentTarget: HTMLInputElement }) {
		const { x, y, width, height }: Box = { ...box, [field as string]: Number(event.currentTarget.value) || 0 };
		const next = field === 'x' || field === 'y' ? inCanvas({ x, y, width, height }) : resized(box, width, height);
		set({ x: next.x, y: next.y, width: next.width, height: next.height });
	}
</script>

<div class="box">
	{#each FIELDS as [field, name] (field)}
		<label
			>{name} <input type="number" value={Math.round(box[field])} onchange={(event) => change(field, event)} /></label
		>
	{/each}
</div>

<style>
	.box {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 4px 12px;
		margin-top: 6px;
		font-size: 13px;
	}
	label {
		display: flex;
		justify-content: space-between;
		gap: 6px;
		align-items: center;
	}
	input {
		width: 72px;
	}
</style>
