<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { benchInView } from '$ui/workspace/context';
	import { whyNotLink } from './fieldValues';

	/** The prefixes of custom tags: each stands for a namespace, and its tags can be written in every layer then. */
	const bench = benchInView();

	const prefixes = $derived(Object.entries(bench.working.site.prefixes ?? {}));
	let [name, space] = $state(['', '']);
	let wrong = $state('');

	function set(all: Readonly<Record<string, string>>) {
		bench.change('site', { prefixes: Object.keys(all).length > 0 ? all : null });
	}
	function add(event: SubmitEvent) {
		event.preventDefault();
		const prefix = name.trim().replace(/:$/, '');
		wrong = !/^[a-z][\w-]{0,30}$/i.test(prefix)
			? wording.isNoPrefixItTakesLetters(name)
			: !/^https?:/.test(space.trim())
				? wording.sayWhichVocabularyItStands
				: (whyNotLink(space.trim()) ?? '');
		if (wrong) return;
		set({ ...bench.working.site.prefixes, [prefix]: space.trim() });
		[name, space] = ['', ''];
	}
</script>

<Disclosure strong class="mt-3 text-sm" label={wording.customTags}>
	<p class="text-ink-soft">
		{wording.aPrefixOpensTagsOfA} <span class="font-mono">place:height</span>.
	</p>
	<ul>
		{#each prefixes as [prefix, address] (prefix)}
			<li class="row mt-1.25 flex items-center gap-2">
				<span class="font-mono">{prefix}:</span>
				<span class="min-w-0 flex-1 overflow-hidden font-mono text-ellipsis text-ink-soft">{address}</span>
				<Button
					aria-label={wording.removeThePrefix(prefix)}
					onclick={() => set(Object.fromEntries(prefixes.filter(([other]) => other !== prefix)))}>×</Button
				>
			</li>
		{/each}
	</ul>
	<form class="row mt-1.25 flex items-center gap-2" onsubmit={add}>
		<input class="w-21 font-mono" aria-label={wording.prefix} placeholder={wording.place} bind:value={name} />
		<input
			class="min-w-0 flex-1 overflow-hidden font-mono text-ellipsis"
			aria-label={wording.itsVocabularysAddress}
			placeholder="https://…"
			bind:value={space}
		/>
		<Button disabled={name.trim() === ''}>{wording.add}</Button>
	</form>
	{#if wrong}<p class="mt-1 border-l-3 border-l-gone pl-1.75" role="alert">{wrong}</p>{/if}
</Disclosure>
