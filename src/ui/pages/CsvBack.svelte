<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { isRefused } from '../api';
	import * as api from './api';
	import type { CsvTold } from './api';

	/** A table that was put out and changed elsewhere comes back: what it would do is shown first. */
	let { site, done }: { site: string; done: (told: string, edit: number | undefined) => void } = $props();

	let file = $state<File | undefined>();
	let told = $state<CsvTold | undefined>();
	let refused = $state('');
	let busy = $state(false);
	let chooser = $state<HTMLInputElement>();
	const isOpen = $derived(told !== undefined || refused !== '');

	async function look(event: Event & { currentTarget: HTMLInputElement }) {
		file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		const answer = await api.tryCsv(site, file);
		refused = isRefused(answer) ? answer.refused : '';
		told = isRefused(answer) ? undefined : answer;
	}
	async function keep() {
		if (!file) return;
		busy = true;
		const answer = await api.readCsv(site, file);
		busy = false;
		if (isRefused(answer)) return void (refused = answer.refused);
		close();
		done(`${answer.changed} cells were read back, as one edit.`, answer.edit);
	}
	function close() {
		[told, refused, file] = [undefined, '', undefined];
	}
</script>

<button class="plain-button" onclick={() => chooser?.click()}>Back in …</button>
<input
	class="sr-only"
	type="file"
	accept=".csv,text/csv"
	aria-label="A CSV file that was put out here"
	tabindex="-1"
	bind:this={chooser}
	onchange={look}
/>
<Dialog.Root bind:open={() => isOpen, (open) => !open && close()}>
	<Dialog.Portal>
		<Dialog.Overlay class="veil" />
		<Dialog.Content class="palette csv-back">
			<Dialog.Title class="serif">{file?.name}</Dialog.Title>
			{#if refused}<p role="alert">{refused}</p>{/if}
			{#if told}
				<p>
					{told.rows.toLocaleString('en')} rows: <strong>{told.count.toLocaleString('en')} cells would change</strong>, {told.unchanged.toLocaleString(
						'en'
					)} rows are as they were.
				</p>
				<ul>
					{#each told.changes as { line, path, tag, before, after } (`${line} ${tag}`)}
						<li>
							<span class="mono">{path}</span>
							{tag}: <s>{before || 'nothing'}</s> → <span class="serif">{after || 'set back'}</span>
						</li>
					{/each}
					{#if told.count > told.changes.length}<li class="quiet">
							… and {told.count - told.changes.length} more
						</li>{/if}
				</ul>
				{#each told.conflicts as { line, path, tag, here, there } (`${line} ${tag}`)}
					<p class="odd">Row {line}, {path}, {tag} was changed here since: “{here}” stays, “{there}” is left.</p>
				{/each}
				{#each told.unknown as { line, path } (line)}<p class="odd">Row {line}: there is no page {path}.</p>{/each}
				{#each told.refused as { line, why } (why)}<p class="odd">Row {line}: {why}.</p>{/each}
				<p class="actions">
					<button class="main-button" disabled={busy || told.count === 0} onclick={() => void keep()}
						>Keep the changes</button
					>
					<Dialog.Close class="plain-button">Leave it</Dialog.Close>
				</p>
			{/if}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<style>
	:global(.csv-back) {
		overflow-y: auto;
		max-height: 80vh;
		padding: 16px 20px;
	}
	ul {
		margin: 8px 0;
		font-size: 13px;
	}
	li {
		border-top: 1px solid var(--rule);
		padding: 3px 0;
	}
	.odd {
		font-size: 13px;
		color: var(--flag);
	}
	.actions {
		display: flex;
		gap: 10px;
		margin-top: 12px;
	}
</style>
