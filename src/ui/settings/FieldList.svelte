<script lang="ts">
	import type { Action } from '$ui/workspace/actions';
	import { FIELD_KINDS, type Field, type FieldKind, type FieldUse } from '$core';
	import { call, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import { KIND_NAMES, wordedKind } from './fieldValues';
	import ValueWordsList from './ValueWordsList.svelte';

	/** The fields that a type declares: each with its kind, where templates use it, another name for it, and its end. */
	let { act }: { act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();

	const fields = $derived(bench.working.type?.fields ?? []);
	let fieldName = $state('');
	/** The field that is looked at, with what asks for it. */
	let open = $state<string | undefined>();
	let uses = $state.raw<readonly FieldUse[] | undefined>();
	let newName = $state('');

	const set = (list: readonly Field[]) => bench.change('type', { fields: list });
	const setField = (name: string, change: Partial<Field>) =>
		set(fields.map((field) => (field.name === name ? { ...field, ...change } : field)));
	const setWords = (name: string, words: Field['words'] | undefined) =>
		set(
			fields.map((field) => {
				if (field.name !== name) return field;
				const { words: _old, ...rest } = field;
				return words ? { ...rest, words } : rest;
			})
		);
	const named = (text: string) => text.trim().replace(/[^\p{L}\p{N}_]+/gu, '_');
	function addField(event: SubmitEvent) {
		event.preventDefault();
		const name = named(fieldName);
		if (name === '' || fields.some((field) => field.name === name)) return;
		set([...fields, { name, kind: 'text' }]);
		fieldName = '';
	}
	async function look(name: string) {
		[open, uses, newName] = [open === name ? undefined : name, undefined, name];
		if (open === undefined || !bench.working.type) return;
		const found = await call('GET /sites/{site}/types/uses', {
			site: bench.data.site.name,
			query: { type: bench.working.type.name, field: name }
		});
		if (isRefused(found)) bench.message = found.refused;
		else if (open === name) uses = found.uses;
	}
	const placeOf = ({ layer, of }: FieldUse) => (layer === 'site' ? 'the site' : layer === 'type' ? `every ${of}` : of);
</script>

<h3>Fields</h3>
<ul>
	{#each fields as field (field.name)}
		<li data-field={field.name}>
			<div class="row">
				<button class="mono name" aria-expanded={open === field.name} onclick={() => look(field.name)}
					>{field.name}</button
				>
				<select
					aria-label="Kind of {field.name}"
					value={field.kind}
					onchange={(event) => setField(field.name, { kind: event.currentTarget.value as FieldKind })}
				>
					{#each FIELD_KINDS as kind (kind)}<option value={kind}>{KIND_NAMES[kind]}</option>{/each}
				</select>
			</div>
			{#if open === field.name}
				<div class="more">
					<label
						>In words <input
							value={field.label ?? ''}
							placeholder={field.name}
							oninput={(event) => setField(field.name, { label: event.currentTarget.value })}
						/></label
					>
					{#if wordedKind(field.kind)}
						<ValueWordsList {field} set={(words) => setWords(field.name, words)} />
					{/if}
					<form
						class="row"
						onsubmit={(event) => {
							event.preventDefault();
							void act({
								do: 'renameField',
								name: bench.working.type?.name ?? '',
								field: field.name,
								to: named(newName)
							});
						}}
					>
						<label class="grow">Name in templates <input class="mono" bind:value={newName} /></label>
						<button class="plain-button" disabled={named(newName) === '' || named(newName) === field.name}
							>Rename</button
						>
					</form>
					{#if uses}
						<p role="status">
							{#if uses.length === 0}No template asks for it.
							{:else}{uses.length === 1 ? 'One template asks' : `${uses.length} templates ask`} for it. Renaming changes {uses.length ===
								1
									? 'it'
									: 'them'} too, and what the pages say stays.{/if}
						</p>
						<ul class="uses">
							{#each uses.slice(0, 12) as use, at (at)}
								<li>
									<span class="mono">{use.isLayout ? `share picture, ${use.tag}` : use.tag}</span> at {placeOf(use)}:
									<span class="mono">{use.template || 'a source of pictures'}</span>
								</li>
							{/each}
							{#if uses.length > 12}<li class="quiet">… and {uses.length - 12} more</li>{/if}
						</ul>
					{:else}<p class="quiet">Looking for what asks for it …</p>{/if}
					<button class="link" disabled={!uses} onclick={() => set(fields.filter(({ name }) => name !== field.name))}
						>Declare it no more{uses?.length
							? `: ${uses.length === 1 ? 'that template comes' : 'those templates come'} to nothing there`
							: ''}</button
					>
				</div>
			{/if}
		</li>
	{:else}<li class="quiet">None of its own: only what every page has.</li>{/each}
</ul>
<form class="row" onsubmit={addField}>
	<input class="mono grow" aria-label="Name of a new field" placeholder="region" bind:value={fieldName} />
	<button class="plain-button" disabled={fieldName.trim() === ''}>Add field</button>
</form>

<style>
	h3 {
		margin-top: 12px;
		font-size: 13px;
		font-weight: 600;
	}
	li {
		margin-top: 4px;
		font-size: 13px;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: end;
	}
	form {
		margin-top: 8px;
	}
	.name {
		flex: 1;
		text-align: left;
		text-decoration: underline dotted;
		text-underline-offset: 3px;
	}
	.grow {
		flex: 1;
		min-width: 0;
	}
	.more {
		margin: 4px 0 8px;
		border-left: 3px solid var(--rule-strong);
		padding-left: 8px;
		font-size: 12.5px;
	}
	.more label {
		display: block;
		color: var(--ink-soft);
	}
	.more input {
		width: 100%;
	}
	.more p {
		margin-top: 5px;
	}
	.uses {
		margin: 2px 0 5px;
		overflow-wrap: anywhere;
	}
	.uses li {
		font-size: 12.5px;
	}
</style>
