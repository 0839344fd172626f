<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
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

<Disclosure strong class="mt-3 text-sm" bind:open={isOpen} label={wording.wordsOfYourOwn}>
	<p class="text-ink-soft">
		{wording.whatTemplatesSayInEvery} <span class="font-mono">{'{words.book}'}</span>
		{wording.printsThem}
	</p>
	{#each words as [key, said] (key)}
		<div class="one mt-2 flex items-center justify-between">
			<span class="font-mono">{`{words.${key}}`}</span>
			<Button
				aria-label={wording.takeAwayTheWords(key)}
				onclick={() => keep(Object.fromEntries(words.filter(([other]) => other !== key)))}>×</Button
			>
		</div>
		<WordsRow
			name={wording.words(key)}
			words={said}
			set={(next) => keep({ ...bench.working.site.words, [key]: next ?? {} })}
		/>
	{/each}
	<NewName
		label={wording.nameOfOtherWords}
		placeholder={wording.book}
		taken={(name) => words.some(([known]) => known === name)}
		add={(name) => keep({ ...bench.working.site.words, [name]: {} })}
	/>
</Disclosure>
