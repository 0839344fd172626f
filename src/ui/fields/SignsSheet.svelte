<script lang="ts">
	import { wording } from '$ui/words/en/fields';
	import Button from '$ui/parts/Button.svelte';
	import { FILTERS, SIGNS, type FilterSpec, type Sign } from '$core';
	import Sheet from '$ui/parts/Sheet.svelte';

	/** What the signs and filters of the language are: those of the template first. */
	let { open = $bindable(), template }: { open: boolean; template: string } = $props();
	const used = $derived(SIGNS.filter(({ isIn }) => isIn(template)));
	const others = $derived(SIGNS.filter((one) => !used.includes(one)));
	const calls = $derived(
		Object.entries(FILTERS).filter(([name]) => new RegExp(`\\|\\s*${name}\\b`).test(template.slice(0, 2000)))
	);
	const rest = $derived(Object.entries(FILTERS).filter(([name]) => !calls.some(([one]) => one === name)));
	const shown = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value));
</script>

{#snippet signs(list: readonly Sign[])}
	<dl class="text-sm">
		{#each list as { sign, purpose, template: written, gives } (sign)}
			<div class="grid grid-cols-[170px_minmax(0,1fr)] gap-3 border-t border-t-rule px-0 py-1">
				<dt class="font-mono wrap-anywhere">{sign}</dt>
				<dd>
					{purpose}
					<span class="example block wrap-anywhere text-ink-soft"
						><span class="font-mono">{written}</span> {wording.gives} <span class="font-serif">{gives}</span></span
					>
				</dd>
			</div>
		{/each}
	</dl>
{/snippet}
{#snippet filters(list: readonly (readonly [string, FilterSpec])[])}
	<dl class="text-sm">
		{#each list as [name, { purpose, example: [value, call, gives] }] (name)}
			<div class="grid grid-cols-[170px_minmax(0,1fr)] gap-3 border-t border-t-rule px-0 py-1">
				<dt class="font-mono wrap-anywhere">{name}</dt>
				<dd>
					{purpose}
					<span class="example block wrap-anywhere text-ink-soft"
						><span class="font-serif">{shown(value)}</span> <span class="font-mono">| {call}</span>
						{wording.gives}
						<span class="font-serif">{gives || wording.nothing}</span></span
					>
				</dd>
			</div>
		{/each}
	</dl>
{/snippet}

<Sheet bind:open title={wording.signsAndFilters} size="wide">
	{#if used.length + calls.length > 0}
		<h3 class="mx-0 mt-3 mb-1 text-base font-semibold">{wording.inThisTemplate}</h3>
		{@render signs(used)}
		{@render filters(calls)}
	{/if}
	{#if others.length > 0}
		<h3 class="mx-0 mt-3 mb-1 text-base font-semibold">{used.length > 0 ? wording.otherSigns : wording.signs}</h3>
		{@render signs(others)}
	{/if}
	<h3 class="mx-0 mt-3 mb-1 text-base font-semibold">{calls.length > 0 ? wording.otherFilters : wording.filters}</h3>
	{@render filters(rest)}
	<p class="mt-3"><Button onclick={() => (open = false)}>{wording.close}</Button></p>
</Sheet>
