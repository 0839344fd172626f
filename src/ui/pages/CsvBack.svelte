<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { counted } from '$ui/words/speaking';
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Sheet from '$ui/parts/Sheet.svelte';
	import Button from '$ui/parts/Button.svelte';
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
	/** What is going on. */
	let doing = $state.raw<{ readonly what: 'comparing' | 'keeping'; readonly work: Work } | undefined>();
	let chooser = $state<HTMLInputElement>();

	const number = (count: number) => counted(count);
	const cells = (count: number) => `${number(count)} ${count === 1 ? 'cell' : 'cells'}`;
	/** What the changes are, in words: how many are new, other words, or taken away. */
	function kindsOf({ changes, anew, setBack }: CsvTold): string {
		const other = changes.count - anew - setBack;
		const kinds = [
			[anew, wording.whereAPageSaidNothingItself],
			[other, wording.withOtherWords],
			[setBack, wording.setBack]
		] as const;
		return kinds
			.filter(([count]) => count > 0)
			.map(([count, what]) => `${number(count)} ${what}`)
			.join(', ');
	}
	const REASONS = {
		rewritten: wording.looksRewrittenByASpreadsheet,
		conflict: wording.changedHereSinceTheTableWas,
		wrong: wording.cannotBeWrittenLeft,
		shown: wording.writtenInAColumnThatOnly,
		unknown: wording.noSuchPageLeft
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
		const mine = works.begin(site, what === 'keeping' ? wording.readingTheTableBack : wording.comparingTheTable);
		mine.progress(0, told?.rows ?? 0);
		doing = { what, work: mine };
		const result = await work(mine);
		// What a comparison came to is shown, or of no use any more.
		if (what === 'comparing') works.drop(mine);
		else works.end(mine, isRefused(result) ? result.refused : wording.theTableWasReadBack, isRefused(result));
		if (doing.work === mine) doing = undefined;
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
			wording.readBackAsOneEdit(
				cells(changes.count),
				changes.count === 1 ? wording.was : wording.were,
				stayed > 0 ? wording.left(number(stayed), stayed === 1 ? wording.was : wording.were) : ''
			),
			answer.edit
		);
	}
	function close() {
		if (doing?.what === 'comparing') doing.work.stop();
		[told, refused, file] = [undefined, '', undefined];
	}
</script>

<Button onclick={() => chooser?.click()}>{wording.backIn}</Button>
<input
	class="sr-only"
	type="file"
	accept=".csv,.xlsx,text/csv"
	aria-label={wording.aTableThatWasPutOutHere}
	tabindex="-1"
	bind:this={chooser}
	onchange={look}
/>
<Sheet bind:open={() => file !== undefined, (open) => !open && close()} title={file?.name ?? ''} size="middle">
	{#if refused}
		<p role="alert">{refused}</p>
	{:else if told}
		<p>
			{number(told.rows)}
			{told.rows === 1 ? wording.row : wording.rows}:
			<strong>{wording.wouldChange2(cells(told.changes.count))}</strong>{told.changes.count > 0
				? ` (${kindsOf(told)})`
				: ''}, {number(told.unchanged)}
			{told.unchanged === 1 ? wording.rowIsAsItWas : wording.rowsAreAsTheyWere}.
		</p>
		{#if told.beyond > 0}<p role="alert">{beyondInWords(told.beyond)}</p>{/if}
		<p class="actions mt-3 flex gap-2.5">
			{#if doing?.what === 'keeping'}
				<WorkLine work={doing.work} />
			{:else}
				<Button
					look="main"
					disabled={told.changes.count === 0 || told.beyond > 0 || doing !== undefined}
					onclick={() => void keep()}>{wording.keepTheChanges}</Button
				>
				<Button onclick={close}>{wording.leaveIt}</Button>
			{/if}
		</p>
		{#if told.left.rewritten.count > 0 || takesRewritten}
			<label class="decide mt-2.5 flex items-center gap-1.5 text-sm">
				<input type="checkbox" bind:checked={takesRewritten} onchange={() => file && void compare(file)} />
				{takesRewritten
					? wording.whatLooksRewrittenByA
					: wording.takeTheThatRewrittenByA(
							cells(told.left.rewritten.count),
							told.left.rewritten.count === 1 ? wording.looks : wording.look
						)}
			</label>
		{/if}
		{#each reasons as [reason, words] (reason)}
			{@const left = told.left[reason]}
			{#if left.count > 0}
				<h3 class="mt-3 text-sm font-semibold text-flag">{words} ({number(left.count)})</h3>
				<ul class="mx-0 my-2 text-sm">
					{#each left.first as { line, path, why }, at (at)}
						<li class="border-t border-t-rule px-0 py-0.75">
							{wording.line(line)} <span class="font-mono">{path}</span>: {why}
						</li>
					{/each}
					{@render more(left)}
				</ul>
			{/if}
		{/each}
		{#if told.changes.count > 0}
			<h3 class="changes mt-3 text-sm font-semibold text-ink">{wording.whatWouldChange(number(told.changes.count))}</h3>
			<ul class="mx-0 my-2 text-sm">
				{#each told.changes.first as { line, path, tag, before, after } (`${line} ${tag}`)}
					<li class="border-t border-t-rule px-0 py-0.75">
						<span class="font-mono">{path}</span>
						{tag}: {#if before}<s>{before}</s> →
						{:else}{wording.nowByItsTemplate}
						{/if}<span class="font-serif">{after || wording.byItsTemplateAgain}</span>
					</li>
				{/each}
				{@render more(told.changes)}
			</ul>
		{/if}
	{:else}
		{#if doing}<WorkLine work={doing.work} />{/if}
		<p class="actions mt-3 flex gap-2.5"><Button onclick={close}>{wording.leaveIt}</Button></p>
	{/if}
</Sheet>

{#snippet more({ count, first }: { count: number; first: readonly unknown[] })}
	{#if count > first.length}<li class="border-t border-t-rule px-0 py-0.75 text-ink-soft">
			{wording.andMore(number(count - first.length))}
		</li>{/if}
{/snippet}
