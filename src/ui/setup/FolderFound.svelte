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
	import { wording } from '$ui/words/en/setup';
	import { counted } from '$ui/words/speaking';
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
	{wording.newChangedGone(counted(found.added), counted(found.changed), counted(found.retired.length))}
	{#if languages.length > 0}
		{wording.inOne(
			languages
				.slice(0, 6)
				.map(([tag, count]) => `${languageName(tag)}: ${counted(count)}`)
				.join(', '),
			pages > known ? wording.notKnownOf(counted(pages - known)) : ''
		)}
	{:else}{wording.theirLanguageIsNotTold}{/if}
</p>
<Disclosure label={wording.sayWhichFilesAreInWhich}>
	<p class="wrap-anywhere text-ink-soft">
		{wording.byPatternsOfTheirPathsSuchAs}
	</p>
	{#each spoken as one, at (at)}
		<p class="row mx-0 my-1 flex flex-wrap items-center gap-2 wrap-anywhere">
			<input class="font-mono" aria-label={wording.filesPattern(at + 1)} placeholder="fr/**" bind:value={one.pattern} />
			{wording.areIn}
			<input
				class="tag w-[9em] font-mono"
				aria-label={wording.languageOfPattern(at + 1)}
				placeholder="fr, pt-BR"
				bind:value={one.language}
			/>
		</p>
	{/each}
	<p class="row mx-0 my-1 flex flex-wrap items-center gap-2 wrap-anywhere">
		<Button disabled={!isSpoken} onclick={() => spoken.push({ pattern: '', language: '' })}
			>{wording.anotherPattern}</Button
		>
		<Button disabled={busy || !isSpoken} onclick={sayLanguages}
			>{busy ? wording.reading : wording.readAgainWithTheseLanguages}</Button
		>
	</p>
</Disclosure>
{#if tags.length > 0}
	<h3 class="mt-2 font-semibold">{wording.whatThePagesSayThemselves}</h3>
	<p class="wrap-anywhere">
		{wording.itIsKeptAndGoesBeforeEvery}
		{#each tags.slice(0, 12) as [tag, count], at (tag)}{at > 0 ? ', ' : ''}<span class="font-mono">{tag}</span>
			{wording.on(counted(count))}{/each}{tags.length > 12 ? wording.andMoreTags(tags.length - 12) : ''}.
	</p>
{/if}
{#snippet parts({ parts: common, numbered }: Pick<FolderFindings['titles'], 'parts' | 'numbered'>)}
	<ul class="list-disc pl-4.5">
		{#each common.slice(0, 5) as { at, text, pages: count } (at + text)}
			<li class="wrap-anywhere">
				{wording.withOne(pagesInWords(count), at === 'end' ? wording.end : wording.begin)}<span class="font-serif"
					>{text}</span
				>”
			</li>
		{/each}
		{#if numbered > 0}<li class="wrap-anywhere">
				{wording.beginWithTheNumberOfAChapter(pagesInWords(numbered))}
			</li>{/if}
	</ul>
{/snippet}
{#if found.formulas.length > 0}
	<h3 class="mt-2 font-semibold">{wording.writtenByAProgram}</h3>
	<p class="wrap-anywhere">{wording.whatIsWrittenOfAPageAlone}</p>
	<ul class="list-disc pl-4.5">
		{#each found.formulas.slice(0, 5) as { tag, formula, pages: count } (tag + formula)}
			<li class="wrap-anywhere">
				{pagesInWords(count)}, <span class="font-mono">{tag}</span>: “<span class="font-serif">{formula}</span>”
			</li>
		{/each}
	</ul>
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ keepFormulas: true })}>{wording.keepThemAsTheirAuthorsWords}</Button>
	</p>
{/if}
{#if isTaken}
	<h3 class="mt-2 font-semibold">{wording.takenOffTheTitles}</h3>
	{@render parts(taken)}
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ keepTitles: true })}>{wording.setThemBackAsTheyAreWritten}</Button>
	</p>
{/if}
{#if hasTrims}
	<h3 class="mt-2 font-semibold">{wording.titles}</h3>
	{@render parts(found.titles)}
	<p class="wrap-anywhere">
		<Button disabled={busy} onclick={() => again({ trimTitles: true })}>{wording.takeItOffTemplatesCanPutThe}</Button>
	</p>
{/if}
{#if found.versions.pages > 0 && !found.versions.linked}
	<h3 class="mt-2 font-semibold">{wording.versions}</h3>
	<p class="wrap-anywhere">
		{wording.haveTheSamePageInAnother(pagesInWords(found.versions.pages))}
		<Button disabled={busy} onclick={() => again({ link: true })}>{wording.keepThemAsVersionsOfEach}</Button>
	</p>
{/if}
{#if found.proposals.length > 0}
	<h3 class="mt-2 font-semibold">{wording.typesByWhereFilesStand}</h3>
	<p class="wrap-anywhere text-ink-soft">
		{wording.templatesAreWrittenForAType}
	</p>
	<table class="mx-0 my-1">
		<thead
			><tr
				><th class="py-0.5 pr-3 pl-0 text-left font-semibold">{wording.take}</th><th
					class="py-0.5 pr-3 pl-0 text-left font-semibold">{wording.files}</th
				><th class="py-0.5 pr-3 pl-0 text-left font-semibold">{wording.pages}</th><th
					class="py-0.5 pr-3 pl-0 text-left font-semibold">{wording.type}</th
				></tr
			></thead
		>
		<tbody>
			{#each found.proposals as { pattern, type, pages: count, examples } (pattern)}
				<tr>
					<td class="py-0.5 pr-3 pl-0"
						><input
							type="checkbox"
							aria-label={wording.take2(pattern)}
							checked={!left[pattern]}
							onchange={(event) => (left[pattern] = !event.currentTarget.checked)}
						/></td
					>
					<td class="py-0.5 pr-3 pl-0 font-mono" data-tip={examples.join(', ')}>{pattern}</td>
					<td class="py-0.5 pr-3 pl-0">{counted(count)}</td>
					<td class="py-0.5 pr-3 pl-0"
						><input
							aria-label={wording.typeOf(pattern)}
							value={named[pattern] ?? type}
							oninput={(event) => (named[pattern] = event.currentTarget.value)}
						/></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	<Button disabled={busy || chosen.length === 0} onclick={() => again({ types: chosen })}
		>{busy ? wording.reading : wording.readAgainWithTheseTypes}</Button
	>
{/if}
