<script lang="ts">
	import { wording } from '$ui/words/en/parts';
	import { Command, Popover } from 'bits-ui';
	import { onMount } from 'svelte';
	import { landmarkOf } from '../shown/landmark';
	import { LIST, LIST_ITEM } from '../looks';
	import { besidesHeld, foundIn, isLetter, valueOf, wordsFor, wordsOf, type ListProps } from './choices';

	/** The list of a select with many choices: one types what one looks for. */
	let { value, choices, set, opens, takes, trigger }: ListProps = $props();
	let open = $state(false);
	let typed = $state('');
	let button = $state<HTMLElement | null>(null);
	onMount(() => {
		if (takes) button?.focus();
		open = opens;
	});
	const found = $derived(foundIn(choices, typed));
	/** What Enter takes: what is chosen now, else the first that was found. */
	let marked = $state('');
	$effect(() => {
		const now = typed === '' ? choices.findIndex((choice) => valueOf(choice) === value) : -1;
		marked = String(now >= 0 ? now : (found[0] ?? ''));
	});
	function show(now: boolean) {
		open = now;
		typed = '';
	}
	function take(at: number) {
		const choice = choices[at];
		show(false);
		if (choice !== undefined) set(valueOf(choice));
	}
	const OPENS = ['ArrowDown', 'ArrowUp'];
	const id = $props.id();
</script>

<Popover.Root bind:open={() => open, show}>
	<Popover.Trigger
		{...trigger}
		bind:ref={button}
		onkeydown={(event: KeyboardEvent) => {
			if (!OPENS.includes(event.key) && !isLetter(event)) return;
			event.preventDefault();
			open = true;
			if (isLetter(event)) typed = event.key;
		}}
	>
		{#snippet child({ props })}
			<button
				{...props}
				onkeydown={besidesHeld(props.onkeydown)}
				role="combobox"
				aria-haspopup="listbox"
				aria-controls={open ? id : undefined}
			>
				<span class="truncate">{wordsFor(choices, value)}</span><span class="sign" aria-hidden="true">▾</span>
			</button>
		{/snippet}
	</Popover.Trigger>
	<Popover.Portal to={landmarkOf(button)}>
		<Popover.Content strategy="fixed" class={[LIST, 'w-64']} sideOffset={3} align="start" collisionPadding={8}>
			<Command.Root shouldFilter={false} label={wording.searchAmong(choices.length)} bind:value={marked} loop>
				<Command.Input
					class="mb-1 w-full rounded-none border-0 border-b border-b-rule bg-transparent px-2.5 pb-1.5 -outline-offset-2"
					aria-controls={id}
					aria-label={wording.searchAmong(choices.length)}
					placeholder={wording.searchAmong(choices.length)}
					bind:value={typed}
				/>
				<Command.List class="max-h-66 overflow-y-auto" {id} aria-label={wording.whatThereIs} tabindex={0}>
					<Command.Viewport>
						{#each found as at (at)}
							{@const choice = choices[at] ?? ''}
							<Command.Item
								class={[LIST_ITEM, 'data-selected:bg-sea-wash']}
								value={String(at)}
								data-choice={valueOf(choice)}
								onSelect={() => take(at)}
							>
								<span class="w-3 flex-none text-sea" aria-hidden="true">{valueOf(choice) === value ? '✓' : ''}</span
								>{wordsOf(choice)}
							</Command.Item>
						{:else}
							<p class="px-2.5 py-1 text-ink-soft">{wording.nothingHasThatInItsName}</p>
						{/each}
					</Command.Viewport>
				</Command.List>
			</Command.Root>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
