<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import type { Action } from '$ui/workspace/actions';
	import { FIELD_KINDS, sameJson, type Field, type FieldKind, type FieldUse } from '$core';
	import { call, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import { kindNames, wordedKind } from '../fieldValues';
	import ValueWordsList from '../ValueWordsList.svelte';

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
	/** The fields as they are kept, by name: what differs waits. */
	const kept = $derived(
		new Map(
			bench.data.types.find(({ name }) => name === bench.working.type?.name)?.fields?.map((one) => [one.name, one])
		)
	);
	const waits = (field: Field) => !sameJson(kept.get(field.name), field);
	const placeOf = ({ layer, of }: FieldUse) =>
		layer === 'site' ? wording.theSite : layer === 'type' ? wording.every(of) : of;
</script>

<h3 class="mt-3 text-sm font-semibold">{wording.fields}</h3>
<ul>
	{#each fields as field (field.name)}
		<li class="mt-1 text-sm" data-field={field.name}>
			<div class="row flex items-end gap-2">
				<button
					class="name flex-1 text-left font-mono underline-offset-3 [text-decoration:underline_dotted]"
					aria-expanded={open === field.name}
					onclick={() => look(field.name)}>{field.name}</button
				>
				{#if waits(field)}<span class="text-flag"
						>{wording.notKeptYet(kept.has(field.name) ? wording.changed : '')}</span
					>{/if}
				<Select
					aria-label={wording.kindOf(field.name)}
					value={field.kind}
					choices={FIELD_KINDS.map((kind) => [kind, kindNames()[kind]] as const)}
					set={(kind: FieldKind) => setField(field.name, { kind })}
				/>
			</div>
			{#if open === field.name}
				<div class="more mx-0 mt-1 mb-2 border-l-3 border-l-rule-strong pl-2 text-sm">
					<label class="block text-ink-soft"
						>{wording.inWords}
						<input
							class="w-full"
							value={field.label ?? ''}
							placeholder={field.name}
							oninput={(event) => setField(field.name, { label: event.currentTarget.value })}
						/></label
					>
					{#if wordedKind(field.kind)}
						<ValueWordsList {field} set={(words) => setWords(field.name, words)} />
					{/if}
					<form
						class="row mt-2 flex items-end gap-2"
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
						<label class="block min-w-0 flex-1 text-ink-soft"
							>{wording.nameInTemplates} <input class="w-full font-mono" bind:value={newName} /></label
						>
						<Button disabled={named(newName) === '' || named(newName) === field.name}>{wording.rename}</Button>
					</form>
					{#if uses}
						<p class="mt-1.25" role="status">
							{#if uses.length === 0}{wording.noTemplateAsksForIt}
							{:else}{wording.forItRenamingChangesTooAnd(
									uses.length === 1 ? wording.oneTemplateAsks : wording.templatesAsk(uses.length),
									uses.length === 1 ? wording.it : wording.them
								)}{/if}
						</p>
						<ul class="uses mx-0 mt-0.5 mb-1.25 wrap-anywhere">
							{#each uses.slice(0, 12) as use, at (at)}
								<li class="mt-1 text-sm">
									<span class="font-mono">{use.isLayout ? wording.sharePicture2(use.tag) : use.tag}</span>
									{wording.at(placeOf(use))}
									<span class="font-mono">{use.template || wording.aSourceOfPictures}</span>
								</li>
							{/each}
							{#if uses.length > 12}<li class="mt-1 text-sm text-ink-soft">
									{wording.andMore2(uses.length - 12)}
								</li>{/if}
						</ul>
					{:else}<p class="mt-1.25 text-ink-soft">{wording.lookingForWhatAsksForIt}</p>{/if}
					<Button look="link" disabled={!uses} onclick={() => set(fields.filter(({ name }) => name !== field.name))}
						>{wording.declareItNoMore(
							uses?.length
								? wording.toNothingThere(uses.length === 1 ? wording.thatTemplateComes : wording.thoseTemplatesCome)
								: ''
						)}</Button
					>
				</div>
			{/if}
		</li>
	{:else}<li class="mt-1 text-sm text-ink-soft">{wording.noneOfItsOwnOnlyWhatEvery}</li>{/each}
</ul>
<form class="row mt-2 flex items-end gap-2" onsubmit={addField}>
	<input
		class="min-w-0 flex-1 font-mono"
		aria-label={wording.nameOfANewField}
		placeholder={wording.region}
		bind:value={fieldName}
	/>
	<Button disabled={fieldName.trim() === ''}>{wording.addField}</Button>
</form>
