<script lang="ts" generics="V extends string">
	import { onDestroy, type Component } from 'svelte';
	import { select, type SelectLook } from '../looks';
	import { isHeld, isLetter, nextBy, SEARCHED_ABOVE, wordsFor, type Choice, type ListProps } from './choices';

	/** One of a few; of many, searched by typing. The list comes when somebody turns to it. */
	let {
		value,
		choices,
		set,
		look = 'plain',
		class: more = '',
		...named
	}: {
		value: V;
		choices: readonly Choice<V>[];
		set: (value: V) => void;
		/** What it is at its place. */
		look?: SelectLook;
		class?: string;
		id?: string;
		'data-tip'?: string;
		disabled?: boolean;
		'aria-label'?: string;
		'aria-invalid'?: boolean;
	} = $props();

	let Came = $state.raw<Component<ListProps>>();
	let opens = $state(false);
	let takes = $state(false);
	let plain = $state<HTMLElement>();
	let isHere = true;
	onDestroy(() => (isHere = false));
	async function bring() {
		const list = await (choices.length > SEARCHED_ABOVE
			? import('./SearchedList.svelte')
			: import('./OpenList.svelte'));
		if (!isHere) return;
		takes = document.activeElement === plain;
		Came = list.default;
	}
	function open(event: Event) {
		event.preventDefault();
		plain?.focus();
		opens = true;
		void bring();
	}
	/** A finger that only scrolls past opens nothing: it is open when it was let go. */
	const isTouch = (event: Event) => (event as PointerEvent).pointerType === 'touch';
	const OPENS = ['Enter', ' ', 'ArrowDown', 'ArrowUp'];
	/** A letter goes to the next choice that begins with it, as soon as one stands here. */
	function onkeydown(event: KeyboardEvent) {
		if (isHeld(event)) return;
		if (OPENS.includes(event.key)) return open(event);
		const next = isLetter(event) ? nextBy(choices, value, event.key) : undefined;
		if (next !== undefined) set(next);
	}
	const trigger = $derived({ ...named, class: [select({ look }), more], 'data-select': '', 'data-value': value });
</script>

{#if Came}
	<Came {value} {choices} set={(chosen) => set(chosen as V)} {opens} {takes} {trigger} />
{:else}
	<button
		bind:this={plain}
		{...trigger}
		type="button"
		role="combobox"
		aria-haspopup="listbox"
		aria-expanded="false"
		aria-controls={undefined}
		onpointerenter={bring}
		onfocus={bring}
		onpointerdown={(event) => event.button === 0 && event.pointerType !== 'touch' && open(event)}
		onclick={(event) => isTouch(event) && open(event)}
		{onkeydown}
	>
		<span class="truncate">{wordsFor(choices, value)}</span><span class="sign" aria-hidden="true">▾</span>
	</button>
{/if}
