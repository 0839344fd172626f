<script lang="ts">
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
	<dl>
		{#each list as { sign, purpose, template: written, gives } (sign)}
			<div>
				<dt class="mono">{sign}</dt>
				<dd>
					{purpose}
					<span class="example"><span class="mono">{written}</span> gives <span class="serif">{gives}</span></span>
				</dd>
			</div>
		{/each}
	</dl>
{/snippet}
{#snippet filters(list: readonly (readonly [string, FilterSpec])[])}
	<dl>
		{#each list as [name, { purpose, example: [value, call, gives] }] (name)}
			<div>
				<dt class="mono">{name}</dt>
				<dd>
					{purpose}
					<span class="example"
						><span class="serif">{shown(value)}</span> <span class="mono">| {call}</span> gives
						<span class="serif">{gives || 'nothing'}</span></span
					>
				</dd>
			</div>
		{/each}
	</dl>
{/snippet}

<Sheet bind:open title="Signs and filters" wide>
	{#if used.length + calls.length > 0}
		<h3>In this template</h3>
		{@render signs(used)}
		{@render filters(calls)}
	{/if}
	{#if others.length > 0}
		<h3>{used.length > 0 ? 'Other signs' : 'Signs'}</h3>
		{@render signs(others)}
	{/if}
	<h3>{calls.length > 0 ? 'Other filters' : 'Filters'}</h3>
	{@render filters(rest)}
	<p><button class="plain-button" onclick={() => (open = false)}>Close</button></p>
</Sheet>

<style>
	h3 {
		margin: 12px 0 4px;
		font-size: 13.5px;
		font-weight: 600;
	}
	dl {
		font-size: 13px;
	}
	dl > div {
		display: grid;
		grid-template-columns: 170px minmax(0, 1fr);
		gap: 12px;
		border-top: 1px solid var(--rule);
		padding: 4px 0;
	}
	dt {
		overflow-wrap: anywhere;
	}
	.example {
		display: block;
		color: var(--ink-soft);
		overflow-wrap: anywhere;
	}
	p {
		margin-top: 12px;
	}
</style>
