<script lang="ts">
	import { canonicalLanguage, isLanguageTag } from '$core';
	import { call, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { benchAt } from '$ui/rooms/rooms';
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
	<div class="version">
		{#if address}{@const look = shown(address)}{#if look.src}<img src={look.src} alt="" />{/if}{:else}<span
				class="blank quiet">no picture</span
			>{/if}
		<div>
			<p class="serif title">{title || 'No title'}</p>
			<p class="serif quiet text">{description || 'No description'}</p>
		</div>
	</div>
{/snippet}

<Setting
	name="Its language"
	hint={page.language ? languageName(page.language) : `Not said: taken for ${languageName(own)}, the site’s first.`}
>
	<TextInput
		class="mono"
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
	<p class="wrong" role="alert">
		“{wrong}” names no language. Write a tag such as fr for French, pt-BR for Brazilian Portuguese.
	</p>
{/if}
<DraftNote draftKey={JSON.stringify([bench.placeOf('page')])} />

<h3>{languageName(own)}: this page</h3>
{@render card(value('title'), value('description'), picture)}
{#if told}<p class="wrong" role="alert">{told}</p>{/if}

{#each bench.data.versions as version (version.language)}
	{@const name = languageName(version.language)}
	<section class:gap={version.path === undefined} aria-label={name} data-version={version.language}>
		<h3>{name}</h3>
		{#if version.path === undefined}
			<p class="told">There is no version in {name} yet.</p>
			<p class="row">
				<button class="plain-button" onclick={() => make(version.language)}>Make one</button>
				<span class="quiet">or one that is there:</span>
			</p>
			<form
				class="row"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'link', to: (linking[version.language] ?? '').trim() });
				}}
			>
				<input
					class="mono"
					aria-label="Path of the version in {name}"
					placeholder="/{version.language.toLowerCase()}{page.path}"
					bind:value={linking[version.language]}
				/>
				<button class="plain-button" disabled={!(linking[version.language] ?? '').trim().startsWith('/')}
					>Link the two</button
				>
			</form>
		{:else}
			{#if version.state}
				<a class="mono path" href={benchAt(bench.data.site.name, version.path)}>{version.path}</a>
				{@render card(version.title ?? '', version.description ?? '', version.picture ?? '')}
				{#if version.state !== 'live'}
					<p class="told">
						It is {version.state === 'draft' ? 'a draft' : 'private'}: readers of this page would be led nowhere.
					</p>
				{:else if !version.namesBack}
					<p class="told">
						It does not name this page in turn: search engines take neither link then.
						<button class="link" onclick={() => act({ do: 'link', to: version.path as string })}
							>Let it name this page</button
						>
					</p>
				{/if}
			{:else}
				<p class="told"><span class="mono">{version.path}</span>: there is no such page in this site.</p>
			{/if}
			<button class="link" onclick={() => act({ do: 'unlink', to: version.path as string })}>Part the two</button>
		{/if}
	</section>
{:else}
	<p class="quiet">The site has one language. Name more of them in its settings, and gaps show here.</p>
{/each}

<style>
	h3 {
		margin-top: 14px;
		font-size: 13px;
		font-weight: 600;
	}
	section {
		border-top: 1px solid var(--rule);
		margin-top: 10px;
		font-size: 13px;
	}
	.gap {
		border-top-style: dashed;
		border-color: var(--flag);
	}
	.version {
		display: grid;
		grid-template-columns: 92px minmax(0, 1fr);
		gap: 10px;
		border: 1px solid var(--rule);
		background: var(--sheet);
		padding: 6px;
	}
	img,
	.blank {
		width: 92px;
		height: 48px;
		object-fit: cover;
	}
	.blank {
		display: grid;
		place-items: center;
		background: var(--sheet-sunk);
		font-size: 12px;
	}
	.title {
		font-weight: 600;
		line-height: 1.3;
	}
	.text {
		display: -webkit-box;
		overflow: hidden;
		font-size: 13px;
		-webkit-box-orient: vertical;
		-webkit-line-clamp: 2;
		line-clamp: 2;
	}
	.path {
		font-size: 12.5px;
		text-decoration: underline;
	}
	.told,
	.wrong {
		margin: 4px 0;
		border-left: 3px solid var(--flag);
		padding-left: 7px;
		font-size: 13px;
	}
	.wrong {
		border-color: var(--gone);
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 4px;
	}
	.row input {
		flex: 1;
		min-width: 0;
	}
</style>
