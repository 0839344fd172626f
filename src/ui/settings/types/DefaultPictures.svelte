<script lang="ts">
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { toText, type ContentType, type PictureMention } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import PictureField from '../PictureField.svelte';
	import Setting from '../Setting.svelte';

	/** Other default pictures for some pages of a type: for listings by what they list, say. */
	const bench = benchInView();

	const type = $derived(bench.working.type);
	const by = $derived(type?.pictureBy);
	const fields = $derived([
		...(type?.special === 'listing' ? [{ name: 'listing', label: 'what it lists' }] : []),
		...(type?.fields ?? []).filter(({ kind }) => kind === 'text')
	]);
	/** What the field says on the page in view: the value that is offered first. */
	const here = $derived(
		by?.field === 'listing'
			? (bench.working.page.listing?.title ?? '')
			: toText(bench.working.page.fields[by?.field ?? ''])
	);
	let value = $state('');

	const mention = (text: string): PictureMention => ({ src: text });
	function setField(field: string) {
		bench.change('type', { pictureBy: field === '' ? null : { field, pictures: by?.pictures ?? {} } });
	}
	function setPictures(pictures: NonNullable<ContentType['pictureBy']>['pictures']) {
		if (by) bench.change('type', { pictureBy: { ...by, pictures } });
	}
	function add(picture: string) {
		const name = value.trim() || here;
		if (name === '' || picture === '') return;
		setPictures({ ...by?.pictures, [name]: mention(picture) });
		value = '';
	}
</script>

{#if fields.length > 0}
	<Setting name="Another default for some" hint="By what a field of the page says, such as the category of a listing.">
		<Select
			value={by?.field ?? ''}
			choices={[
				['', 'The same for all'],
				...fields.map((field) => [field.name, `By ${field.label ?? field.name}`] as const)
			]}
			set={setField}
		/>
	</Setting>
{/if}
{#if by}
	<ul aria-label="Default pictures by {by.field}">
		{#each Object.entries(by.pictures) as [name, picture] (name)}
			<li class="mt-0.75 flex items-center gap-2 text-sm">
				<span class="font-serif">{name}</span>
				<span class="flex-1 truncate font-mono text-ink-soft">{picture.src}</span>
				<Button
					aria-label="Take out the picture for {name}"
					onclick={() =>
						setPictures(Object.fromEntries(Object.entries(by.pictures).filter(([other]) => other !== name)))}>×</Button
				>
			</li>
		{/each}
	</ul>
	<Setting name="For pages where it says">
		<input placeholder={here} bind:value />
	</Setting>
	<PictureField name="the picture is" src="" set={add} />
{/if}
