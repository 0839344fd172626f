<script lang="ts">
	import { checkBase, type FieldValue, type Fields } from '$core';
	import type { Bench } from '$ui/bench/bench.svelte';
	import PictureField from './PictureField.svelte';
	import Setting from './Setting.svelte';

	/** The site's own settings: name, address, languages, separator, and what {site.…} gives. */
	let { bench, only }: { bench: Bench; only?: 'address' | 'words' | 'pictures' | 'people' } = $props();
	const shows = (group: typeof only) => only === undefined || only === group;

	const site = $derived(bench.site);
	/** An address that cannot be one, as it was typed; one that can is a draft. */
	let wrongBase = $state<string | undefined>();
	const base = $derived(checkBase(wrongBase ?? site.base));
	const textOf = (name: string) => {
		const value = site.fields[name] as FieldValue | undefined;
		return typeof value === 'string' ? value : typeof value === 'object' && value && 'src' in value ? value.src : '';
	};
	const setField = (name: string) => (event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) => {
		const text = event.currentTarget.value.trim();
		const { [name]: _old, ...rest } = site.fields;
		bench.change('site', { fields: text === '' ? rest : { ...rest, [name]: text } });
	};
	function setPicture(name: string, src: string) {
		const { [name]: old, ...rest } = site.fields;
		// Words go with the picture they were written for.
		const alt = typeof old === 'object' && old && 'alt' in old && old.alt && old.src === src ? { alt: old.alt } : {};
		const fields: Fields = src === '' ? rest : { ...rest, [name]: { src, ...alt } };
		bench.change('site', { fields });
	}
	function setBase(event: Event & { currentTarget: HTMLInputElement }) {
		const typed = event.currentTarget.value;
		const { base: whole } = checkBase(typed);
		wrongBase = whole ? undefined : typed;
		if (whole) bench.change('site', { base: whole });
	}
	function setName(event: Event & { currentTarget: HTMLInputElement }) {
		const name = event.currentTarget.value.trim();
		if (name) bench.change('site', { name });
	}
	function setLanguages(event: Event & { currentTarget: HTMLInputElement }) {
		const languages = [...new Set(event.currentTarget.value.split(/[\s,]+/).filter(Boolean))];
		if (languages.length > 0) bench.change('site', { languages });
	}
	const WORDS = [
		['description', 'One-line description', 'Stands in where a page has none.'],
		['tagline', 'Tagline', 'For the home page’s title.']
	] as const;
	const PEOPLE = [
		['publisher', 'Publisher', 'Who answers for the site.'],
		['handle', 'Account', 'Such as @merrowcoast; gives twitter:site.']
	] as const;
	const PICTURES = [
		['picture', 'Share picture', 'Stands in where a page has none. A path or an address.'],
		['logo', 'Logo', ''],
		['icon', 'Icon', 'Square: every size is made of it, with the web manifest.']
	] as const;
</script>

{#if shows('address')}
	<Setting name="Name" hint="What {'{site.name}'} and og:site_name say.">
		<input value={site.name} onchange={setName} />
	</Setting>
	<Setting name="Public base address">
		<input class="mono" value={wrongBase ?? site.base} onchange={setBase} aria-invalid={base.refused !== undefined} />
	</Setting>
	{#if base.refused}<p class="refused" role="alert">
			{base.refused}
			{base.guess ? `Did you mean ${base.guess}?` : ''}
		</p>{/if}
	{#each base.asks as ask (ask)}<p class="ask">{ask}</p>{/each}
	<Setting name="Languages" hint="As in en-GB, fr. The first is the one that the others fall back to.">
		<input class="mono" value={site.languages.join(', ')} onchange={setLanguages} />
	</Setting>
{/if}
{#if shows('words')}
	{#each WORDS as [name, label, hint] (name)}
		<Setting name={label} {hint}>
			{#if name === 'description'}<textarea rows="2" value={textOf(name)} onchange={setField(name)}></textarea>
			{:else}<input value={textOf(name)} onchange={setField(name)} />{/if}
		</Setting>
	{/each}
	<Setting
		name="Separator"
		hint="Tried here: {bench.outcome.head.tags.find(({ tag }) => tag.name === 'title')?.value ?? ''}"
	>
		<input
			class="mono"
			maxlength="10"
			value={site.separator}
			oninput={(event) => bench.change('site', { separator: event.currentTarget.value })}
		/>
	</Setting>
{/if}
{#if shows('pictures')}
	{#each PICTURES as [name, label, hint] (name)}
		<PictureField {bench} name={label} {hint} src={textOf(name)} set={(src) => setPicture(name, src)} />
	{/each}
{/if}
{#if shows('people')}
	{#each PEOPLE as [name, label, hint] (name)}
		<Setting name={label} {hint}><input value={textOf(name)} onchange={setField(name)} /></Setting>
	{/each}
{/if}
{#if only === undefined}
	<Setting name="Lean heads" hint="Leaves out Twitter card tags that say the same as their Open Graph twin.">
		<input
			type="checkbox"
			checked={site.lean === true}
			onchange={(event) => bench.change('site', { lean: event.currentTarget.checked || null })}
		/>
	</Setting>
{/if}

<style>
	.refused,
	.ask {
		margin-top: 3px;
		border-left: 3px solid var(--flag);
		padding-left: 7px;
		font-size: 12.5px;
	}
	.refused {
		border-color: var(--gone);
	}
</style>
