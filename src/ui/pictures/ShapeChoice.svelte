<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import { SHAPE_NAMES, SHAPES, type Shape, labelled } from '$core';

	/** What pictures are cut to: none, one shape, or several, each for the readers that like it. */
	let { shapes, set }: { shapes: readonly Shape[]; set: (shapes: readonly Shape[]) => void } = $props();

	const toggle = (shape: Shape) => set(SHAPE_NAMES.filter((name) => (name === shape) !== shapes.includes(name)));
</script>

<div
	class="choice mt-1 flex w-full flex-wrap items-center gap-x-2.5 gap-y-1 text-sm"
	role="group"
	aria-label={wording.whatPicturesAreCutTo}
>
	<span class="text-ink-soft">{shapes.length > 0 ? wording.cutTo : wording.wholeCutTo}</span>
	{#each SHAPE_NAMES as shape (shape)}
		<button
			class="flex items-center gap-1.25 border-b-2 border-b-transparent whitespace-nowrap aria-pressed:border-b-sea aria-pressed:font-semibold"
			aria-pressed={shapes.includes(shape)}
			data-tip={labelled(SHAPES[shape].says)}
			onclick={() => toggle(shape)}
		>
			<span
				class="h-3.25 border-[1.5px] border-ink-soft in-[[aria-pressed='true']]:border-sea in-[[aria-pressed='true']]:bg-sea"
				style:aspect-ratio="{SHAPES[shape].width} / {SHAPES[shape].height}"
			></span>
			{SHAPES[shape].ratio}
		</button>
	{/each}
</div>
