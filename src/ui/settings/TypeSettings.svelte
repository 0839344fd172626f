<script lang="ts">
	import { CATALOGUE, FIELD_KINDS, findTag, SPECIAL_KINDS, STARTING_SETS, type Field, type FieldKind } from '$core';
	import type { Bench } from '$ui/bench/bench.svelte';
	import DefaultPictures from './DefaultPictures.svelte';
	import PictureField from './PictureField.svelte';
	import Setting from './Setting.svelte';

	/** What a content type is: its fields, its kind, what it is special for, and a starting set to take. */
	let { bench, act }: { bench: Bench; act: (action: Readonly<Record<string, string>>) => void } = $props();

	const type = $derived(bench.type);
	const fields = $derived(type?.fields ?? []);
	const kinds = findTag('og:type')?.choices ?? [];
	/** The tags that go with its kind: each is filled by a rule of its own. */
	const properties = $derived(
		CATALOGUE.filter((tag) => tag.name.startsWith(`${(type?.kind ?? 'website').split('.')[0]}:`) && !tag.parent)
	);
	let fieldName = $state('');
	let newType = $state('');

	const set = (list: readonly Field[]) => bench.change('type', { fields: list });
	const setField = (at: number, change: Partial<Field>) =>
		set(fields.map((field, index) => (index === at ? { ...field, ...change } : field)));
	function addField(event: SubmitEvent) {
		event.preventDefault();
		const name = fieldName.trim().replace(/[^\p{L}\p{N}_]+/gu, '_');
		if (name === '' || fields.some((field) => field.name === name)) return;
		set([...fields, { name, kind: 'text' }]);
		fieldName = '';
	}
	const SPECIAL = { home: 'the home page', listing: 'pages that list others', 'not-found': 'the not-found page' };
</script>

{#if type}
	<Setting name="What one of them is called">
		<input
			value={type.label ?? type.name}
			onchange={(event) => bench.change('type', { label: event.currentTarget.value.trim() || null })}
		/>
	</Setting>
	<Setting name="These pages are videos" hint="The mark for video is laid over their pictures.">
		<input
			type="checkbox"
			checked={type.playMark ?? false}
			onchange={(event) => bench.change('type', { playMark: event.currentTarget.checked || null })}
		/>
	</Setting>
	<Setting
		name="Kind (og:type)"
		hint="Its properties, such as article:author, are filled from the fields of the same meaning."
	>
		<select
			value={type.kind === 'website' ? '' : (type.kind ?? '')}
			onchange={(event) => bench.change('type', { kind: event.currentTarget.value || null })}
		>
			<option value="">website</option>
			{#each kinds.filter((kind) => kind !== 'website') as kind (kind)}<option>{kind}</option>{/each}
		</select>
	</Setting>
	{#if properties.length > 0}
		<h3>Its properties</h3>
		<ul>
			{#each properties as tag (tag.name)}
				<li>
					<button class="mono link" onclick={() => act({ do: 'tag', name: tag.name })}>{tag.name}</button>
					<span class="serif here">{bench.lines.find((line) => line.tag === tag.name)?.value ?? 'nothing here'}</span>
				</li>
			{/each}
		</ul>
	{/if}
	<Setting name="Special">
		<select
			value={type.special ?? ''}
			onchange={(event) =>
				bench.change('type', { special: (event.currentTarget.value || null) as (typeof SPECIAL_KINDS)[number] | null })}
		>
			<option value="">no</option>
			{#each SPECIAL_KINDS as special (special)}<option value={special}>for {SPECIAL[special]}</option>{/each}
		</select>
	</Setting>
	<PictureField
		{bench}
		name="Its own picture"
		hint="Stands in before the site’s. A path or an address."
		src={type.picture?.src ?? ''}
		set={(src) => bench.change('type', { picture: src === '' ? null : { src } })}
	/>
	<DefaultPictures {bench} />
	<Setting name="Switched off" hint="Its pages are left out of releases.">
		<input
			type="checkbox"
			checked={type.off === true}
			onchange={(event) => bench.change('type', { off: event.currentTarget.checked || null })}
		/>
	</Setting>

	<h3>Fields</h3>
	<ul>
		{#each fields as field, at (at)}
			<li>
				<span class="mono">{field.name}</span>
				<select
					aria-label="Kind of {field.name}"
					value={field.kind}
					onchange={(event) => setField(at, { kind: event.currentTarget.value as FieldKind })}
				>
					{#each FIELD_KINDS as kind (kind)}<option>{kind}</option>{/each}
				</select>
				<button
					class="plain-button"
					aria-label="Take the field {field.name} out"
					onclick={() => set(fields.filter((_, other) => other !== at))}>×</button
				>
			</li>
		{:else}<li class="quiet">None of its own: only what every page has.</li>{/each}
	</ul>
	<form class="row" onsubmit={addField}>
		<input class="mono" aria-label="Name of a new field" placeholder="region" bind:value={fieldName} />
		<button class="plain-button" disabled={fieldName.trim() === ''}>Add field</button>
	</form>

	<details>
		<summary>Starting sets</summary>
		<p class="quiet">
			Fields and templates for a common kind of page, to take and change. Rules of the same tags are replaced.
		</p>
		<ul>
			{#each STARTING_SETS as one (one.name)}
				<li>
					<span class="grow"><strong>{one.label}</strong> <span class="quiet">{one.purpose}</span></span>
					<button class="plain-button" onclick={() => act({ do: 'set', name: type.name, set: one.name })}>Take</button>
				</li>
			{/each}
		</ul>
	</details>
	<details>
		<summary>Another type</summary>
		<form
			class="row"
			onsubmit={(event) => {
				event.preventDefault();
				act({ do: 'type', name: newType.trim() });
				newType = '';
			}}
		>
			<input aria-label="Name of a new type" placeholder="recipe" bind:value={newType} />
			<button class="plain-button" disabled={newType.trim() === ''}>Add type</button>
		</form>
	</details>
{/if}

<style>
	h3 {
		margin-top: 12px;
		font-size: 13px;
		font-weight: 600;
	}
	li {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 4px;
		font-size: 13px;
	}
	li > :first-child {
		flex: 1;
	}
	.link {
		flex: none !important;
		font-size: 12.5px;
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	.here {
		flex: 1;
		overflow: hidden;
		text-align: right;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.row {
		display: flex;
		gap: 8px;
		margin-top: 6px;
	}
	.row input {
		flex: 1;
		min-width: 0;
	}
	details {
		margin-top: 10px;
		font-size: 13px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
</style>
