<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
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
			['hidden', page.hidden ? wording.hiddenFromSearch : undefined],
			['families', page.families ? wording.familiesOfTagsSwitchedOnOr : undefined],
			['playMark', page.playMark === undefined ? undefined : wording.theMarkForVideo],
			['extra', page.extra ? wording.extraHeadMarkup : undefined],
			['pinned', page.pinned ? wording.pinned(Object.keys(page.pinned).join(', ')) : undefined]
		].filter((one): one is ['hidden' | 'families' | 'playMark' | 'extra' | 'pinned', string] => one[1] !== undefined)
	);
	const aside = $derived(Object.entries(page.foundPolicy?.tags ?? {}));
	const stepsOf = (tag: string) =>
		bench.working.told.traces
			.find((trace) => trace.tag === tag)
			?.steps.filter(({ layer, rule }) => layer === 'page' && rule.kind !== 'found') ?? [];
</script>

<p class="text-ink-soft">{wording.whatStandsAtThisPageAlone}</p>
<h3 class="mx-0 mt-3 mb-0.5 text-sm font-semibold">{wording.itsOwnTags}</h3>
<ul>
	{#each rules as rule (rule.tag + (rule.language ?? ''))}
		<li class="border-t border-t-rule px-0 py-1 text-sm" class:open={bench.tag === rule.tag} data-own={rule.tag}>
			<div class="row flex items-baseline gap-2">
				<LayerMark layer="page" />
				<button
					class="tag text-left font-mono text-xs wrap-anywhere"
					aria-expanded={bench.tag === rule.tag}
					onclick={() => (bench.tag = rule.tag)}>{rule.tag}{rule.language ? ` (${rule.language})` : ''}</button
				>
				{#if bench.tag !== rule.tag}
					<span class="value min-w-0 flex-1 truncate font-serif"
						>{textOfValue(bench.working.scope.valueOf(rule.tag)) || wording.nothing}</span
					>
				{/if}
				<Button
					look="link"
					class="ml-auto flex-none"
					onclick={() => bench.proposeFor('page', rule.tag, null, rule.language)}>{wording.setBack}</Button
				>
			</div>
			{#if bench.tag === rule.tag}<LayerField layer="page" steps={stepsOf(rule.tag)} />{/if}
		</li>
	{:else}<li class="border-t border-t-rule px-0 py-1 text-sm text-ink-soft">
			{wording.noneAllComesFromItsTypeThe}
		</li>{/each}
</ul>
{#if found.length > 0}
	<h3 class="mx-0 mt-3 mb-0.5 text-sm font-semibold">{wording.asItsOwnFileSaysIt}</h3>
	<ul>
		{#each found as trace (trace.tag)}
			<li class="row flex items-baseline gap-2 border-t border-t-rule px-0 py-1 text-sm">
				<LayerMark layer="found" />
				<button class="tag text-left font-mono text-xs wrap-anywhere" onclick={() => (bench.tag = trace.tag)}
					>{trace.tag}</button
				>
				<span class="value min-w-0 flex-1 truncate font-serif">{textOfValue(trace.value)}</span>
				<Button
					look="link"
					class="ml-auto flex-none"
					onclick={() => {
						bench.tag = trace.tag;
						bench.setFoundPolicy('page', 'never');
					}}>{wording.setAside}</Button
				>
			</li>
		{/each}
	</ul>
{/if}
{#if settings.length + aside.length > 0}
	<h3 class="mx-0 mt-3 mb-0.5 text-sm font-semibold">{wording.itsOwnSettings}</h3>
	<ul>
		{#each settings as [key, name] (key)}
			<li class="row flex items-baseline gap-2 border-t border-t-rule px-0 py-1 text-sm">
				<span class="value min-w-0 flex-1 truncate">{name}</span>
				<Button look="link" class="ml-auto flex-none" onclick={() => bench.change('page', { [key]: null })}
					>{wording.setBack}</Button
				>
			</li>
		{/each}
		{#each aside as [tag, policy] (tag)}
			<li class="row flex items-baseline gap-2 border-t border-t-rule px-0 py-1 text-sm">
				<span class="value min-w-0 flex-1 truncate"
					>{wording.whatItsFileSaysOf} <span class="font-mono">{tag}</span>
					{wording.elseOne(
						policy === 'never' ? wording.isSetAside : policy === 'last' ? wording.comesLast : wording.goesBefore,
						foundPolicyFor(tag, { ...page, foundPolicy: {} }, bench.working.type, bench.working.site).policy === 'keep'
							? wording.itWouldGoBefore
							: wording.itWouldNot
					)}</span
				>
				<Button
					look="link"
					class="ml-auto flex-none"
					onclick={() => {
						bench.tag = tag;
						bench.setFoundPolicy('page', null);
					}}>{wording.setBack}</Button
				>
			</li>
		{/each}
	</ul>
{/if}
