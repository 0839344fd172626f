<script lang="ts">
	import { CATALOGUE, findTag } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import { roving } from '$ui/parts/roving';
	import { GROUPS, groupOf, type HeadLine } from '$ui/parts/lines';

	/** The head that comes out, tag by tag, each with the sign of the layer it came from. */
	let { choose }: { choose: (tag: string) => void } = $props();
	const bench = benchInView();

	let wanted = $state('');
	let refused = $state('');
	const linesOf = (holds: string) => bench.lines.filter((line) => groupOf(line.tag) === holds);
	const isAddress = (line: HeadLine) => /^https?:/.test(line.value);
	const others = $derived(CATALOGUE.filter((tag) => !tag.fact || tag.fact === 'alt'));

	function add(event: SubmitEvent) {
		event.preventDefault();
		const name = wanted.trim();
		if (!findTag(name, bench.working.site.prefixes)) {
			refused = `“${name}” is no tag that is known here. Declare its prefix at the site, or write meta:${name}.`;
			return;
		}
		refused = '';
		wanted = '';
		choose(name);
	}
</script>

<section class="head" aria-label="The head of this page">
	<h2 class="sr-only">The head of this page</h2>
	<div {@attach roving('.line')}>
		{#each GROUPS as group (group.holds)}
			{@const lines = linesOf(group.holds)}
			{#if lines.length > 0}
				<h3>{group.name}</h3>
				<ul>
					{#each lines as line (line.tag)}
						<li>
							<button
								class="line"
								class:chosen={line.tag === bench.tag}
								aria-pressed={line.tag === bench.tag}
								data-tag={line.tag}
								onclick={() => choose(line.tag)}
							>
								<span class="from"
									>{#if line.sign}<LayerMark layer={line.sign} />{/if}</span
								>
								<span class="tag mono"
									>{#each line.tag.split(/(?<=[:_])/) as part, at (at)}{part}<wbr />{/each}</span
								>
								<span class="value">
									{#if line.value && line.echoes}<span class="quiet">as {line.echoes}</span>
									{:else if line.value}<span
											class={isAddress(line) ? 'address' : 'serif'}
											title={isAddress(line) ? line.value : undefined}>{line.value}</span
										>
									{:else}<span class="none">nothing</span>{/if}
									{#if line.facts && !line.echoes}<span class="quiet facts">{line.facts}</span>{/if}
									{#if bench.working.serverWrites.has(line.tag)}<span class="was" data-testid="server-writes"
											>the server, whose text goes out, writes: {bench.working.serverWrites.get(line.tag) ||
												'nothing'}</span
										>{/if}
									{#if line.isChanged}<span class="was"
											><span class="pennant" aria-hidden="true"></span>released: {line.released ?? 'nothing'}</span
										>{/if}
								</span>
							</button>
						</li>
					{/each}
				</ul>
			{/if}
		{/each}
	</div>
	<form class="add" onsubmit={add}>
		<label for="add-tag">Another tag</label>
		<input id="add-tag" class="mono" list="all-tags" placeholder="article:section" bind:value={wanted} />
		<datalist id="all-tags">
			{#each others as tag (tag.name)}<option value={tag.name}>{tag.purpose}</option>{/each}
		</datalist>
		<button class="plain-button" disabled={wanted.trim() === ''}>Show</button>
	</form>
	{#if refused}<p class="refused" role="alert">{refused}</p>{/if}
</section>

<style>
	h3 {
		margin: 10px 0 2px;
		padding: 0 10px;
		font-size: 12.5px;
		font-weight: 600;
		color: var(--ink-soft);
	}
	h3:first-child {
		margin-top: 0;
	}
	.line {
		contain: layout paint style;
		display: grid;
		grid-template-columns: 14px 148px minmax(0, 1fr);
		gap: 8px;
		width: 100%;
		border-top: 1px solid var(--rule);
		padding: 4px 10px;
		text-align: left;
	}
	.line:hover {
		background: var(--sheet-sunk);
	}
	.chosen,
	.chosen:hover {
		background: var(--sea-wash);
		box-shadow: inset 3px 0 0 var(--sea);
	}
	/* No line of text, which would make the rows of short values higher. */
	.from {
		display: flex;
		padding-top: 4px;
	}
	.tag {
		overflow-wrap: anywhere;
		font-size: 12px;
		line-height: 20px;
	}
	.value {
		min-width: 0;
		line-height: 20px;
	}
	.serif,
	.none {
		display: -webkit-box;
		overflow: hidden;
		overflow-wrap: anywhere;
		-webkit-box-orient: vertical;
		-webkit-line-clamp: 2;
		line-clamp: 2;
	}
	.chosen .serif {
		-webkit-line-clamp: 6;
		line-clamp: 6;
	}
	.address,
	.facts {
		display: block;
		overflow: hidden;
		font-size: 13px;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.none {
		font-style: italic;
		color: var(--gone);
	}
	.was {
		display: block;
		overflow: hidden;
		font-size: 12.5px;
		color: var(--flag);
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.add {
		display: flex;
		gap: 8px;
		align-items: center;
		border-top: 1px solid var(--rule);
		padding: 8px 10px;
		font-size: 13px;
	}
	.add input {
		flex: 1;
		min-width: 0;
		font-size: 12.5px;
	}
	@media (max-width: 700px) {
		.line {
			grid-template-columns: 14px minmax(0, 1fr);
		}
		.value {
			grid-column: 2;
		}
	}
</style>
