<script lang="ts">
	import { foundPolicyFor, textOfValue } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import LayerField from '$ui/fields/LayerField.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';

	/** All that this page alone says of its head: its own rules, what its file says and is taken, its own settings. */
	const bench = benchInView();

	const page = $derived(bench.working.page);
	const rules = $derived([...page.rules].sort((a, b) => a.tag.localeCompare(b.tag)));
	const found = $derived(bench.working.told.traces.filter((trace) => trace.steps[trace.winner]?.rule.kind === 'found'));
	const settings = $derived(
		[
			['hidden', page.hidden ? 'Hidden from search' : undefined],
			['families', page.families ? 'Families of tags switched on or off' : undefined],
			['playMark', page.playMark === undefined ? undefined : 'The mark for video'],
			['extra', page.extra ? 'Extra head markup' : undefined],
			['pinned', page.pinned ? `Pinned: ${Object.keys(page.pinned).join(', ')}` : undefined]
		].filter((one): one is ['hidden' | 'families' | 'playMark' | 'extra' | 'pinned', string] => one[1] !== undefined)
	);
	const aside = $derived(Object.entries(page.foundPolicy?.tags ?? {}));
	const stepsOf = (tag: string) =>
		bench.working.told.traces
			.find((trace) => trace.tag === tag)
			?.steps.filter(({ layer, rule }) => layer === 'page' && rule.kind !== 'found') ?? [];
</script>

<p class="quiet">What stands at this page alone, whatever its type and the site say.</p>
<h3>Its own tags</h3>
<ul>
	{#each rules as rule (rule.tag + (rule.language ?? ''))}
		<li class:open={bench.tag === rule.tag} data-own={rule.tag}>
			<div class="row">
				<LayerMark layer="page" />
				<button class="mono tag" aria-expanded={bench.tag === rule.tag} onclick={() => (bench.tag = rule.tag)}
					>{rule.tag}{rule.language ? ` (${rule.language})` : ''}</button
				>
				{#if bench.tag !== rule.tag}
					<span class="serif value">{textOfValue(bench.working.scope.valueOf(rule.tag)) || 'nothing'}</span>
				{/if}
				<button class="link" onclick={() => bench.proposeFor('page', rule.tag, null, rule.language)}>Set back</button>
			</div>
			{#if bench.tag === rule.tag}<LayerField layer="page" steps={stepsOf(rule.tag)} />{/if}
		</li>
	{:else}<li class="quiet">None: all comes from its type, the site and what is built in.</li>{/each}
</ul>
{#if found.length > 0}
	<h3>As its own file says it</h3>
	<ul>
		{#each found as trace (trace.tag)}
			<li class="row">
				<LayerMark layer="found" />
				<button class="mono tag" onclick={() => (bench.tag = trace.tag)}>{trace.tag}</button>
				<span class="serif value">{textOfValue(trace.value)}</span>
				<button
					class="link"
					onclick={() => {
						bench.tag = trace.tag;
						bench.setFoundPolicy('page', 'never');
					}}>Set aside</button
				>
			</li>
		{/each}
	</ul>
{/if}
{#if settings.length + aside.length > 0}
	<h3>Its own settings</h3>
	<ul>
		{#each settings as [key, name] (key)}
			<li class="row">
				<span class="value">{name}</span>
				<button class="link" onclick={() => bench.change('page', { [key]: null })}>Set back</button>
			</li>
		{/each}
		{#each aside as [tag, policy] (tag)}
			<li class="row">
				<span class="value"
					>What its file says of <span class="mono">{tag}</span>
					{policy === 'never' ? 'is set aside' : policy === 'last' ? 'comes last' : 'goes before'}; else
					{foundPolicyFor(tag, { ...page, foundPolicy: {} }, bench.working.type, bench.working.site).policy === 'keep'
						? 'it would go before'
						: 'it would not'}</span
				>
				<button
					class="link"
					onclick={() => {
						bench.tag = tag;
						bench.setFoundPolicy('page', null);
					}}>Set back</button
				>
			</li>
		{/each}
	</ul>
{/if}

<style>
	h3 {
		margin: 12px 0 2px;
		font-size: 13px;
		font-weight: 600;
	}
	li {
		border-top: 1px solid var(--rule);
		padding: 4px 0;
		font-size: 13px;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: baseline;
	}
	.tag {
		font-size: 12px;
		text-align: left;
		overflow-wrap: anywhere;
	}
	.value {
		flex: 1;
		overflow: hidden;
		min-width: 0;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.link {
		flex: none;
		margin-left: auto;
	}
</style>
