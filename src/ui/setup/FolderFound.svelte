<script lang="ts" module>
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import type { FolderFindings } from '$server/imports/content';

	/** What is said about a folder that was read; it is read again with it. */
	export interface FolderSaid {
		readonly trimTitles?: boolean;
		readonly keepTitles?: boolean;
		readonly link?: boolean;
		readonly keepFormulas?: boolean;
		readonly types?: readonly { readonly pattern: string; readonly type: string }[];
		readonly languages?: readonly { readonly pattern: string; readonly language: string }[];
	}

	/** Whether there is anything to be told or decided. */
	export const hasToSay = ({
		found,
		titles,
		formulas,
		languages,
		versions,
		proposals,
		retired
	}: FolderFindings): boolean =>
		Object.keys(languages).length !== 1 ||
		Object.keys(found).length +
			titles.parts.length +
			titles.numbered +
			proposals.length +
			retired.length +
			formulas.length >
			0 ||
		titles.taken.parts.length + titles.taken.numbered > 0 ||
		(versions.pages > 0 && !versions.linked);
</script>

<script lang="ts">
	import Button from '$ui/parts/Button.svelte';
	import { languageName, pagesInWords } from '$ui/parts/words';

	/** What reading a folder found: what authors wrote, languages, titles with something in common, types by paths. */
	let {
		found,
		pages,
		busy,
		again
	}: { found: FolderFindings; pages: number; busy: boolean; again: (said: FolderSaid) => void } = $props();

	const tags = $derived(Object.entries(found.found).sort(([, a], [, b]) => b - a));
	const languages = $derived(Object.entries(found.languages));
	const known = $derived(languages.reduce((sum, [, count]) => sum + count, 0));
	let left = $state<Record<string, boolean>>({});
	let named = $state<Record<string, string>>({});
	const chosen = $derived(
		found.proposals
			.filter(({ pattern }) => !left[pattern])
			.map(({ pattern, type }) => ({ pattern, type: named[pattern] ?? type }))
	);
	/** Which files are in which language, where nothing in them says so or it says so wrongly. */
	let spoken = $state([{ pattern: '', language: '' }]);
	const isSpoken = $derived(spoken.some(({ pattern, language }) => pattern.trim() !== '' && language.trim() !== ''));
	const sayLanguages = () =>
		again({
			languages: spoken
				.map(({ pattern, language }) => ({ pattern: pattern.trim(), language: language.trim() }))
				.filter(({ pattern, language }) => pattern !== '' && language !== '')
		});
	const hasTrims = $derived(found.titles.parts.length > 0 || found.titles.numbered > 0);
	const { taken } = $derived(found.titles);
	const isTaken = $derived(taken.parts.length > 0 || taken.numbered > 0);
</script>

