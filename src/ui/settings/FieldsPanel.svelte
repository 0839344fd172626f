<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import type { Field, FieldValue } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import Explain from '$ui/help/Explain.svelte';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import FieldInput from './FieldInput.svelte';
	import { fieldsOfPage } from './fieldValues';

	/** What the page itself says: the fields of its type and those that every page has. */
	const bench = benchInView();

	const page = $derived(bench.working.page);
	const fields = $derived(fieldsOfPage(bench.working.type, page));
	const held = $derived(new Set(page.held));
	const SOURCES = { folder: wording.itsFile, web: wording.itsAddress, table: wording.itsTable } as const;
	const source = $derived(bench.data.cameFrom && SOURCES[bench.data.cameFrom]);

	function set(field: Field, value: FieldValue | undefined) {
		const { [field.name]: _before, ...others } = page.fields;
		bench.changeFields(value === undefined ? others : { ...others, [field.name]: value });
	}
	function giveFree(name: string) {
		const rest = (page.held ?? []).filter((one) => one !== name);
		bench.change('page', { held: rest.length > 0 ? rest : null });
	}
</script>

<p class="text-ink-soft">
	{wording.whatThisPageSaysByItself}
	{#if source}{wording.whatYouWriteHereStaysWhenThe(source)}{/if}
</p>
<DraftNote draftKey={JSON.stringify([bench.placeOf('page')])} />
{#each fields as { field, isOwn } (field.name)}
	<div class="one mt-2.75 [&.own]:border-l-3 [&.own]:border-l-rule-strong [&.own]:pl-2" class:own={isOwn}>
		<FieldInput {field} value={page.fields[field.name]} set={(value) => set(field, value)} />
		<p class="from mt-px text-xs text-ink-soft">
			<span class="font-mono">{`{page.${field.name}}`}</span>
			<Explain topic={{ of: 'field', ...field }} called={field.label ?? field.name} />
			{#if held.has(field.name)}
				{wording.writtenHere}{#if source}
					· <Button look="link" onclick={() => giveFree(field.name)}>{wording.letTheNextReadingWriteIt}</Button>{/if}
			{:else if page.fields[field.name] === undefined}{wording.empty}
			{:else if source}{wording.fromTheNextReadingWritesIt(source)}
			{:else}{wording.cameWithThePage}{/if}
		</p>
	</div>
{/each}
