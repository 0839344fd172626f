<script lang="ts">
	import type { Field, FieldValue } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import FieldInput from './FieldInput.svelte';
	import { fieldsOfPage } from './fieldValues';

	/** What the page itself says: the fields of its type and those that every page has. */
	const bench = benchInView();

	const page = $derived(bench.working.page);
	const fields = $derived(fieldsOfPage(bench.working.type, page));
	const held = $derived(new Set(page.held));
	const SOURCES = { folder: 'its file', web: 'its address', table: 'its table' } as const;
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

<p class="quiet">
	What this page says by itself. Templates take it from here.
	{#if source}What you write here stays when the page is read from {source} again.{/if}
</p>
<DraftNote draftKey={JSON.stringify([bench.placeOf('page')])} />
{#each fields as { field, isOwn } (field.name)}
	<div class="one" class:own={isOwn}>
		<FieldInput {field} value={page.fields[field.name]} set={(value) => set(field, value)} />
		<p class="quiet from">
			<span class="mono">{`{page.${field.name}}`}</span>
			{#if held.has(field.name)}
				written here{#if source}
					· <button class="link" onclick={() => giveFree(field.name)}>Let the next reading write it</button>{/if}
			{:else if page.fields[field.name] === undefined}empty
			{:else if source}from {source}; the next reading writes it again
			{:else}came with the page{/if}
		</p>
	</div>
{/each}

<style>
	.one {
		margin-top: 11px;
	}
	.own {
		border-left: 3px solid var(--rule-strong);
		padding-left: 8px;
	}
	.from {
		margin-top: 1px;
		font-size: 12px;
	}
</style>
