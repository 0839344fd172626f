<script lang="ts">
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
			? 'Yes'
			: is === false
				? 'No'
				: is !== undefined
					? String(is)
					: from !== undefined && to !== undefined
						? `${from} to ${to}`
						: from !== undefined
							? `${from} and more`
							: `up to ${to}`;
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
	<p class="quiet">Without words, a yes or no is asked with <span class="mono">?</span> in a template.</p>
	{#each [true, false] as is (is)}
		<span class="value">{is ? 'Yes' : 'No'}</span>
		<WordsRow name="{field.name}, {is ? 'yes' : 'no'}" words={ofFlag(is)} set={(words) => setFlag(is, words)} />
	{/each}
{:else if kind}
	{#each rows as row, at (called(row))}
		<span class="value mono">
			{called(row)}
			<button
				class="plain-button"
				aria-label="Take away {called(row)} of {field.name}"
				onclick={() => keep(rows.filter((_, index) => index !== at))}>×</button
			>
		</span>
		<WordsRow
			name="{field.name}, {called(row)}"
			words={row.words}
			set={(words) => change(at, { words: words ?? {} })}
		/>
	{/each}
	{#if kind === 'choice'}
		<form class="row" onsubmit={addOption}>
			<input
				class="mono grow"
				aria-label="Another value of {field.name}"
				placeholder="as records say it: in-stock"
				bind:value={option}
			/>
			<button class="plain-button" disabled={option.trim() === ''}>Add</button>
		</form>
	{:else}
		<p class="quiet">Words for a number, or for all between two; <span class="mono">{'{n}'}</span> stands for it.</p>
		<form
			class="row"
			onsubmit={(event) => {
				event.preventDefault();
				addNumbers(false);
			}}
		>
			<TextInput
				type="number"
				aria-label="Number, or the least, of {field.name}"
				value={from}
				set={(text) => (from = text)}
			/>
			<span class="quiet">to</span>
			<TextInput type="number" aria-label="The greatest of {field.name}" value={to} set={(text) => (to = text)} />
			<button class="plain-button" disabled={from === '' && to === ''}>Add</button>
			{#if from !== '' && to === ''}
				<button class="plain-button" type="button" onclick={() => addNumbers(true)}>{from} and more</button>
			{/if}
		</form>
	{/if}
{/if}

<style>
	.value {
		display: flex;
		gap: 6px;
		align-items: center;
		margin-top: 6px;
		font-size: 13px;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 6px;
	}
	.grow,
	.row > :global(input) {
		flex: 1;
		min-width: 0;
	}
</style>
