<script lang="ts">
	import { wording } from '$ui/words/en/parts';
	import { Command as List, Dialog } from 'bits-ui';
	import type { Command } from './command';
	import { over, VEIL } from './looks';
	import { hasTyped } from './shown/typed';

	/** Everything by its name: pages, which the server finds, tags, actions. */
	let {
		open = $bindable(),
		commands,
		findPages
	}: {
		open: boolean;
		commands: readonly Command[];
		/** The pages that have the words, from the server. */
		findPages: (text: string) => Promise<readonly Command[]>;
	} = $props();

	let search = $state('');
	let pages = $state.raw<readonly Command[]>([]);
	/** The server is asked this long (milliseconds) after the last keystroke. */
	const PAUSE = 80;
	$effect(() => {
		if (!open) return;
		const text = search;
		let isCurrent = true;
		// Pages found by other words are not offered meanwhile: Enter would go to one of them.
		pages = [];
		const asking = setTimeout(
			() => void findPages(text).then((found) => isCurrent && (pages = found)),
			text === '' ? 0 : PAUSE
		);
		return () => {
			isCurrent = false;
			clearTimeout(asking);
		};
	});
	const MOST = 40;
	const GROUPS: Readonly<Record<Command['group'], string>> = {
		...{ Do: wording.groupDo, Rooms: wording.groupRooms, Tags: wording.groupTags },
		Pages: wording.groupPages
	};
	const found = $derived.by(() => {
		const fits = ({ name, more }: Command) => hasTyped(search, name, more);
		return (['Do', 'Rooms', 'Tags', 'Pages'] as const)
			.map((group) => ({
				group,
				items: (group === 'Pages' ? pages : commands.filter((one) => one.group === group && fits(one))).slice(
					0,
					search ? MOST : group === 'Tags' ? 0 : 12
				)
			}))
			.filter(({ items }) => items.length > 0);
	});
	const keyOf = ({ group, name, more }: Command) => group + name + (more ?? '');
	/** What Enter takes: the first, whenever the list is another. */
	let chosen = $state('');
	$effect(() => {
		const first = found[0]?.items[0];
		chosen = first ? keyOf(first) : '';
	});
	/** What is on its way brings the focus somewhere itself. */
	let leads = false;
	function choose(command: Command) {
		leads = command.leads === true;
		open = false;
		search = '';
		command.run();
	}
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class={VEIL} />
		<Dialog.Content
			class={over({ size: 'middle' })}
			data-testid="palette"
			onCloseAutoFocus={(event) => {
				if (leads) event.preventDefault();
				leads = false;
			}}
		>
			<Dialog.Title class="sr-only">{wording.goOrDo}</Dialog.Title>
			<List.Root shouldFilter={false} label={wording.goOrDo} bind:value={chosen}>
				<List.Input
					class="w-full rounded-none border-0 border-b border-b-rule bg-transparent px-3.5 py-2.5 text-md"
					data-testid="palette-input"
					aria-controls="palette-results"
					placeholder={wording.aPageATagSomethingToDo}
					bind:value={search}
				/>
				<List.List
					class="max-h-[62vh] overflow-y-auto pb-1.5"
					data-testid="palette-results"
					id="palette-results"
					aria-label={wording.whatThereIs}
					tabindex={0}
				>
					<List.Empty class="p-3.5 text-ink-soft">{wording.nothingHasThatInItsName}</List.Empty>
					{#each found as { group, items } (group)}
						<List.Group>
							<List.GroupHeading class="px-3.5 pt-1.75 pb-0.5 text-sm font-semibold text-ink-soft"
								>{GROUPS[group]}</List.GroupHeading
							>
							<List.GroupItems>
								{#each items as command (keyOf(command))}
									<List.Item
										class="grid cursor-pointer grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)_auto] items-baseline gap-3 px-3.5 py-1 text-base data-selected:bg-sea-wash"
										value={keyOf(command)}
										onSelect={() => choose(command)}
									>
										<span
											class={['truncate', command.isCode ? 'font-mono' : command.group === 'Pages' ? 'font-serif' : '']}
											>{command.name}</span
										>
										<span class={['truncate text-sm text-ink-soft', command.group === 'Pages' && 'font-mono']}
											>{command.more ?? ''}</span
										>
										{#if command.keys}<kbd class="font-mono text-2xs text-ink-soft">{command.keys}</kbd>{/if}
									</List.Item>
								{/each}
							</List.GroupItems>
						</List.Group>
					{/each}
				</List.List>
			</List.Root>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
