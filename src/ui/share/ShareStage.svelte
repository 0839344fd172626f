<script lang="ts">
	import { wording } from '$ui/words/en/share';
	import { CANVAS, type Box, type ShareLayout } from '$core';
	import { inCanvas, PART_NAMES, PARTS, resized, withPart, type Part } from './shareLayout';

	/**
	 * The share picture of the page in view, large, with its parts in their boxes: dragged by pointer, or moved by the
	 * arrow keys, made larger and smaller at the corner or with Shift.
	 */
	let {
		layout,
		src,
		alt,
		chosen = $bindable(),
		set
	}: {
		layout: ShareLayout;
		/** The picture as it was drawn last. */
		src: string;
		alt: string;
		chosen: Part;
		set: (layout: ShareLayout) => void;
	} = $props();

	/** What the pointer holds: a part, by its middle or its corner, and where it was taken. */
	let held: { part: Part; corner: boolean; box: Box; x: number; y: number } | undefined;
	let stage: HTMLElement | undefined = $state();
	const scale = () => CANVAS.width / (stage?.getBoundingClientRect().width ?? CANVAS.width);
	const put = (part: Part, { x, y, width, height }: Box) => set(withPart(layout, part, { x, y, width, height }));

	function take(event: PointerEvent & { currentTarget: HTMLElement }, part: Part) {
		const box = layout[part];
		if (event.button !== 0 || !box) return;
		event.currentTarget.setPointerCapture(event.pointerId);
		chosen = part;
		const corner = (event.target as HTMLElement).dataset.corner !== undefined;
		held = { part, corner, box, x: event.clientX, y: event.clientY };
	}
	function drag(event: PointerEvent) {
		if (!held) return;
		const { box, part } = held;
		const [dx, dy] = [(event.clientX - held.x) * scale(), (event.clientY - held.y) * scale()];
		put(
			part,
			held.corner ? resized(box, box.width + dx, box.height + dy) : inCanvas({ ...box, x: box.x + dx, y: box.y + dy })
		);
	}
	const STEPS: Readonly<Record<string, readonly [number, number]>> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1]
	};
	/** Pixels for each press of a key. */
	const STEP = 6;
	function onkeydown(event: KeyboardEvent, part: Part) {
		const step = STEPS[event.key];
		const box = layout[part];
		if (!step || !box || event.altKey || event.ctrlKey || event.metaKey) return;
		event.preventDefault();
		const [dx, dy] = [step[0] * STEP, step[1] * STEP];
		put(
			part,
			event.shiftKey
				? resized(box, box.width + dx, box.height + dy)
				: inCanvas({ ...box, x: box.x + dx, y: box.y + dy })
		);
	}
	const place = ({ x, y, width, height }: Box) =>
		`left:${(x / CANVAS.width) * 100}%;top:${(y / CANVAS.height) * 100}%;width:${(width / CANVAS.width) * 100}%;height:${(height / CANVAS.height) * 100}%`;
</script>

<div
	class="relative aspect-[1200/630] w-full overflow-hidden bg-sunk outline-1 outline-rule-strong"
	bind:this={stage}
	data-testid="stage"
>
	{#if src}<img class="h-full w-full" {src} {alt} data-testid="share" />{:else}<p class="p-4 text-ink-soft">
			{wording.beingDrawn}
		</p>{/if}
	{#each PARTS as part (part)}
		{@const box = layout[part]}
		{#if box}
			<button
				class="absolute z-1 cursor-move touch-none hover:shadow-[0_0_0_2px_rgb(16_32_29/0.75)] hover:outline-2 hover:outline-paper hover:outline-dashed focus-visible:outline-3 focus-visible:outline-focus [&.back]:z-0 [&.chosen]:shadow-[0_0_0_2px_rgb(16_32_29/0.75)] [&.chosen]:outline-2 [&.chosen]:outline-paper [&.chosen]:outline-dashed"
				class:chosen={chosen === part}
				class:back={part === 'picture'}
				style={place(box)}
				data-part={part}
				aria-label={wording.byAt(
					PART_NAMES[part],
					Math.round(box.width),
					Math.round(box.height),
					Math.round(box.x),
					Math.round(box.y)
				)}
				aria-pressed={chosen === part}
				onfocus={() => (chosen = part)}
				onpointerdown={(event) => take(event, part)}
				onpointermove={drag}
				onpointerup={() => (held = undefined)}
				onpointercancel={() => (held = undefined)}
				onkeydown={(event) => onkeydown(event, part)}
			>
				<span
					class="name absolute top-0 left-0 bg-[rgb(16_32_29/0.85)] px-1.5 py-0 text-2xs text-paper opacity-0 in-[.chosen]:opacity-100 in-[:focus-visible]:opacity-100 in-[:hover]:opacity-100"
					>{PART_NAMES[part]}</span
				>
				<span
					class="absolute right-0 bottom-0 h-4 w-4 [cursor:nwse-resize] border-t-0 border-r-4 border-b-4 border-l-0 opacity-0 shadow-[1px_1px_0_#10201d] [border:solid_#fff] in-[.chosen]:opacity-100 in-[:focus-visible]:opacity-100 in-[:hover]:opacity-100"
					data-corner
				></span>
			</button>
		{/if}
	{/each}
</div>
