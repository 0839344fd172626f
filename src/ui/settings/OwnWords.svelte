<script lang="ts">
	import { untrack } from 'svelte';
	import type { Words } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import NewName from './NewName.svelte';
	import WordsRow from './WordsRow.svelte';

	/** The site's own words: what templates of all languages say alike, by a name. */
	const bench = benchInView();

	const words = $derived(Object.entries(bench.working.site.words ?? {}));
	/** Open at first where there are some; then as one leaves it. */
	let isOpen = $state(untrack(() => words.length > 0));

	const keep = (all: Readonly<Record<string, Words>>) =>
		bench.change('site', { words: Object.keys(all).length > 0 ? all : null });
</script>

<details bind:open={isOpen}>
	<summary>Words of your own</summary>
	<p class="quiet">What templates say in every language: <span class="mono">{'{words.book}'}</span> prints them.</p>
	{#each words as [key, said] (key)}
		<div class="one">
			<span class="mono">{`{words.${key}}`}</span>
			<button
				class="plain-button"
				aria-label="Take away the words “{key}”"
				onclick={() => keep(Object.fromEntries(words.filter(([other]) => other !== key)))}>×</button
			>
		</div>
		<WordsRow
			name="Words “{key}”"
			words={said}
			set={(next) => keep({ ...bench.working.site.words, [key]: next ?? {} })}
		/>
	{/each}
	<NewName
		label="Name of other words"
		placeholder="book"
		taken={(name) => words.some(([known]) => known === name)}
		add={(name) => keep({ ...bench.working.site.words, [name]: {} })}
	/>
</details>

<style>
	details {
		margin-top: 12px;
		font-size: 13px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	.one {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-top: 8px;
	}
</style>
