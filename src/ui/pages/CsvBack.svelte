<script lang="ts">
	import { follow, isRefused, type Watching } from '../client';
	import type { CsvTold } from '$server/exports/csv';
	import { beyondInWords, ENDINGS } from './words';

	/** A table that was put out and changed elsewhere comes back: what it would do is shown first. */
	let { site, done }: { site: string; done: (told: string, edit: number | undefined) => void } = $props();

	let file = $state<File | undefined>();
	let told = $state<CsvTold | undefined>();
	let refused = $state('');
	/** Whether cells that look rewritten by a spreadsheet are taken, too. */
	let takesRewritten = $state(false);
	/** What is going on, over how many rows it has been, and how it is stopped. */
	let doing = $state.raw<{ readonly what: 'comparing' | 'keeping'; readonly stop: AbortController } | undefined>();
	let seen = $state(0);
	let chooser = $state<HTMLInputElement>();
	let sheet = $state<HTMLDialogElement>();
	$effect(() => {
		if (file) sheet?.showModal();
		else sheet?.close();
	});

	const number = (count: number) => count.toLocaleString('en');
	const cells = (count: number) => `${number(count)} ${count === 1 ? 'cell' : 'cells'}`;
	/** What the changes are, in words: how many are new, other words, or taken away. */
	function kindsOf({ changes, anew, setBack }: CsvTold): string {
		const other = changes.count - anew - setBack;
		const kinds = [
			[anew, 'where a page said nothing itself'],
			[other, 'with other words'],
			[setBack, 'set back']
		] as const;
		return kinds
			.filter(([count]) => count > 0)
			.map(([count, what]) => `${number(count)} ${what}`)
			.join(', ');
	}
	const REASONS = {
		rewritten: 'Looks rewritten by a spreadsheet: stays as it is here',
		conflict: 'Changed here since the table was put out: stays as it is here',
		wrong: 'Cannot be written: left',
		shown: 'Written in a column that only shows: not read',
		unknown: 'No such page: left'
	} as const;
	const reasons = Object.entries(REASONS) as [keyof typeof REASONS, string][];

	async function look(event: Event & { currentTarget: HTMLInputElement }) {
		const chosen = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!chosen) return;
		[file, takesRewritten] = [chosen, false];
		await compare(chosen);
	}
	async function compare(chosen: File) {
		const query = takesRewritten ? { rewritten: '1' as const } : {};
		const answer = await watching('comparing', (how) =>
			follow('POST /sites/{site}/csv/comparison', { site, query, bytes: chosen }, how, ENDINGS)
		);
		// It may have been closed meanwhile, or asked otherwise.
		if (file !== chosen || takesRewritten !== 'rewritten' in query) return;
		refused = isRefused(answer) ? answer.refused : '';
		told = isRefused(answer) ? undefined : answer;
	}
	async function watching<T>(what: 'comparing' | 'keeping', work: (how: Watching) => Promise<T>): Promise<T> {
		const stop = new AbortController();
		[doing, seen] = [{ what, stop }, 0];
		const result = await work({ signal: stop.signal, progress: (done) => (seen = done) });
		if (doing.stop === stop) doing = undefined;
		return result;
	}
	async function keep() {
		const kept = file;
		if (!kept) return;
		const query = takesRewritten ? { rewritten: '1' as const } : {};
		const answer = await watching('keeping', (how) =>
			follow('POST /sites/{site}/csv', { site, query, bytes: kept }, how, ENDINGS)
		);
		if (isRefused(answer)) {
			[told, refused] = [undefined, answer.refused];
			return;
		}
		close();
		const { changes, left } = answer.told;
		const stayed = reasons.reduce((sum, [reason]) => sum + left[reason].count, 0);
		done(
			`${cells(changes.count)} ${changes.count === 1 ? 'was' : 'were'} read back, as one edit.${stayed > 0 ? ` ${number(stayed)} ${stayed === 1 ? 'was' : 'were'} left.` : ''}`,
			answer.edit
		);
	}
	function close() {
		if (doing?.what === 'comparing') doing.stop.abort();
		[told, refused, file] = [undefined, '', undefined];
	}
