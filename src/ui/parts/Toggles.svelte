<script lang="ts" generics="V extends string">
	import { ToggleGroup } from 'bits-ui';

	/** One of a few views or parts, side by side: the Tab key comes to them once, arrows go on within. */
	let {
		label,
		value,
		choices,
		set,
		class: more = ''
	}: {
		label: string;
		value: V;
		/** Each with its words. */
		choices: readonly (readonly [value: V, words: string])[];
		set: (value: V) => void;
		class?: string;
	} = $props();
</script>

<!-- What is chosen is not let go by being pressed again: something is always shown. -->
<ToggleGroup.Root
	type="single"
	class={['flex flex-wrap gap-x-3.5 gap-y-1', more]}
	aria-label={label}
	bind:value={
		() => String(choices.findIndex(([choice]) => choice === value)),
		(place) => {
			const chosen = choices[Number(place)];
			if (place !== '' && chosen) set(chosen[0]);
		}
	}
>
	<!-- By their places: an empty value is one, too. -->
	{#each choices as [choice, words], place (choice)}
		<ToggleGroup.Item
			value={String(place)}
			class="border-b-2 border-b-transparent px-px py-0.5 text-ink-soft data-[state=on]:border-b-sea data-[state=on]:font-semibold data-[state=on]:text-ink"
			>{words}</ToggleGroup.Item
		>
	{/each}
</ToggleGroup.Root>