<p class="wrap-anywhere">
	{found.added.toLocaleString('en')} new, {found.changed.toLocaleString('en')} changed, {found.retired.length.toLocaleString(
		'en'
	)} gone.
	{#if languages.length > 0}
		In {languages
			.slice(0, 6)
			.map(([tag, count]) => `${languageName(tag)}: ${count.toLocaleString('en')}`)
			.join(', ')}{pages > known ? `; not known of ${(pages - known).toLocaleString('en')}` : ''}.
	{:else}Their language is not told anywhere.{/if}
</p>
<Disclosure label="Say which files are in which language">
	<p class="wrap-anywhere text-ink-soft">
		By patterns of their paths, such as fr/** or **/*.fr.html. It goes before what the files say.
	</p>
	{#each spoken as one, at (at)}
		<p class="row mx-0 my-1 flex flex-wrap items-center gap-2 wrap-anywhere">
			<input class="font-mono" aria-label="Files, pattern {at + 1}" placeholder="fr/**" bind:value={one.pattern} />
			are in
			<input
				class="tag w-[9em] font-mono"
				aria-label="Language of pattern {at + 1}"
				placeholder="fr, pt-BR"
				bind:value={one.language}
			/>
		</p>
	{/each}
	<p class="row mx-0 my-1 flex flex-wrap items-center gap-2 wrap-anywhere">
		<Button disabled={!isSpoken} onclick={() => spoken.push({ pattern: '', language: '' })}>Another pattern</Button>
		<Button disabled={busy || !isSpoken} onclick={sayLanguages}
			>{busy ? 'Reading …' : 'Read again with these languages'}</Button
		>
	</p>
</Disclosure>
{#if tags.length > 0}
	<h3 class="mt-2 font-semibold">What the pages say themselves</h3>
	<p class="wrap-anywhere">
		It is kept, and goes before every template until you say otherwise:
		{#each tags.slice(0, 12) as [tag, count], at (tag)}{at > 0 ? ', ' : ''}<span class="font-mono">{tag}</span>
			on {count.toLocaleString('en')}{/each}{tags.length > 12 ? ` and ${tags.length - 12} more tags` : ''}.
	</p>
{/if}
{#snippet parts({ parts: common, numbered }: Pick<FolderFindings['titles'], 'parts' | 'numbered'>)}
	<ul class="list-disc pl-4.5">
		{#each common.slice(0, 5) as { at, text, pages: count } (at + text)}
			<li class="wrap-anywhere">
				{pagesInWords(count)}
				{at === 'end' ? 'end' : 'begin'} with “<span class="font-serif">{text}</span>”
			</li>
		{/each}
		{#if numbered > 0}<li class="wrap-anywhere">
				{pagesInWords(numbered)} begin with the number of a chapter or section
			</li>{/if}
	</ul>
{/snippet}
{#if found.formulas.length > 0}
	<h3 class="mt-2 font-semibold">Written by a program</h3>
	<p class="wrap-anywhere">What is written of a page alone goes before these, which say the same of all:</p>
	<ul class="list-disc pl-4.5">
		{#each found.formulas.slice(0, 5) as { tag, formula, pages: count } (tag + formula)}
			<li class="wrap-anywhere">
				{pagesInWords(count)}, <span class="font-mono">{tag}</span>: “<span class="font-serif">{formula}</span>”
			</li>
		{/each}
	</ul>
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ keepFormulas: true })}>Keep them as their author’s words</Button>
	</p>
{/if}
{#if isTaken}
	<h3 class="mt-2 font-semibold">Taken off the titles</h3>
	{@render parts(taken)}
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ keepTitles: true })}>Set them back as they are written</Button>
	</p>
{/if}
{#if hasTrims}
	<h3 class="mt-2 font-semibold">Titles</h3>
	{@render parts(found.titles)}
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ trimTitles: true })}
			>Take it off: templates can put the site’s name there</Button
		>
	</p>
{/if}
{#if found.versions.pages > 0 && !found.versions.linked}
	<h3 class="mt-2 font-semibold">Versions</h3>
	<p class="wrap-anywhere">
		{pagesInWords(found.versions.pages)} have the same page in another language, by their names.
		<Button disabled={busy} onclick={() => again({ link: true })}>Keep them as versions of each other</Button>
	</p>
{/if}
{#if found.proposals.length > 0}
	<h3 class="mt-2 font-semibold">Types, by where files stand</h3>
	<p class="wrap-anywhere text-ink-soft">
		Templates are written for a type. Take those that fit, under a name of yours.
	</p>
	<table class="mx-0 my-1">
		<thead
			><tr
				><th class="py-0.5 pr-3 pl-0 text-left font-semibold">Take</th><th
					class="py-0.5 pr-3 pl-0 text-left font-semibold">Files</th
				><th class="py-0.5 pr-3 pl-0 text-left font-semibold">Pages</th><th
					class="py-0.5 pr-3 pl-0 text-left font-semibold">Type</th
				></tr
			></thead
		>
		<tbody>
			{#each found.proposals as { pattern, type, pages: count, examples } (pattern)}
				<tr>
					<td class="py-0.5 pr-3 pl-0"
						><input
							type="checkbox"
							aria-label="Take {pattern}"
							checked={!left[pattern]}
							onchange={(event) => (left[pattern] = !event.currentTarget.checked)}
						/></td
					>
					<td class="py-0.5 pr-3 pl-0 font-mono" data-tip={examples.join(', ')}>{pattern}</td>
					<td class="py-0.5 pr-3 pl-0">{count.toLocaleString('en')}</td>
					<td class="py-0.5 pr-3 pl-0"
						><input
							aria-label="Type of {pattern}"
							value={named[pattern] ?? type}
							oninput={(event) => (named[pattern] = event.currentTarget.value)}
						/></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	<Button disabled={busy || chosen.length === 0} onclick={() => again({ types: chosen })}
		>{busy ? 'Reading …' : 'Read again with these types'}</Button
	>
{/if}
