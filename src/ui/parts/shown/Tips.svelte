<script lang="ts">
	import { onDestroy, type Component } from 'svelte';
	import { tipOfFocused, tipUnder, type Tip } from './tips';

	/** Says in full what a sign means or what is cut off: by pointer, by keyboard, by a long touch. Once for all rooms. */
	let tip = $state.raw<Tip>();
	let Came = $state.raw<Component<{ tip: Tip; hide: () => void }>>();
	let waiting: ReturnType<typeof setTimeout> | undefined;
	onDestroy(() => clearTimeout(waiting));
	/** So long (milliseconds) a pointer rests, or a finger, before something is said. */
	const RESTS = 350;

	function show(found: Tip | undefined, after: number) {
		clearTimeout(waiting);
		if (found?.at === tip?.at) return;
		tip = undefined;
		if (!found) return;
		waiting = setTimeout(() => {
			if (!found.at.isConnected) return;
			void import('./TipShown.svelte').then((shown) => {
				Came = shown.default;
				tip = found;
			});
		}, after);
	}
	const hide = () => show(undefined, 0);
	const isTouch = (event: PointerEvent) => event.pointerType === 'touch';
</script>

<svelte:document
	onpointerover={(event) => !isTouch(event) && show(tipUnder(event.target), RESTS)}
	onpointerdown={(event) => (isTouch(event) ? show(tipUnder(event.target), RESTS) : hide())}
	onpointerup={(event) => isTouch(event) && clearTimeout(waiting)}
	onpointercancel={hide}
	onpointerleave={hide}
	onfocusin={(event) =>
		event.target instanceof Element && event.target.matches(':focus-visible') && show(tipOfFocused(event.target), 0)}
	onfocusout={hide}
	onkeydown={(event) => event.key !== 'Shift' && hide()}
	onscrollcapture={hide}
/>
{#if Came && tip}
	{#key tip}<Came {tip} {hide} />{/key}
{/if}
