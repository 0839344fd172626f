<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import { tick } from 'svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { CATALOGUE, findTag, purposeOf } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import { roving } from '$ui/parts/roving';
	import { GROUPS, groupOf, type HeadLine } from '$ui/parts/lines';

	/** The head that comes out, tag by tag, each with the sign of the layer it came from. */
	let { choose }: { choose: (tag: string) => void } = $props();
	const bench = benchInView();
	let list = $state<HTMLElement>();
	// What is chosen is in view, from wherever it was chosen.
	$effect(() => {
		void bench.tag;
		void tick().then(() => list?.querySelector('.line.chosen')?.scrollIntoView({ block: 'nearest' }));
	});

	let wanted = $state('');
	let refused = $state('');
	const linesOf = (holds: string) => bench.lines.filter((line) => groupOf(line.tag) === holds);
	const isAddress = (line: HeadLine) => /^https?:/.test(line.value);
	const others = $derived(CATALOGUE.filter((tag) => !tag.fact || tag.fact === 'alt'));

	function add(event: SubmitEvent) {
		event.preventDefault();
		const name = wanted.trim();
		if (!findTag(name, bench.working.site.prefixes)) {
			refused = wording.isNoTagThatIsKnownHere(name, name);
			return;
		}
		refused = '';
		wanted = '';
		choose(name);
	}
</script>

<section class="head" aria-label={wording.theHeadOfThisPage}>
	<h2 class="sr-only">{wording.theHeadOfThisPage}</h2>
	<div bind:this={list} {@attach roving('.line')}>
		{#each GROUPS as group (group.holds)}
			{@const lines = linesOf(group.holds)}
			{#if lines.length > 0}
				<h3 class="mx-0 mt-2.5 mb-0.5 px-2.5 py-0 text-sm font-semibold text-ink-soft first:mt-0">
					{group.name}
				</h3>
				<ul>
					{#each lines as line (line.tag)}
						<li>
							<button
								class="line grid w-full grid-cols-[14px_148px_minmax(0,1fr)] gap-2 border-t border-t-rule px-2.5 py-1 text-left [contain:layout_paint_style] hover:bg-sunk max-narrow:grid-cols-[14px_minmax(0,1fr)] [&.chosen]:bg-sea-wash [&.chosen]:shadow-chosen [&.chosen]:hover:bg-sea-wash [&.chosen]:hover:shadow-chosen"
								class:chosen={line.tag === bench.tag}
								aria-pressed={line.tag === bench.tag}
								data-tag={line.tag}
								onclick={() => choose(line.tag)}
							>
								<span class="from flex pt-1"
									>{#if line.sign}<LayerMark layer={line.sign} />{/if}</span
								>
								<span class="tag font-mono text-xs leading-5 wrap-anywhere"
									>{#each line.tag.split(/(?<=[:_])/) as part, at (at)}{part}<wbr />{/each}</span
								>
								<span class="value min-w-0 leading-5 max-narrow:col-start-2">
									{#if line.value && line.echoes}<span class="text-ink-soft">{wording.as(line.echoes)}</span>
									{:else if line.value}<span
											class={isAddress(line)
												? 'address block truncate text-sm'
												: 'line-clamp-2 font-serif wrap-anywhere in-[.chosen]:line-clamp-6'}
											data-tip={isAddress(line) ? line.value : undefined}>{line.value}</span
										>
									{:else}<span class="none line-clamp-2 wrap-anywhere text-gone italic">{wording.nothing}</span>{/if}
									{#if line.facts && !line.echoes}<span class="facts block truncate text-sm text-ink-soft"
											>{line.facts}</span
										>{/if}
									{#if bench.working.serverWrites.has(line.tag)}<span
											class="block truncate text-sm text-flag"
											data-testid="server-writes"
											>{wording.theServerWhoseTextGoesOut(
												bench.working.serverWrites.get(line.tag) || wording.nothing
											)}</span
										>{/if}
									{#if line.isChanged}<span class="block truncate text-sm text-flag"
											><span class="pennant" aria-hidden="true"></span>{wording.released(
												line.released ?? wording.nothing
											)}</span
										>{/if}
								</span>
							</button>
						</li>
					{/each}
				</ul>
			{/if}
		{/each}
	</div>
	<form class="add flex items-center gap-2 border-t border-t-rule px-2.5 py-2 text-sm" onsubmit={add}>
		<label for="add-tag">{wording.anotherTag}</label>
		<input
			id="add-tag"
			class="min-w-0 flex-1 font-mono text-sm"
			list="all-tags"
			placeholder="article:section"
			bind:value={wanted}
		/>
		<datalist id="all-tags">
			{#each others as tag (tag.name)}<option value={tag.name}>{purposeOf(tag)}</option>{/each}
		</datalist>
		<Button disabled={wanted.trim() === ''}>{wording.show}</Button>
	</form>
	{#if refused}<Refused>{refused}</Refused>{/if}
</section>
