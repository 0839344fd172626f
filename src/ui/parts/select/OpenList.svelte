<script lang="ts">
	import { Select } from 'bits-ui';
	import { onMount } from 'svelte';
	import { landmarkOf } from '../shown/landmark';
	import { LIST, LIST_ITEM } from '../looks';
	import { besidesHeld, valueOf, wordsFor, wordsOf, type ListProps } from './choices';

	/** The list of a select, once somebody turned to it. */
	let { value, choices, set, opens, takes, trigger }: ListProps = $props();
	let open = $state(false);
	let button = $state<HTMLElement | null>(null);
	onMount(() => {
		if (takes) button?.focus();
		open = opens;
	});
	/** By their places: an empty value is one, too. */
	const items = $derived(choices.map((choice, at) => ({ value: String(at), label: wordsOf(choice) })));
	const at = $derived(String(choices.findIndex((choice) => valueOf(choice) === value)));
</script>

<Select.Root
	type="single"
	bind:value={
		() => at,
		(chosen) => {
			const choice = choices[Number(chosen)];
			if (choice !== undefined) set(valueOf(choice));
		}
	}
	bind:open
	{items}
	disabled={trigger.disabled === true}
>
	<Select.Trigger {...trigger} bind:ref={button}>
		{#snippet child({ props })}
			<button {...props} onkeydown={besidesHeld(props.onkeydown)}>
				<span class="truncate">{wordsFor(choices, value)}</span><span class="sign" aria-hidden="true">▾</span>
			</button>
		{/snippet}
	</Select.Trigger>
	<Select.Portal to={landmarkOf(button)}>
		<Select.Content strategy="fixed" class={LIST} sideOffset={3} align="start" collisionPadding={8}>
			<Select.Viewport>
				{#each items as { value: place, label } (place)}
					<Select.Item
						class={[LIST_ITEM, 'data-highlighted:bg-sea-wash']}
						value={place}
						{label}
						data-choice={valueOf(choices[Number(place)] ?? '')}
					>
						{#snippet children({ selected })}
							<span class="w-3 flex-none text-sea" aria-hidden="true">{selected ? '✓' : ''}</span>{label}
						{/snippet}
					</Select.Item>
				{/each}
			</Select.Viewport>
		</Select.Content>
	</Select.Portal>
</Select.Root>
