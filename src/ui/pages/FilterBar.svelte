<script lang="ts">
	import Button from '$ui/parts/Button.svelte';
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
		class="max-w-33 [&.set]:max-w-45 [&.set]:border-sea [&.set]:bg-sea-wash [&.set]:font-semibold"
		aria-label={label}
		class:set={filter[key]}
		value={filter[key] ?? ''}
		onchange={(event) => set(key, event.currentTarget.value)}
	>
		<option value="">{label}</option>
		{#each options as [value, text] (value)}<option {value}>{text}</option>{/each}
	</select>
{/snippet}

<div
	class="bar relative z-5 flex flex-wrap items-center gap-x-2 gap-y-1.5 bg-sheet px-4 pt-1 pb-2 text-sm"
	role="search"
>
	<input
		class="max-w-105 min-w-45 flex-1"
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
	<details class="relative">
		<summary class="cursor-pointer underline underline-offset-2">Columns</summary>
		<div class="sheet absolute right-0 border border-rule-strong bg-sheet px-3 py-2.25 whitespace-nowrap shadow-over">
			{#each COLUMNS as { id, name } (id)}
				<label class="block"
					><input type="checkbox" checked={shown.includes(id)} onchange={() => toggleColumn(id)} /> {name}</label
				>
			{/each}
		</div>
	</details>
	<details class="relative">
		<summary class="cursor-pointer underline underline-offset-2"
			>Named filters{filters.length > 0 ? ` (${filters.length})` : ''}</summary
		>
		<div class="sheet absolute right-0 border border-rule-strong bg-sheet px-3 py-2.25 whitespace-nowrap shadow-over">
			{#each filters as one (one.name)}
				<p class="named mx-0 my-0.5 flex justify-between gap-2">
					<Button look="link" onclick={() => apply(one.query)}>{one.name}</Button>
					<Button aria-label="Forget the filter {one.name}" onclick={() => dropFilter(one.name)}>Forget</Button>
				</p>
			{/each}
			<p class="named mx-0 my-0.5 flex justify-between gap-2">
				<input aria-label="Name for this filter" placeholder="Name for this filter" bind:value={name} />
				<Button disabled={name.trim() === '' || !isSet} onclick={() => (keepFilter(name), (name = ''))}>Keep</Button>
			</p>
		</div>
	</details>
</div>
{#if told.length > 0 || isSet}
	<p class="told flex flex-wrap items-center gap-x-2 gap-y-1.5 bg-sheet px-4 pt-0 pb-2 text-sm">
		{#each told as [key, text] (key)}
			<Button onclick={() => set(key, '')} title="Take this out of the filter">{text} ✕</Button>
		{/each}
		<Button look="link" onclick={() => setFilter({})}>All pages again</Button>
	</p>
{/if}
