<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import { button } from './looks';
	import type { MenuGroup } from './actionMenu';

	/** What is seldom done, in groups, behind one word; each with its key. `opens` as it comes. */
	let { label, groups, opens = false }: { label: string; groups: readonly MenuGroup[]; opens?: boolean } = $props();
	// svelte-ignore state_referenced_locally
	let open = $state(opens);
</script>

<DropdownMenu.Root bind:open>
	<DropdownMenu.Trigger class={button({ look: 'plain' })}>{label}</DropdownMenu.Trigger>
	<!-- In place: in the landmark that its button stands in. -->
	<DropdownMenu.Portal disabled>
		<DropdownMenu.Content
			class="z-20 max-h-[80vh] min-w-65 overflow-y-auto rounded-sm border border-rule-strong bg-sheet py-1.5 shadow-over"
			sideOffset={4}
			align="start"
			collisionPadding={8}
		>
			{#each groups as { name, items } (name)}
				<DropdownMenu.Group>
					<DropdownMenu.GroupHeading class="px-3.5 pt-1.5 pb-0.5 text-sm font-semibold text-ink-soft">
						{name}
					</DropdownMenu.GroupHeading>
					{#each items as { says, keys, run } (says)}
						<DropdownMenu.Item
							class="flex cursor-pointer items-baseline gap-6 px-3.5 py-0.75 data-highlighted:bg-sea-wash"
							textValue={says}
							onSelect={run}
						>
							{says}{#if keys}<kbd class="ml-auto font-mono text-2xs text-ink-soft not-italic">{keys}</kbd>{/if}
						</DropdownMenu.Item>
					{/each}
				</DropdownMenu.Group>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
