<script lang="ts">
	import { untrack } from 'svelte';
	import type { EditorView } from '@codemirror/view';
	import type { Piece } from '$core';
	import { forget, makeEditor, setMarksOf, setText, type Surroundings } from './templateEditor';

	/** A field for a template: variables set apart, gaps where they are empty, `{` offers what fits. */
	let {
		text,
		pieces,
		errors,
		kept,
		around
	}: {
		text: string;
		pieces: readonly Piece[];
		errors: readonly { readonly start: number; readonly end: number }[];
		/** Counts what was kept: taking that back is no longer the field's. */
		kept: number;
		around: Surroundings;
	} = $props();

	let view: EditorView | undefined;

	/** Made once for a field: nothing that it reads here makes it anew. */
	const editor = (parent: HTMLElement) =>
		untrack(() => {
			const { label, describedBy, placeholder } = around;
			view = makeEditor(parent, text, {
				...{ label, describedBy, placeholder },
				variables: () => around.variables(),
				show: (template) => around.show(template),
				changed: (written) => around.changed(written),
				keep: () => around.keep(),
				takeBack: () => around.takeBack()
			});
			setMarksOf(view, { pieces, errors });
			return () => view?.destroy();
		});
	// The editor is not part of what Svelte draws: it is told of every new text and of what to mark.
	$effect(() => {
		if (!view) return;
		setText(view, text);
		setMarksOf(view, { pieces, errors });
	});
	$effect(() => {
		if (kept > 0 && view) forget(view);
	});
</script>

{#key around.label + around.placeholder}
	<div class="field mono" class:broken={errors.length > 0} {@attach editor}></div>
{/key}

<style>
	.field {
		border: 1px solid var(--rule-strong);
		border-radius: 3px;
		background: var(--sheet);
		font-size: 13px;
	}
	.field:focus-within {
		outline: 2px solid var(--focus);
		outline-offset: 1px;
	}
	.broken {
		border-color: var(--gone);
		box-shadow: inset 0 0 0 1px var(--gone);
	}
	.field :global(.cm-editor.cm-focused) {
		outline: none;
	}
	.field :global(.cm-scroller) {
		overflow-x: hidden;
		max-height: 9em;
		font-family: var(--mono);
		line-height: 1.5;
	}
	.field :global(.cm-content) {
		padding: 4px 7px;
		caret-color: var(--ink);
	}
	.field :global(.cm-line) {
		padding: 0;
	}
	.field :global(.cm-cursor) {
		border-left-color: var(--ink);
	}
	.field :global(.cm-placeholder) {
		color: var(--ink-soft);
		font-family: var(--sans);
		font-style: italic;
	}
	.field :global(.part-value),
	.field :global(.part-separator) {
		border-radius: 2px;
		background: var(--sea-wash);
	}
	.field :global(.part-gap) {
		border-bottom: 2px dashed var(--flag);
	}
	.field :global(.part-gone) {
		opacity: 0.75;
	}
	.field :global(.part-error) {
		text-decoration: underline wavy var(--gone);
		text-underline-offset: 3px;
	}
	:global(.cm-tooltip.cm-tooltip-autocomplete) {
		border: 1px solid var(--rule-strong);
		border-radius: 4px;
		background: var(--sheet);
		color: var(--ink);
		box-shadow: 0 8px 24px rgb(0 0 0 / 0.18);
	}
	:global(.cm-tooltip-autocomplete > ul) {
		min-width: 380px;
		max-width: min(640px, 90vw) !important;
		max-height: 260px !important;
		font-family: var(--mono) !important;
		font-size: 12.5px;
	}
	:global(.cm-tooltip-autocomplete > ul > li) {
		display: flex;
		gap: 14px;
		padding: 3px 9px !important;
	}
	:global(.cm-tooltip-autocomplete > ul > li[aria-selected]) {
		background: var(--sea-wash) !important;
		color: var(--ink) !important;
	}
	:global(.offer-words) {
		overflow: hidden;
		color: var(--ink-soft);
		font-family: var(--sans);
		text-overflow: ellipsis;
	}
	:global(.cm-completionDetail) {
		overflow: hidden;
		margin-left: auto !important;
		max-width: 210px;
		color: var(--ink-soft);
		font-family: var(--serif);
		font-style: normal !important;
		text-overflow: ellipsis;
	}
	:global(.cm-completionMatchedText) {
		font-weight: 500;
		text-decoration: none !important;
	}
	:global(.cm-completionInfo) {
		border: 1px solid var(--rule-strong);
		background: var(--sheet) !important;
		padding: 3px 9px !important;
		font-size: 12.5px;
	}
</style>
