<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import { canonicalLanguage, isLanguageTag } from '$core';
	import { call, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { benchAt } from '$ui/places/rooms';
	import { languageName } from '$ui/parts/words';
	import TextInput from '$ui/parts/TextInput.svelte';
	import type { Look } from '$ui/cards/pictureLook';
	import Setting from './Setting.svelte';

	/** The page's language, and the same page in the others: side by side, with gaps and one-way links. */
	let {
		shown,
		make
	}: {
		shown: (address: string) => Look;
		/** Opens the making of a page as this one's version in a language. */
		make: (language: string) => void;
	} = $props();
	const bench = benchInView();

	const page = $derived(bench.working.page);
	const site = $derived(bench.working.site);
	const own = $derived(page.language ?? site.languages[0] ?? '');
	let wrong = $state<string | undefined>();
	let linking = $state<Record<string, string>>({});
	let told = $state<string | undefined>();

	function setLanguage(text: string) {
		const tag = text.trim();
		wrong = tag === '' || isLanguageTag(tag) ? undefined : tag;
		if (wrong === undefined) bench.change('page', { language: tag === '' ? null : (canonicalLanguage(tag) ?? tag) });
	}
	async function act(action: { readonly do: 'link' | 'unlink'; readonly to: string }) {
		told = undefined;
		await bench.drafts.settle();
		const done = await call('POST /sites/{site}/pages', {
			site: bench.data.site.name,
			body: { path: page.path, ...action }
		});
		if (isRefused(done)) told = done.refused;
		else await bench.changedElsewhere();
	}
	const value = (tag: string) => bench.working.head.tags.find((one) => one.tag.name === tag)?.value ?? '';
	const picture = $derived(value('og:image') || value('twitter:image'));
</script>

{#snippet card(title: string, description: string, address: string)}
	<div class="version grid grid-cols-[92px_minmax(0,1fr)] gap-2.5 border border-rule bg-sheet p-1.5">
		{#if address}{@const look = shown(address)}{#if look.src}<img
					class="h-12 w-23 object-cover"
					src={look.src}
					alt=""
				/>{/if}{:else}<span class="grid h-12 w-23 place-items-center bg-sunk object-cover text-xs text-ink-soft"
				>{wording.noPicture}</span
			>{/if}
		<div>
			<p class="title font-serif leading-[1.3] font-semibold">{title || wording.noTitle}</p>
			<p class="text line-clamp-2 font-serif text-sm text-ink-soft">{description || wording.noDescription}</p>
		</div>
	</div>
{/snippet}

<Setting
	name={wording.itsLanguage}
	hint={page.language ? languageName(page.language) : wording.notSaidTakenForTheSitesFirst(languageName(own))}
>
	<TextInput
		class="font-mono"
		late
		list="site-languages"
		value={page.language ?? ''}
		set={setLanguage}
		aria-invalid={wrong !== undefined}
	/>
</Setting>
<datalist id="site-languages">
	{#each site.languages as tag (tag)}<option value={tag}>{languageName(tag)}</option>{/each}
</datalist>
{#if wrong !== undefined}
	<p class="mx-0 my-1 border-l-3 border-gone pl-1.75 text-sm" role="alert">
		{wording.namesNoLanguageWriteATagSuch(wrong)}
	</p>
{/if}
<DraftNote draftKey={JSON.stringify([bench.placeOf('page')])} />

<h3 class="mt-3.5 text-sm font-semibold">{wording.thisPage2(languageName(own))}</h3>
{@render card(value('title'), value('description'), picture)}
{#if told}<p class="mx-0 my-1 border-l-3 border-gone pl-1.75 text-sm" role="alert">{told}</p>{/if}

{#each bench.data.versions as version (version.language)}
	{@const name = languageName(version.language)}
	<section
		class="mt-2.5 border-t border-t-rule text-sm [&.gap]:border-dashed [&.gap]:border-flag"
		class:gap={version.path === undefined}
		aria-label={name}
		data-version={version.language}
	>
		<h3 class="mt-3.5 text-sm font-semibold">{name}</h3>
		{#if version.path === undefined}
			<p class="told mx-0 my-1 border-l-3 border-l-flag pl-1.75 text-sm">{wording.thereIsNoVersionInYet(name)}</p>
			<p class="row mt-1 flex items-center gap-2">
				<Button onclick={() => make(version.language)}>{wording.makeOne}</Button>
				<span class="text-ink-soft">{wording.orOneThatIsThere}</span>
			</p>
			<form
				class="row mt-1 flex items-center gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'link', to: (linking[version.language] ?? '').trim() });
				}}
			>
				<input
					class="min-w-0 flex-1 font-mono"
					aria-label={wording.pathOfTheVersionIn(name)}
					placeholder="/{version.language.toLowerCase()}{page.path}"
					bind:value={linking[version.language]}
				/>
				<Button disabled={!(linking[version.language] ?? '').trim().startsWith('/')}>{wording.linkTheTwo}</Button>
			</form>
		{:else}
			{#if version.state}
				<a class="path font-mono text-sm underline" href={benchAt(bench.data.site.name, version.path)}>{version.path}</a
				>
				{@render card(version.title ?? '', version.description ?? '', version.picture ?? '')}
				{#if version.state !== 'live'}
					<p class="told mx-0 my-1 border-l-3 border-l-flag pl-1.75 text-sm">
						{wording.itIsReadersOfThisPageWould(version.state === 'draft' ? wording.aDraft : wording.private2)}
					</p>
				{:else if !version.namesBack}
					<p class="told mx-0 my-1 border-l-3 border-l-flag pl-1.75 text-sm">
						{wording.itDoesNotNameThisPageIn}
						<Button look="link" onclick={() => act({ do: 'link', to: version.path as string })}
							>{wording.letItNameThisPage}</Button
						>
					</p>
				{/if}
			{:else}
				<p class="told mx-0 my-1 border-l-3 border-l-flag pl-1.75 text-sm">
					<span class="font-mono">{version.path}</span>{wording.thereIsNoSuchPageInThis}
				</p>
			{/if}
			<Button look="link" onclick={() => act({ do: 'unlink', to: version.path as string })}>{wording.partTheTwo}</Button
			>
		{/if}
	</section>
{:else}
	<p class="text-ink-soft">{wording.theSiteHasOneLanguageName}</p>
{/each}
