<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import { button } from './looks';

	/** What is chosen among a few, in groups, behind one word; open as it comes. */
	let {
		label,
		groups,
		opens = false
	}: {
		label: string;
		groups: readonly {
			readonly name: string;
			/** Which is chosen. */
			readonly value: string;
			/** Each with its words. */
			readonly choices: Readonly<Record<string, string>>;
			readonly set: (value: string) => void;
		}[];
		/** Open as it comes. */
		opens?: boolean;
	} = $props();
	// svelte-ignore state_referenced_locally
	let open = $state(opens);
</script>

<DropdownMenu.Root bind:open>
	<DropdownMenu.Trigger class={button({ look: 'link' })}>{label}</DropdownMenu.Trigger>
	<!-- In place: in the landmark that its button stands in. -->
	<DropdownMenu.Portal disabled>
		<DropdownMenu.Content
			class="z-20 min-w-45 rounded-sm border border-rule-strong bg-sheet py-1.5 shadow-over"
			sideOffset={4}
			align="end"
		>
			{#each groups as { name, value, choices, set } (name)}
				<DropdownMenu.RadioGroup {value} onValueChange={set}>
					<DropdownMenu.GroupHeading class="px-3.5 pt-1.5 pb-0.5 text-sm font-semibold text-ink-soft">
						{name}
					</DropdownMenu.GroupHeading>
					{#each Object.entries(choices) as [choice, words] (choice)}
						<DropdownMenu.RadioItem
							class="flex cursor-pointer gap-2 px-3.5 py-0.75 data-highlighted:bg-sea-wash"
							value={choice}
							textValue={words}
							closeOnSelect={false}
						>
							{#snippet children({ checked })}
								<span class="w-3 text-sea" aria-hidden="true">{checked ? '✓' : ''}</span>{words}
							{/snippet}
						</DropdownMenu.RadioItem>
					{/each}
				</DropdownMenu.RadioGroup>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
