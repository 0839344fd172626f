<script lang="ts">
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
	let sheet = $state<HTMLDialogElement>();
	$effect(() => {
		if (told || refused) sheet?.showModal();
		else sheet?.close();
	});

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
<dialog class="csv-back" aria-label="What the table would change" bind:this={sheet} onclose={close}>
	<h2>{file?.name}</h2>
	{#if refused}
		<p role="alert">{refused}</p>
		<button class="plain-button" onclick={close}>Close</button>
	{/if}
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
		{#each told.wrong as { line, why } (why)}<p class="odd">Row {line}: {why}.</p>{/each}
		<p class="actions">
			<button class="main-button" disabled={busy || told.count === 0} onclick={() => void keep()}
				>Keep the changes</button
			>
			<button class="plain-button" onclick={close}>Leave it</button>
		</p>
	{/if}
</dialog>

<style>
	.csv-back {
		margin: auto;
		border: 1px solid var(--rule-strong);
		border-radius: 4px;
		background: var(--sheet);
		padding: 16px 20px;
		width: min(760px, 92vw);
		max-height: 80vh;
		color: var(--ink);
	}
	.csv-back::backdrop {
		background: rgb(0 0 0 / 45%);
	}
	h2 {
		font-size: 17px;
		font-weight: 600;
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
