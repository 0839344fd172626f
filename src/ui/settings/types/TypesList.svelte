<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import { pagesInWords } from '$ui/parts/words';
	import { typeAt } from '$ui/places/rooms';
	import type { Action } from '$ui/workspace/actions';
	import { benchInView } from '$ui/workspace/context';

	/** All types, with or without pages: what each has, and the way to its settings or to its first page. */
	let { act }: { act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();
	const count = (name: string) => bench.data.count.byType[name] ?? 0;
	const several = (number: number, one: string) => `${number} ${one}${number === 1 ? '' : 's'}`;
</script>

<ul data-testid="types">
	{#each bench.data.types as type (type.name)}
		<li class="flex flex-wrap items-baseline gap-x-2 border-t border-t-rule py-1 first:border-t-0">
			{#if count(type.name) > 0}
				<a class="font-semibold underline underline-offset-2" href={typeAt(bench.data.site.name, type.name)}
					>{type.label ?? type.name}</a
				>
			{:else}<span class="font-semibold">{type.label ?? type.name}</span>{/if}
			<span class="text-ink-soft"
				>{count(type.name) > 0 ? pagesInWords(count(type.name)) : wording.noPagesYet} · {several(
					type.fields.length,
					'field'
				)} · {several(type.rules.length, 'rule')}{type.off ? wording.switchedOff2 : ''}</span
			>
			{#if count(type.name) === 0}<Button
					look="link"
					class="ml-auto"
					onclick={() => void act({ do: 'makePage', type: type.name })}>{wording.makeItsFirstPage}</Button
				>{/if}
		</li>
	{/each}
</ul>
