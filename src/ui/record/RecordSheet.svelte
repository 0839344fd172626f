<script lang="ts">
	import { byWhom } from '$ui/people/byWhom';
	import { Dialog } from 'bits-ui';
	import { call, isRefused } from '$ui/client';
	import { pagesInWords } from '$ui/parts/words';
	import type { History } from '$ui/workspace/history';
	import type { RecordedEdit } from '$server/store/record/record';
	import { editInWords } from './record';

	/** The record of edits, the newest first: what, where, by whom, when; each that stands can be taken back. */
	let {
		open = $bindable(),
		site,
		history
	}: {
		open: boolean;
		site: string;
		history: Pick<History, 'taking' | 'takeBack'>;
	} = $props();
	const taking = $derived(history.taking);

	let edits = $state.raw<readonly RecordedEdit[]>([]);
	let hasMore = $state(false);
	let told = $state('');
	/** So many are asked for at a time. */
	const MOST = 30;

	async function read(before?: number) {
		const found = await call('GET /sites/{site}/edits', { site, query: { limit: MOST, before } });
		if (isRefused(found)) return void (told = found.refused);
		edits = before === undefined ? found.edits : [...edits, ...found.edits];
		hasMore = found.edits.length === MOST;
	}
	$effect(() => {
		if (!open) return;
		told = '';
		asked = undefined;
		void read();
	});
	/** One by which much of the site goes is asked for twice, and the second time says how much. */
	let asked = $state.raw<{ readonly id: number; readonly removes: number } | undefined>();
	async function back(edit: RecordedEdit) {
		const refusal = await history.takeBack(edit.id, asked?.id === edit.id ? asked.removes : undefined);
		told = refusal?.refused ?? `Taken back: ${editInWords(edit)}.`;
		asked = refusal?.removes === undefined ? undefined : { id: edit.id, removes: refusal.removes };
		await read();
	}
	const when = (made: string) => new Date(made).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="veil" />
		<Dialog.Content class="palette record-sheet">
			<Dialog.Title class="keys-title serif">What was changed</Dialog.Title>
			<p class="told" role="status">
				{#if taking.far}{taking.says} <button class="link" onclick={taking.stop}>Stop</button>{:else}{told}{/if}
			</p>
			<!-- It scrolls: the keys reach it. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<ol tabindex="0" aria-label="Edits, the newest first">
				{#each edits as edit (edit.id)}
					<li class:undone={edit.isBack}>
						<span class="what">{editInWords(edit)}</span>
						<span class="quiet">{when(edit.made)}, by {byWhom(edit.author)}{edit.isBack ? ', taken back' : ''}</span>
						{#if !edit.isBack && edit.takesBack === null}
							<button
								class="plain-button"
								aria-label="Take back: {editInWords(edit)}"
								disabled={taking.far !== undefined}
								onclick={() => back(edit)}
								>{asked?.id === edit.id ? `Take it back: ${pagesInWords(asked.removes)} go` : 'Take back'}</button
							>
						{/if}
					</li>
				{:else}
					<li>Nothing was changed yet.</li>
				{/each}
			</ol>
			<p class="row">
				{#if hasMore}<button class="plain-button" onclick={() => read(edits.at(-1)?.id)}>Earlier ones</button>{/if}
				<Dialog.Close class="plain-button">Close</Dialog.Close>
			</p>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	:global(.record-sheet) {
		display: flex;
		flex-direction: column;
		max-height: 80vh;
		padding: 16px 20px;
	}
	ol {
		overflow-y: auto;
		margin-bottom: 12px;
		font-size: 13.5px;
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		align-items: center;
		gap: 2px 12px;
		border-top: 1px solid var(--rule);
		padding: 7px 2px;
	}
	.what {
		overflow-wrap: anywhere;
	}
	li .quiet {
		grid-column: 1;
		font-size: 12.5px;
	}
	li button {
		grid-row: 1 / span 2;
		grid-column: 2;
	}
	.undone .what {
		text-decoration: line-through;
	}
	.told {
		min-height: 20px;
		font-size: 13.5px;
	}
	.row {
		display: flex;
		gap: 8px;
	}
</style>
