<script lang="ts">
	import { describeOutcome, describeRule, type TraceStep } from '$core';
	import type { Bench, EditableLayer } from './bench.svelte';
	import ReachNote from './ReachNote.svelte';

	/** The template of one layer, changed in place. Enter keeps, Escape takes back. */
	let { bench, layer, steps }: { bench: Bench; layer: EditableLayer; steps: readonly TraceStep[] } = $props();

	const rule = $derived(bench.ruleAt(layer));
	const draft = $derived(bench.draftAt(layer));
	const text = $derived(bench.textAt(layer));
	const issues = $derived(bench.issuesAt(layer));
	const isBroken = $derived(issues.some((issue) => issue.severity === 'error'));
	const step = $derived(steps.find((one) => one.outcome.kind !== 'not-reached') ?? steps[0]);
	/** A rule that is no template is told in words; writing replaces it. */
	const inWords = $derived(rule && rule.kind !== 'template' && step ? describeRule(step) : undefined);
	const id = $derived(`field-${layer}`);

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Enter' && !event.isComposing) {
			event.preventDefault();
			if (draft) void bench.keep(layer);
		} else if (event.key === 'Escape' && draft) {
			event.stopPropagation();
			bench.discard(layer);
		}
	}
</script>

{#if inWords && !draft}<p class="words">{inWords}</p>{/if}
<textarea
	{id}
	class="mono"
	class:broken={isBroken}
	rows={Math.min(4, Math.max(1, Math.ceil(text.length / 44)))}
	spellcheck="false"
	aria-label="{bench.tag} at {layer}"
	aria-invalid={isBroken}
	aria-describedby="{id}-told"
	placeholder={inWords ? 'Write a template to replace it' : 'Nothing set here'}
	value={text}
	oninput={(event) => bench.write(layer, event.currentTarget.value.replaceAll('\n', ' '))}
	{onkeydown}></textarea>
<div id="{id}-told" class="told" aria-live="polite">
	{#each issues as issue (issue.code + issue.start)}
		<p class="issue" class:warning={issue.severity === 'warning'}>
			<span class="place mono"
				>{text.slice(Math.max(0, issue.start - 10), issue.start)}<mark>{text.slice(issue.start, issue.end) || '␣'}</mark
				>{text.slice(issue.end, issue.end + 8)}</span
			>
			{issue.message}
		</p>
	{/each}
	{#if draft?.refused}<p class="issue">{draft.refused}</p>{/if}
	{#if draft && !isBroken}<ReachNote {draft} keep={() => bench.keep(layer)} discard={() => bench.discard(layer)} />{/if}
	{#if draft && isBroken}
		<p class="quiet">
			Not kept while it has an error. <button class="plain-button" onclick={() => bench.discard(layer)}
				>Take back</button
			>
		</p>
	{/if}
	{#if !draft && step}<p class="quiet outcome">
			{describeOutcome(step.outcome)}{rule?.language ? `, for ${rule.language}` : ''}
		</p>{/if}
</div>

<style>
	textarea {
		display: block;
		width: 100%;
		resize: none;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		padding: 5px 7px;
		font-size: 13px;
		line-height: 1.45;
		field-sizing: content;
		max-height: 9em;
	}
	textarea:hover {
		border-color: var(--rule-strong);
	}
	textarea::placeholder {
		color: var(--ink-soft);
		font-family: var(--sans);
		font-style: italic;
		opacity: 1;
	}
	.broken {
		border-color: var(--gone);
		border-width: 2px;
		padding: 4px 6px;
	}
	.told {
		font-size: 13px;
	}
	.words,
	.outcome,
	.issue {
		margin-top: 4px;
	}
	.words {
		margin-bottom: 4px;
	}
	.issue {
		border-left: 3px solid var(--gone);
		padding-left: 7px;
	}
	.issue.warning {
		border-left-style: dotted;
	}
	.place {
		display: block;
		font-size: 12.5px;
	}
	mark {
		background: none;
		color: var(--gone);
		text-decoration: underline wavy;
		text-underline-offset: 3px;
	}
</style>
