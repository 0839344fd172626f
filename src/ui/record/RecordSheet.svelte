<script lang="ts">
	import { wording } from '$ui/words/en/record';
	import { momentInWords } from '$ui/words/speaking';
	import Empty from '$ui/parts/Empty.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import Sheet from '$ui/parts/Sheet.svelte';
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
		told = refusal?.refused ?? wording.takenBack2(editInWords(edit));
		asked = refusal?.removes === undefined ? undefined : { id: edit.id, removes: refusal.removes };
		await read();
	}
</script>

<Sheet bind:open title={wording.whatWasChanged} size="middle">
	<div data-testid="record" class="contents">
		<p class="told min-h-5 text-base" role="status">
			{#if taking.far}{taking.says} <Button look="link" onclick={taking.stop}>{wording.stop}</Button>{:else}{told}{/if}
		</p>
		<!-- It scrolls: the keys reach it. -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ol class="mb-3 overflow-y-auto text-base" tabindex="0" aria-label={wording.editsTheNewestFirst}>
			{#each edits as edit (edit.id)}
				<li
					class="grid grid-cols-[1fr_auto] items-center gap-x-3 gap-y-0.5 border-t border-t-rule px-0.5 py-1.75"
					class:undone={edit.isBack}
				>
					<span class="what wrap-anywhere in-[.undone]:line-through">{editInWords(edit)}</span>
					<span class="col-start-1 text-sm text-ink-soft"
						>{wording.by(momentInWords(edit.made), byWhom(edit.author), edit.isBack ? wording.takenBack : '')}</span
					>
					{#if !edit.isBack && edit.takesBack === null}
						<Button
							class="col-start-2 row-[1/span_2]"
							aria-label={wording.takeBack(editInWords(edit))}
							disabled={taking.far !== undefined}
							onclick={() => back(edit)}
							>{asked?.id === edit.id ? wording.takeItBackGo(pagesInWords(asked.removes)) : wording.takeBack2}</Button
						>
					{/if}
				</li>
			{:else}
				<li>
					<Empty says={wording.nothingWasChangedYet}>{wording.eachEditStandsHereInA}</Empty>
				</li>
			{/each}
		</ol>
		<p class="row flex gap-2">
			{#if hasMore}<Button onclick={() => read(edits.at(-1)?.id)}>{wording.earlierOnes}</Button>{/if}
		</p>
	</div>
</Sheet>
