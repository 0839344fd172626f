<script lang="ts">
	import type { Words } from '$core';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { languageName } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';

	/** Words in each language of the site; where one has none, the first language's stand in. */
	let {
		name,
		words = {},
		set
	}: {
		/** What they are words for, for who hears the fields. */
		name: string;
		words?: Words | undefined;
		/** Undefined where none are left. */
		set: (words: Words | undefined) => void;
	} = $props();
	const bench = benchInView();

	const languages = $derived(bench.working.site.languages);
	const first = $derived(words[languages[0] ?? ''] ?? '');
	function write(language: string, text: string) {
		const { [language]: _old, ...others } = words;
		const all = text === '' ? others : { ...words, [language]: text };
		set(Object.keys(all).length > 0 ? all : undefined);
	}
</script>

{#each languages as language, at (language)}
	<label class="words mt-0.75 flex items-center gap-2 [&>input]:min-w-0 [&>input]:flex-1">
		{#if languages.length > 1}<span class="w-23 flex-none text-sm text-ink-soft">{languageName(language)}</span>{/if}
		<TextInput
			aria-label="{name}{languages.length > 1 ? `, ${languageName(language)}` : ''}"
			placeholder={at > 0 ? first : ''}
			value={words[language] ?? ''}
			set={(text) => write(language, text)}
		/>
	</label>
{/each}
