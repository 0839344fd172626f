<script lang="ts">
	import { onDestroy, type Component } from 'svelte';
	import { tipOfFocused, tipUnder, type Tip } from './tips';

	/** Says in full what a sign means or what is cut off: by pointer, by keyboard, by a long touch. Once for all rooms. */
	let tip = $state.raw<Tip>();
	let Came = $state.raw<Component<{ tip: Tip; hide: () => void }>>();
	let waiting: ReturnType<typeof setTimeout> | undefined;
	onDestroy(() => clearTimeout(waiting));
	/** So long (milliseconds) a pointer rests before something is said; a finger so long that letting go presses nothing any more. */
	const RESTS = 350;
	const HOLDS = 600;

	/** What is said of an element is found out when it is to be said: pointers pass over many. */
	function show(target: EventTarget | null, find: (target: EventTarget | null) => Tip | undefined, after: number) {
		clearTimeout(waiting);
		if (tip && target instanceof Node && tip.at.contains(target)) return;
		tip = undefined;
		waiting = setTimeout(() => {
			const found = find(target);
			if (!found?.at.isConnected) return;
			void import('./TipShown.svelte').then((shown) => {
				Came = shown.default;
				tip = found;
			});
		}, after);
	}
	function hide() {
		clearTimeout(waiting);
		tip = undefined;
	}
	const isTouch = (event: PointerEvent) => event.pointerType === 'touch';
</script>

<svelte:document
	onpointerover={(event) => !isTouch(event) && show(event.target, tipUnder, RESTS)}
	onpointerdown={(event) => (isTouch(event) ? show(event.target, tipUnder, HOLDS) : hide())}
	onpointerup={(event) => isTouch(event) && clearTimeout(waiting)}
	onpointercancel={hide}
	onpointerleave={hide}
	onfocusin={(event) =>
		event.target instanceof Element && event.target.matches(':focus-visible') && show(event.target, tipOfFocused, 0)}
	onfocusout={hide}
	onkeydown={(event) => event.key !== 'Shift' && hide()}
	onscrollcapture={hide}
/>
{#if Came && tip}
	{#key tip}<Came {tip} {hide} />{/key}
{/if}
