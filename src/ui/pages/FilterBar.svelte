<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import Leaf from '$ui/parts/shown/Leaf.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { keepFocus } from '$ui/parts/shown/focus';
	import type { PageFilter } from '$server/store/table/grid';
	import type { ColumnLayout } from './layout.svelte';
	import { COLUMNS } from './columns';
	import { conditionsOf, withCondition } from './conditions';

	/** What the table shows: words to find, and what must be so of each page. */
	let {
		filter,
		types,
		languages,
		findings,
		filters,
		setFilter,
		keepFilter,
		dropFilter,
		layout
	}: {
		filter: PageFilter;
		types: readonly { readonly name: string; readonly label: string }[];
		languages: readonly string[];
		findings: readonly string[];
		filters: readonly { readonly name: string; readonly query: string }[];
		setFilter: (filter: PageFilter) => void;
		keepFilter: (name: string) => void;
		dropFilter: (name: string) => void;
		layout: ColumnLayout;
	} = $props();

	const conditions = $derived(conditionsOf({ types, languages, findings }, filter));
	const set = (key: keyof PageFilter, value: string) => change(withCondition(filter, key, value));
	function change(next: PageFilter) {
		setFilter(next);
		void keepFocus('[data-testid=conditions] [data-select]');
	}
	/** The finding may be one tag's. */
	const ofInWords = $derived(filter.of ? wording.inOne(filter.of) : '');
	/** What a condition is called among all, and back. */
	const nameOf = (key: string, value: string) => `${key} ${value}`;
	function add(name: string) {
		const at = name.indexOf(' ');
		if (at > 0) set(name.slice(0, at) as keyof PageFilter, name.slice(at + 1));
	}
	const isSet = $derived(Object.values(filter).some(Boolean));
	let timer: ReturnType<typeof setTimeout> | undefined;
	let name = $state('');

	function find(event: Event & { currentTarget: HTMLInputElement }) {
		const { value } = event.currentTarget;
		clearTimeout(timer);
		timer = setTimeout(() => set('q', value), 160);
	}
	const apply = (query: string) => setFilter(Object.fromEntries(new URLSearchParams(query)));
</script>

<div
	class="bar relative z-5 flex flex-wrap items-center gap-x-2 gap-y-1.5 bg-sheet px-4 pt-1 pb-2 text-sm"
	role="search"
>
	<input
		class="w-70"
		type="search"
		aria-label={wording.findPages}
		placeholder={wording.findWordsOrAPath}
		value={filter.q ?? ''}
		oninput={find}
	/>
	<p class="flex flex-wrap items-center gap-x-1.5 gap-y-1" data-testid="conditions">
		{#each conditions as { key, name, choices } (key)}
			{@const value = filter[key]}
			{#if value}
				<span class="inline-flex items-center rounded-sm bg-sea-wash">
					<Select
						look="bare"
						class="max-w-70 font-semibold text-ink"
						aria-label={name}
						{value}
						choices={key === 'finding'
							? choices.map(([code, words]) => [code, code === value ? words + ofInWords : words] as const)
							: choices}
						set={(other) => set(key, other)}
					/>
					<button class="px-1.5 hover:text-flag" aria-label={wording.noLongerOnly(name)} onclick={() => set(key, '')}
						>×</button
					>
				</span>
			{/if}
		{/each}
		<Select
			look="bare"
			aria-label={wording.onlyThose}
			value=""
			choices={[
				['', isSet ? wording.andOnlyThose : wording.onlyThose],
				...conditions.flatMap(({ key, choices }) =>
					choices
						.filter(([value]) => value !== '' && value !== filter[key])
						.map(([value, words]) => [nameOf(key, value), words] as const)
				)
			]}
			set={add}
		/>
		{#if isSet}<Button look="link" onclick={() => change({})}>{wording.allPagesAgain}</Button>{/if}
	</p>
	<span class="flex-1"></span>
	<Leaf label={wording.columns}>
		{#each [...layout.columns, ...COLUMNS.filter(({ id }) => !layout.shown.includes(id))] as { id, name } (id)}
			{@const place = layout.shown.indexOf(id)}
			<p class="flex items-center gap-1.5">
				<label class="flex-1"
					><input type="checkbox" checked={place >= 0} disabled={id === 'path'} onchange={() => layout.toggle(id)} />
					{name}</label
				>
				{#if place > 0}
					<Button
						look="link"
						aria-label={wording.onePlaceToTheLeft(name)}
						disabled={place === 1}
						onclick={() => layout.move(id, -1)}>←</Button
					>
					<Button
						look="link"
						aria-label={wording.onePlaceToTheRight(name)}
						disabled={place === layout.shown.length - 1}
						onclick={() => layout.move(id, 1)}>→</Button
					>
				{/if}
			</p>
		{/each}
	</Leaf>
	<Leaf label={wording.namedFilters(filters.length > 0 ? ` (${filters.length})` : '')}>
		{#each filters as one (one.name)}
			<p class="named mx-0 my-0.5 flex justify-between gap-2">
				<Button look="link" onclick={() => apply(one.query)}>{one.name}</Button>
				<Button aria-label={wording.forgetTheFilter(one.name)} onclick={() => dropFilter(one.name)}
					>{wording.forget}</Button
				>
			</p>
		{/each}
		<p class="named mx-0 my-0.5 flex justify-between gap-2">
			<input aria-label={wording.nameForThisFilter} placeholder={wording.nameForThisFilter} bind:value={name} />
			<Button disabled={name.trim() === '' || !isSet} onclick={() => (keepFilter(name), (name = ''))}
				>{wording.keep}</Button
			>
		</p>
	</Leaf>
</div>
