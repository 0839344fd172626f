<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import type { Area } from '$core';

	/**
	 * The whole picture with the point that stays in view: set by pointer, or by the arrow keys, one hundredth at a time,
	 * with Shift a tenth. Over it lie the part that is cut out, and what seems to be text and faces.
	 */
	let {
		src,
		alt,
		focus,
		box,
		text = [],
		faces = [],
		move
	}: {
		src: string;
		alt: string;
		focus: readonly [number, number];
		/** The part that is cut out, as shares of the sides. */
		box: Area | undefined;
		text?: readonly Area[] | undefined;
		faces?: readonly Area[] | undefined;
		move: (focus: [number, number]) => void;
	} = $props();

	const inside = (share: number) => Math.round(Math.min(1, Math.max(0, share)) * 1000) / 1000;
	const percent = (share: number) => `${Math.round(share * 100)} %`;
	const place = ([left, top, width, height]: Area) =>
		`left:${left * 100}%;top:${top * 100}%;width:${width * 100}%;height:${height * 100}%`;
	let isHeld = $state(false);

	function follow(event: PointerEvent & { currentTarget: HTMLElement }) {
		const area = event.currentTarget.getBoundingClientRect();
		move([inside((event.clientX - area.left) / area.width), inside((event.clientY - area.top) / area.height)]);
	}
	function onpointerdown(event: PointerEvent & { currentTarget: HTMLElement }) {
		if (event.button !== 0) return;
		event.currentTarget.setPointerCapture(event.pointerId);
		isHeld = true;
		follow(event);
	}
	const STEPS: Readonly<Record<string, readonly [number, number]>> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1]
	};
	function onkeydown(event: KeyboardEvent) {
		const step = STEPS[event.key];
		if (!step || event.altKey || event.ctrlKey || event.metaKey) return;
		event.preventDefault();
		const by = event.shiftKey ? 0.1 : 0.01;
		move([inside(focus[0] + step[0] * by), inside(focus[1] + step[1] * by)]);
	}
</script>

<div
	class="relative w-fit max-w-full cursor-crosshair touch-none overflow-hidden bg-sunk select-none"
	role="slider"
	tabindex="0"
	aria-label={wording.thePointThatStaysInView}
	aria-valuemin="0"
	aria-valuemax="100"
	aria-valuenow={Math.round(focus[0] * 100)}
	aria-valuetext={wording.fromTheLeftFromTheTop(percent(focus[0]), percent(focus[1]))}
	data-testid="focus"
	{onpointerdown}
	onpointermove={(event) => isHeld && follow(event)}
	onpointerup={() => (isHeld = false)}
	onpointercancel={() => (isHeld = false)}
	{onkeydown}
>
	<img class="max-h-[min(420px,52vh)] max-w-full" {src} {alt} draggable="false" />
	{#if box}<span
			class="box pointer-events-none absolute shadow-[0_0_0_9999px_rgb(10_20_18/0.55)] outline-1 outline-paper"
			style={place(box)}
		></span>{/if}
	{#each text as area, at (at)}<span
			class="text pointer-events-none absolute border border-dashed border-paper [background:repeating-linear-gradient(135deg,transparent_0_5px,rgb(161_61_16/0.55)_5px_7px)]"
			style={place(area)}
		></span>{/each}
	{#each faces as area, at (at)}<span
			class="pointer-events-none absolute rounded-full border-2 border-dotted border-paper shadow-[0_0_0_1px_rgb(0_0_0/0.5)]"
			style={place(area)}
		></span>{/each}
	<span
		class="pointer-events-none absolute h-6.5 w-6.5 [transform:translate(-50%,-50%)] rounded-full border-2 border-paper shadow-[0_0_0_1.5px_#10201d,inset_0_0_0_1.5px_#10201d] after:absolute after:inset-2 after:rounded-full after:bg-paper after:shadow-[0_0_0_1.5px_#10201d] after:content-['']"
		style:left="{focus[0] * 100}%"
		style:top="{focus[1] * 100}%"
	></span>
</div>
