<script lang="ts">
	import { CATALOGUE } from '$core';
	import type { PageFilter } from '$server/store/table/grid';
	import { COLUMNS, findingInWords } from './columns';

	/** What the table shows: words to find, and what must be so of each page. */
	let {
		filter,
		types,
		languages,
		findings,
		filters,
		shown,
		setFilter,
		keepFilter,
		dropFilter,
		toggleColumn
	}: {
		filter: PageFilter;
		types: readonly { readonly name: string; readonly label: string }[];
		languages: readonly string[];
		findings: readonly string[];
		filters: readonly { readonly name: string; readonly query: string }[];
		shown: readonly string[];
		setFilter: (filter: PageFilter) => void;
		keepFilter: (name: string) => void;
		dropFilter: (name: string) => void;
		toggleColumn: (id: string) => void;
	} = $props();

	const LAYERS = ['page', 'found', 'type', 'site', 'built-in'] as const;
	const PARTS = [
		['title', 'title'],
		['description', 'description'],
		['picture', 'picture']
	] as const;
	/** Those that the other rooms set, in words. */
	const told = $derived(
		[
			filter.finding && [
				'finding',
				`with “${filter.finding.split(',').map(findingInWords).join('” or “')}”${filter.of ? ` in ${filter.of}` : ''}`
			],
			filter.title && ['title', `titled “${filter.title}”`],
			filter.description && ['description', `described “${filter.description.slice(0, 40)}”`],
			filter.picture && ['picture', `showing ${filter.picture.split('/').at(-1)}`]
		].filter(Boolean) as [keyof PageFilter, string][]
	);
	const isSet = $derived(Object.values(filter).some(Boolean));
	let timer: ReturnType<typeof setTimeout> | undefined;
	let name = $state('');

	const set = (key: keyof PageFilter, value: string) => {
		const { [key]: _before, ...rest } = filter;
		const others = key === 'finding' ? (({ of: _of, ...more }) => more)(rest as PageFilter) : rest;
		setFilter({ ...others, ...(value && { [key]: value }) });
	};
	function find(event: Event & { currentTarget: HTMLInputElement }) {
		const { value } = event.currentTarget;
		clearTimeout(timer);
		timer = setTimeout(() => set('q', value), 160);
	}
	const apply = (query: string) => setFilter(Object.fromEntries(new URLSearchParams(query)));
</script>

{#snippet choice(key: keyof PageFilter, label: string, options: readonly (readonly [string, string])[])}
	<select
		aria-label={label}
		class:set={filter[key]}
		value={filter[key] ?? ''}
		onchange={(event) => set(key, event.currentTarget.value)}
	>
		<option value="">{label}</option>
		{#each options as [value, text] (value)}<option {value}>{text}</option>{/each}
	</select>
{/snippet}

<div class="bar" role="search">
	<input
		type="search"
		aria-label="Find pages"
		placeholder="Find words, or a path"
		value={filter.q ?? ''}
		oninput={find}
	/>
	{@render choice(
		'type',
		'Any type',
		types.map(({ name, label }) => [name, label])
	)}
	{@render choice('language', 'Any language', [...languages.map((tag) => [tag, tag] as const), ['-', 'not known']])}
	{@render choice('state', 'Any state', [
		['live', 'live'],
		['draft', 'draft'],
		['private', 'private']
	])}
	{@render choice(
		'finding',
		'Any finding',
		[...new Set([...(filter.finding ? [filter.finding] : []), ...findings])].map((code) => [
			code,
			code.split(',').map(findingInWords).join(' or ')
		])
	)}
	{@render choice('differs', 'Released or not', [
		['yes', 'differs from the release'],
		['changed', 'changed'],
		['new', 'never released'],
		['leaves', 'leaves']
	])}
	{@render choice(
		'from',
		'From any layer',
		PARTS.flatMap(([part, text]) =>
			LAYERS.map(
				(layer) => [`${part}:${layer}`, layer === 'found' ? `${text} as found` : `${text} from the ${layer}`] as const
			)
		)
	)}
	{@render choice(
		'without',
		'With any tags',
		CATALOGUE.filter((tag) => !tag.fact && !tag.legacy).map((tag) => [tag.name, `without ${tag.name}`])
	)}
	{@render choice('key', 'All pages', [['yes', 'key pages only']])}
	<details>
		<summary>Columns</summary>
		<div class="sheet">
			{#each COLUMNS as { id, name } (id)}
				<label><input type="checkbox" checked={shown.includes(id)} onchange={() => toggleColumn(id)} /> {name}</label>
			{/each}
		</div>
	</details>
	<details>
		<summary>Named filters{filters.length > 0 ? ` (${filters.length})` : ''}</summary>
		<div class="sheet">
			{#each filters as one (one.name)}
				<p class="named">
					<button class="link" onclick={() => apply(one.query)}>{one.name}</button>
					<button class="plain-button" aria-label="Forget the filter {one.name}" onclick={() => dropFilter(one.name)}
						>Forget</button
					>
				</p>
			{/each}
			<p class="named">
				<input aria-label="Name for this filter" placeholder="Name for this filter" bind:value={name} />
				<button
					class="plain-button"
					disabled={name.trim() === '' || !isSet}
					onclick={() => (keepFilter(name), (name = ''))}>Keep</button
				>
			</p>
		</div>
	</details>
</div>
{#if told.length > 0 || isSet}
	<p class="told">
		{#each told as [key, text] (key)}
			<button class="plain-button" onclick={() => set(key, '')} title="Take this out of the filter">{text} ✕</button>
		{/each}
		<button class="link" onclick={() => setFilter({})}>All pages again</button>
	</p>
{/if}

<style>
	.bar,
	.told {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 8px;
		background: var(--sheet);
		padding: 4px 16px 8px;
		font-size: 13px;
	}
	.told {
		padding-top: 0;
	}
	.bar {
		position: relative;
		z-index: 5;
	}
	input[type='search'] {
		flex: 1;
		min-width: 180px;
		max-width: 420px;
	}
	select {
		max-width: 132px;
	}
	select.set {
		max-width: 180px;
		border-color: var(--sea);
		background: var(--sea-wash);
		font-weight: 600;
	}
	details {
		position: relative;
	}
	summary {
		cursor: pointer;
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	.sheet {
		position: absolute;
		right: 0;
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		box-shadow: 0 4px 14px rgb(0 0 0 / 18%);
		padding: 9px 12px;
		white-space: nowrap;
	}
	.sheet label {
		display: block;
	}
	.named {
		display: flex;
		gap: 8px;
		justify-content: space-between;
		margin: 2px 0;
	}
</style>
