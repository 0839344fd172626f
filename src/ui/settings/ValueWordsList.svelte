<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import type { Field, ValueWords } from '$core';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { numberOf, wordedKind } from './fieldValues';
	import WordsRow from './WordsRow.svelte';

	/** What the values of a field are called in words: options of a choice, yes and no, numbers and ranges of them. */
	let { field, set }: { field: Field; set: (words: readonly ValueWords[] | undefined) => void } = $props();

	const rows = $derived(field.words ?? []);
	const kind = $derived(wordedKind(field.kind));
	let option = $state('');
	let [from, to] = $state(['', '']);

	const keep = (all: readonly ValueWords[]) => set(all.length > 0 ? all : undefined);
	const change = (at: number, row: Partial<ValueWords>) =>
		keep(rows.map((one, index) => (index === at ? { ...one, ...row } : one)));
	const called = ({ is, from, to }: ValueWords) =>
		is === true
			? wording.yes
			: is === false
				? 'No'
				: is !== undefined
					? String(is)
					: from !== undefined && to !== undefined
						? wording.to2(from, to)
						: from !== undefined
							? wording.andMore(from)
							: wording.upTo(to ?? '');
	const ofFlag = (is: boolean) => rows.find((row) => row.is === is)?.words;
	function setFlag(is: boolean, words: ValueWords['words'] | undefined) {
		const others = rows.filter((row) => row.is !== is);
		keep(words ? [...others, { is, words }].sort((a, b) => Number(b.is) - Number(a.is)) : others);
	}
	function addOption(event: SubmitEvent) {
		event.preventDefault();
		const is = option.trim();
		if (is === '' || rows.some((row) => row.is === is)) return;
		keep([...rows, { is, words: {} }]);
		option = '';
	}
	/** One number alone, or all between two; `andMore`: all from one on. */
	function addNumbers(andMore: boolean) {
		const [low, high] = [numberOf(from), numberOf(to)];
		if (low === undefined && high === undefined) return;
		const isOne = low !== undefined && (low === high || (high === undefined && !andMore));
		const row = isOne
			? { is: low }
			: { ...(low !== undefined && { from: low }), ...(high !== undefined && { to: high }) };
		if (rows.some((one) => called(one) === called({ ...row, words: {} }))) return;
		keep([...rows, { ...row, words: {} }]);
		[from, to] = ['', ''];
	}
</script>

{#if kind === 'flag'}
	<p class="text-ink-soft">{wording.withoutWordsAYesOrNoIs} <span class="font-mono">?</span> {wording.inATemplate}</p>
	{#each [true, false] as is (is)}
		<span class="value mt-1.5 flex items-center gap-1.5 text-sm">{is ? wording.yes : wording.no}</span>
		<WordsRow
			name="{field.name}, {is ? wording.yes2 : wording.no2}"
			words={ofFlag(is)}
			set={(words) => setFlag(is, words)}
		/>
	{/each}
{:else if kind}
	{#each rows as row, at (called(row))}
		<span class="value mt-1.5 flex items-center gap-1.5 font-mono text-sm">
			{called(row)}
			<Button
				aria-label={wording.takeAwayOf(called(row), field.name)}
				onclick={() => keep(rows.filter((_, index) => index !== at))}>×</Button
			>
		</span>
		<WordsRow
			name="{field.name}, {called(row)}"
			words={row.words}
			set={(words) => change(at, { words: words ?? {} })}
		/>
	{/each}
	{#if kind === 'choice'}
		<form class="row mt-1.5 flex items-center gap-2 [&>input]:min-w-0 [&>input]:flex-1" onsubmit={addOption}>
			<input
				class="min-w-0 flex-1 font-mono"
				aria-label={wording.anotherValueOf(field.name)}
				placeholder={wording.asRecordsSayItInStock}
				bind:value={option}
			/>
			<Button disabled={option.trim() === ''}>{wording.add}</Button>
		</form>
	{:else}
		<p class="text-ink-soft">
			{wording.wordsForANumberOrForAll} <span class="font-mono">{'{n}'}</span>
			{wording.standsForIt}
		</p>
		<form
			class="row mt-1.5 flex items-center gap-2 [&>input]:min-w-0 [&>input]:flex-1"
			onsubmit={(event) => {
				event.preventDefault();
				addNumbers(false);
			}}
		>
			<TextInput
				type="number"
				aria-label={wording.numberOrTheLeastOf(field.name)}
				value={from}
				set={(text) => (from = text)}
			/>
			<span class="text-ink-soft">{wording.to}</span>
			<TextInput type="number" aria-label={wording.theGreatestOf(field.name)} value={to} set={(text) => (to = text)} />
			<Button disabled={from === '' && to === ''}>{wording.add}</Button>
			{#if from !== '' && to === ''}
				<Button type="button" onclick={() => addNumbers(true)}>{wording.andMore(from)}</Button>
			{/if}
		</form>
	{/if}
{/if}
