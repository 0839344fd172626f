<script lang="ts">
	import { wording } from '$ui/words/en/settings';
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
		...(type?.special === 'listing' ? [{ name: 'listing', label: wording.whatItLists }] : []),
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
	<Setting name={wording.anotherDefaultForSome} hint={wording.byWhatAFieldOfThePage}>
		<Select
			value={by?.field ?? ''}
			choices={[
				['', wording.theSameForAll],
				...fields.map((field) => [field.name, wording.by(field.label ?? field.name)] as const)
			]}
			set={setField}
		/>
	</Setting>
{/if}
{#if by}
	<ul aria-label={wording.defaultPicturesBy(by.field)}>
		{#each Object.entries(by.pictures) as [name, picture] (name)}
			<li class="mt-0.75 flex items-center gap-2 text-sm">
				<span class="font-serif">{name}</span>
				<span class="flex-1 truncate font-mono text-ink-soft">{picture.src}</span>
				<Button
					aria-label={wording.takeOutThePictureFor(name)}
					onclick={() =>
						setPictures(Object.fromEntries(Object.entries(by.pictures).filter(([other]) => other !== name)))}>×</Button
				>
			</li>
		{/each}
	</ul>
	<Setting name={wording.forPagesWhereItSays}>
		<input placeholder={here} bind:value />
	</Setting>
	<PictureField name={wording.thePictureIs} src="" set={add} />
{/if}
