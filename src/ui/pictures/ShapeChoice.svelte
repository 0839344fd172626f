<script lang="ts">
	import { SHAPE_NAMES, SHAPES, type Shape } from '$core';

	/** What pictures are cut to: none, one shape, or several, each for the readers that like it. */
	let { shapes, set }: { shapes: readonly Shape[]; set: (shapes: readonly Shape[]) => void } = $props();

	const toggle = (shape: Shape) => set(SHAPE_NAMES.filter((name) => (name === shape) !== shapes.includes(name)));
</script>

<div class="choice" role="group" aria-label="What pictures are cut to">
	<span class="quiet">{shapes.length > 0 ? 'Cut to' : 'Whole. Cut to'}</span>
	{#each SHAPE_NAMES as shape (shape)}
		<button aria-pressed={shapes.includes(shape)} title={SHAPES[shape].says} onclick={() => toggle(shape)}>
			<span class="outline" style:aspect-ratio="{SHAPES[shape].width} / {SHAPES[shape].height}"></span>
			{SHAPES[shape].ratio}
		</button>
	{/each}
</div>

<style>
	.choice {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 10px;
		align-items: center;
		width: 100%;
		margin-top: 4px;
		font-size: 12.5px;
	}
	button {
		display: flex;
		gap: 5px;
		align-items: center;
		border-bottom: 2px solid transparent;
		white-space: nowrap;
	}
	.outline {
		height: 13px;
		border: 1.5px solid var(--ink-soft);
	}
	[aria-pressed='true'] {
		border-bottom-color: var(--sea);
		font-weight: 600;
	}
	[aria-pressed='true'] .outline {
		border-color: var(--sea);
		background: var(--sea);
	}
</style>
