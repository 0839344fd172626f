<script lang="ts">
	import { Command as List, Dialog } from 'bits-ui';
	import type { Command } from './command';

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
	const found = $derived.by(() => {
		const words = search.toLowerCase().split(/\s+/).filter(Boolean);
		const fits = ({ name, more }: Command) => {
			const text = `${name} ${more ?? ''}`.toLowerCase();
			return words.every((word) => text.includes(word));
		};
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
	function choose(command: Command) {
		open = false;
		search = '';
		command.run();
	}
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="veil" />
		<Dialog.Content class="palette">
			<Dialog.Title class="sr-only">Go or do</Dialog.Title>
			<List.Root shouldFilter={false} label="Go or do" bind:value={chosen}>
				<List.Input
					class="palette-input"
					aria-controls="palette-results"
					placeholder="A page, a tag, something to do"
					bind:value={search}
				/>
				<List.List class="palette-results" id="palette-results" aria-label="What there is" tabindex={0}>
					<List.Empty class="palette-empty">Nothing has that in its name.</List.Empty>
					{#each found as { group, items } (group)}
						<List.Group>
							<List.GroupHeading class="palette-group">{group}</List.GroupHeading>
							<List.GroupItems>
								{#each items as command (keyOf(command))}
									<List.Item class="palette-item" value={keyOf(command)} onSelect={() => choose(command)}>
										<span class={command.isCode ? 'mono' : command.group === 'Pages' ? 'serif' : ''}
											>{command.name}</span
										>
										<span class="quiet {command.group === 'Pages' ? 'mono' : ''}">{command.more ?? ''}</span>
										{#if command.keys}<kbd>{command.keys}</kbd>{/if}
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

<style>
	:global(.veil) {
		position: fixed;
		z-index: 19;
		inset: 0;
		background: rgb(10 20 18 / 0.35);
	}
	:global(.palette) {
		position: fixed;
		z-index: 20;
		top: 60px;
		left: 50%;
		width: 620px;
		max-width: calc(100vw - 32px);
		border: 1px solid var(--rule-strong);
		border-radius: 4px;
		background: var(--sheet);
		box-shadow: 0 14px 40px rgb(0 0 0 / 0.25);
		transform: translateX(-50%);
	}
	:global(.palette-input) {
		width: 100%;
		border: 0;
		border-bottom: 1px solid var(--rule);
		background: transparent;
		padding: 10px 14px;
		font-size: 15px;
	}
	:global(.palette-results) {
		max-height: 62vh;
		overflow-y: auto;
		padding-bottom: 6px;
	}
	:global(.palette-group) {
		padding: 7px 14px 2px;
		font-size: 12.5px;
		font-weight: 600;
		color: var(--ink-soft);
	}
	:global(.palette-item) {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr) auto;
		gap: 12px;
		align-items: baseline;
		padding: 4px 14px;
		font-size: 13.5px;
		cursor: pointer;
	}
	:global(.palette-item > span) {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	:global(.palette-item .quiet) {
		font-size: 12.5px;
	}
	:global(.palette-item[data-selected]) {
		background: var(--sea-wash);
	}
	:global(.palette-item kbd) {
		font: 11px var(--mono);
		color: var(--ink-soft);
	}
	:global(.palette-empty) {
		padding: 14px;
		color: var(--ink-soft);
	}
</style>
