<script lang="ts">
	import type { ContentType, PictureMention } from '$core';
	import type { Bench } from './bench.svelte';
	import Setting from './Setting.svelte';

	/** The default picture of a type, and other defaults for some of its pages: listings by what they list, say. */
	let { bench }: { bench: Bench } = $props();

	const type = $derived(bench.type);
	const by = $derived(type?.pictureBy);
	const fields = $derived([
		...(type?.special === 'listing' ? [{ name: 'listing', label: 'what it lists' }] : []),
		...(type?.fields ?? []).filter(({ kind }) => kind === 'text')
	]);
	/** What the field says on the page in view: the value that is offered first. */
	const here = $derived(
		by?.field === 'listing' ? (bench.page.listing?.title ?? '') : String(bench.page.fields[by?.field ?? ''] ?? '')
	);
	let value = $state('');
	let src = $state('');

	const mention = (text: string): PictureMention => ({ src: text });
	function setDefault(event: Event & { currentTarget: HTMLInputElement }) {
		const text = event.currentTarget.value.trim();
		bench.change('type', { picture: text === '' ? null : mention(text) });
	}
	function setField(event: Event & { currentTarget: HTMLSelectElement }) {
		const field = event.currentTarget.value;
		bench.change('type', { pictureBy: field === '' ? null : { field, pictures: by?.pictures ?? {} } });
	}
	function setPictures(pictures: NonNullable<ContentType['pictureBy']>['pictures']) {
		if (by) bench.change('type', { pictureBy: { ...by, pictures } });
	}
	function add(event: SubmitEvent) {
		event.preventDefault();
		const name = value.trim() || here;
		if (name === '' || src.trim() === '') return;
		setPictures({ ...by?.pictures, [name]: mention(src.trim()) });
		[value, src] = ['', ''];
	}
</script>

<Setting name="Default picture" hint="Stands in where a page has none. A path or an address.">
	<input class="mono" value={type?.picture?.src ?? ''} onchange={setDefault} placeholder="/pictures/…" />
</Setting>
{#if fields.length > 0}
	<Setting name="Another default for some" hint="By what a field of the page says, such as the category of a listing.">
		<select value={by?.field ?? ''} onchange={setField}>
			<option value="">The same for all</option>
			{#each fields as field (field.name)}<option value={field.name}>By {field.label ?? field.name}</option>{/each}
		</select>
	</Setting>
{/if}
{#if by}
	<ul aria-label="Default pictures by {by.field}">
		{#each Object.entries(by.pictures) as [name, picture] (name)}
			<li>
				<span class="serif">{name}</span>
				<span class="mono quiet">{picture.src}</span>
				<button
					class="plain-button"
					aria-label="Take out the picture for {name}"
					onclick={() =>
						setPictures(Object.fromEntries(Object.entries(by.pictures).filter(([other]) => other !== name)))}>×</button
				>
			</li>
		{/each}
	</ul>
	<form onsubmit={add}>
		<input aria-label="What the field says" placeholder={here || 'what it says'} bind:value />
		<input class="mono" aria-label="Its picture" placeholder="/pictures/…" bind:value={src} />
		<button class="plain-button">Add</button>
	</form>
{/if}

<style>
	li {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 3px;
		font-size: 13px;
	}
	li .mono {
		flex: 1;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	form {
		display: flex;
		gap: 6px;
		margin-top: 5px;
	}
	form input {
		flex: 1;
		min-width: 0;
	}
</style>