</script>

<button class="plain-button" onclick={() => chooser?.click()}>Back in …</button>
<input
	class="sr-only"
	type="file"
	accept=".csv,.xlsx,text/csv"
	aria-label="A table that was put out here"
	tabindex="-1"
	bind:this={chooser}
	onchange={look}
/>
<dialog class="csv-back" aria-label="What the table would change" bind:this={sheet} onclose={close}>
	<h2>{file?.name}</h2>
	{#if refused}
		<p role="alert">{refused}</p>
		<p class="actions"><button class="plain-button" onclick={close}>Close</button></p>
	{:else if told}
		<p>
			{number(told.rows)}
			{told.rows === 1 ? 'row' : 'rows'}: <strong>{cells(told.changes.count)} would change</strong>{told.changes.count >
			0
				? ` (${kindsOf(told)})`
				: ''}, {number(told.unchanged)}
			{told.unchanged === 1 ? 'row is as it was' : 'rows are as they were'}.
		</p>
		{#if told.beyond > 0}<p role="alert">{beyondInWords(told.beyond)}</p>{/if}
		<p class="actions">
			{#if doing?.what === 'keeping'}
				<progress max={told.rows} value={seen} aria-label="Rows read"></progress>
				{number(seen)} of {number(told.rows)} rows
				<button class="plain-button" onclick={() => doing?.stop.abort()}>Stop</button>
			{:else}
				<button
					class="main-button"
					disabled={told.changes.count === 0 || told.beyond > 0 || doing !== undefined}
					onclick={() => void keep()}>Keep the changes</button
				>
				<button class="plain-button" onclick={close}>Leave it</button>
			{/if}
		</p>
		{#if told.left.rewritten.count > 0 || takesRewritten}
			<label class="decide">
				<input type="checkbox" bind:checked={takesRewritten} onchange={() => file && void compare(file)} />
				{takesRewritten
					? 'What looks rewritten by a spreadsheet is taken, too'
					: `Take the ${cells(told.left.rewritten.count)} that ${told.left.rewritten.count === 1 ? 'looks' : 'look'} rewritten by a spreadsheet, too`}
			</label>
		{/if}
		{#each reasons as [reason, words] (reason)}
			{@const left = told.left[reason]}
			{#if left.count > 0}
				<h3>{words} ({number(left.count)})</h3>
				<ul>
					{#each left.first as { line, path, why }, at (at)}
						<li>Line {line}, <span class="mono">{path}</span>: {why}</li>
					{/each}
					{@render more(left)}
				</ul>
			{/if}
		{/each}
		{#if told.changes.count > 0}
			<h3 class="changes">What would change ({number(told.changes.count)})</h3>
			<ul>
				{#each told.changes.first as { line, path, tag, before, after } (`${line} ${tag}`)}
					<li>
						<span class="mono">{path}</span>
						{tag}: {#if before}<s>{before}</s> →
						{:else}now by its template →
						{/if}<span class="serif">{after || 'by its template again'}</span>
					</li>
				{/each}
				{@render more(told.changes)}
			</ul>
		{/if}
	{:else}
		<p role="status">Comparing it with the pages{seen > 0 ? `: ${number(seen)} rows` : ''} …</p>
		<p class="actions"><button class="plain-button" onclick={close}>Leave it</button></p>
	{/if}
</dialog>

{#snippet more({ count, first }: { count: number; first: readonly unknown[] })}
	{#if count > first.length}<li class="quiet">… and {number(count - first.length)} more</li>{/if}
{/snippet}

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
	h3 {
		margin-top: 12px;
		font-size: 13px;
		font-weight: 600;
		color: var(--flag);
	}
	.changes {
		color: var(--ink);
	}
	.decide {
		display: flex;
		gap: 6px;
		align-items: center;
		margin-top: 10px;
		font-size: 13px;
	}
	.actions {
		display: flex;
		gap: 10px;
		margin-top: 12px;
	}
</style>
