<script lang="ts">
	import { findTag } from '$core';
	import type { Bench, HeadLine } from './bench.svelte';
	import LayerMark from './LayerMark.svelte';

	/** The head that comes out, tag by tag, each with the sign of the layer it came from. */
	let { bench }: { bench: Bench } = $props();

	const GROUPS = [
		{ name: 'For search and the browser', family: 'plain' },
		{ name: 'For sharing: Open Graph', family: 'og' },
		{ name: 'For sharing: Twitter card', family: 'twitter' }
	];
	const linesOf = (family: string) =>
		bench.lines.filter((line) => (findTag(line.tag, bench.data.site.prefixes)?.family ?? 'plain') === family);
	const layerOf = (line: HeadLine) => line.trace.steps[line.trace.winner]?.layer;
	const isAddress = (line: HeadLine) => /^https?:/.test(line.value);
	/** A tag that repeats its twin is told once. */
	const isEcho = (line: HeadLine) =>
		line.trace.steps[line.trace.winner]?.rule.kind === 'built-in' &&
		line.tag.startsWith('twitter:') &&
		/^what og:/.test(sayOf(line));
	const sayOf = (line: HeadLine) => {
		const rule = line.trace.steps[line.trace.winner]?.rule;
		return rule?.kind === 'built-in' ? rule.says : '';
	};
</script>

<section class="head" aria-label="The head of this page">
	{#each GROUPS as group (group.family)}
		{@const lines = linesOf(group.family)}
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
							onclick={() => (bench.tag = line.tag)}
						>
							<span class="from"
								>{#if layerOf(line)}<LayerMark layer={layerOf(line)!} />{/if}</span
							>
							<span class="tag mono"
								>{#each line.tag.split(/(?<=[:_])/) as part, at (at)}{part}<wbr />{/each}</span
							>
							<span class="value">
								{#if line.value && isEcho(line)}<span class="quiet">as {sayOf(line).slice(5, -8)}</span>
								{:else if line.value}<span
										class={isAddress(line) ? 'address' : 'serif'}
										title={isAddress(line) ? line.value : undefined}>{line.value}</span
									>
								{:else}<span class="none">nothing</span>{/if}
								{#if line.facts && !isEcho(line)}<span class="quiet facts">{line.facts}</span>{/if}
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
	.from {
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
</style>
