<script lang="ts">
	import { wording } from '$ui/words/en/panel';
	import LayerField from '$ui/fields/LayerField.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import type { HeadLine } from '$ui/parts/lines';
	import { benchInView } from '$ui/workspace/context';
	import { cameInWords } from './state';

	/** What one tag comes to, with where it came from; opened, the page's own words for it. */
	let { line, isOpen, mayEdit, toggle }: { line: HeadLine; isOpen: boolean; mayEdit: boolean; toggle: () => void } =
		$props();
	const bench = benchInView();

	const steps = $derived(
		isOpen ? (bench.line?.trace.steps.filter((step) => step.layer === 'page' && step.rule.kind !== 'found') ?? []) : []
	);
	const id = $derived(`own-${line.tag.replace(/\W/g, '-')}`);
</script>

<li class="border-t border-t-rule" data-line={line.tag}>
	<button
		class="grid w-full grid-cols-[14px_minmax(0,1fr)] gap-x-2 px-1 py-1.5 text-left hover:bg-sunk aria-expanded:bg-sea-wash"
		aria-expanded={isOpen}
		aria-controls={isOpen ? id : undefined}
		onclick={toggle}
	>
		<span class="pt-1"
			>{#if line.sign}<LayerMark layer={line.sign} />{/if}</span
		>
		<span class="min-w-0">
			<span class="flex items-baseline gap-2">
				<span class="font-mono text-xs">{line.tag}</span>
				<span class="ml-auto truncate text-sm text-ink-soft"
					>{cameInWords(line, bench.working.type?.label ?? bench.data.page.type)}</span
				>
			</span>
			{#if line.value}<span class="line-clamp-2 font-serif wrap-anywhere in-aria-expanded:line-clamp-6"
					>{line.value}</span
				>
			{:else}<span class="text-gone italic">{wording.nothing}</span>{/if}
			{#if line.facts && !line.echoes}<span class="block text-sm text-ink-soft">{line.facts}</span>{/if}
			{#if line.isChanged}<span class="block truncate text-sm text-flag"
					>{wording.visitorsSee(line.released ?? wording.nothing)}</span
				>{/if}
		</span>
	</button>
	{#if isOpen}
		<div class="bg-sheet px-2 py-2" {id}>
			{#if mayEdit}<LayerField layer="page" {steps} />
			{:else}<p class="text-sm text-ink-soft">
					{wording.wordsOfItsOwnAreWrittenBy}
				</p>{/if}
		</div>
	{/if}
</li>
