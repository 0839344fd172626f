<script lang="ts" module>
	/** Comes once for all fields. */
	let loaded: typeof import('./templateEditor') | undefined;
</script>

<script lang="ts">
	import { untrack } from 'svelte';
	import type { EditorView } from '@codemirror/view';
	import type { TemplatePart } from '$core';
	import type { Surroundings } from './templateEditor';

	/** A field for a template: variables set apart, gaps where they are empty, `{` offers what fits. */
	let {
		text,
		pieces,
		errors,
		kept,
		around
	}: {
		text: string;
		pieces: readonly TemplatePart[];
		errors: readonly { readonly start: number; readonly end: number }[];
		/** Counts what was kept: taking that back is no longer the field's. */
		kept: number;
		around: Surroundings;
	} = $props();

	const FIELD =
		'field rounded-sm border border-rule-strong bg-sheet font-mono text-sm focus-within:outline-2 focus-within:outline-offset-1 focus-within:outline-focus [&.broken]:border-gone [&.broken]:shadow-[inset_0_0_0_1px_var(--color-gone)]';
	let view: EditorView | undefined;
	/** The editor's code, once someone is about to write. */
	let code = $state.raw<typeof import('./templateEditor') | undefined>(loaded);
	/** The text as it stands before, for as long as it is shown. */
	let plain = $state.raw<HTMLElement>();
	/** Whoever stood in it stands in the editor; who has gone on meanwhile is not called back. */
	let isWanted = false;
	async function load() {
		if (!loaded) {
			loaded = await import('./templateEditor');
			loaded.rehearse();
		}
		isWanted = plain !== undefined && document.activeElement === plain;
		code = loaded;
	}

	/** Made once for a field: nothing that it reads here makes it anew. */
	const editor =
		({ makeEditor, setMarksOf }: NonNullable<typeof code>) =>
		(parent: HTMLElement) =>
			untrack(() => {
				const { label, describedBy, placeholder } = around;
				view = makeEditor(parent, text, {
					...{ label, describedBy, placeholder },
					variables: () => around.variables(),
					show: (template) => around.show(template),
					changed: (written) => around.changed(written),
					choosing: (is) => around.choosing?.(is),
					keep: () => around.keep(),
					takeBack: () => around.takeBack()
				});
				setMarksOf(view, { pieces, errors });
				if (isWanted) view.focus();
				isWanted = false;
				return () => {
					view?.destroy();
					view = undefined;
				};
			});
	// The editor is not part of what Svelte draws: it is told of every new text and of what to mark.
	$effect(() => {
		const wanted = text;
		if (view) code?.setText(view, wanted);
	});
	$effect(() => {
		const marks = { pieces, errors };
		if (view) code?.setMarksOf(view, marks);
	});
	$effect(() => {
		if (kept > 0 && view) code?.forget(view);
	});
	/** The text as it stands before there is an editor: what is a variable is set apart. */
	const parts = $derived(
		pieces.map((piece) => ({
			text: text.slice(piece.start, piece.end),
			kind: piece.kind === 'text' ? '' : `part-${piece.kind}${piece.gone ? ' part-gone' : ''}`
		}))
	);
</script>

<svelte:window onpointermove={code ? undefined : load} onkeydown={code ? undefined : load} />
{#key around.label + around.placeholder}
	{#if code}
		<div class={FIELD} class:broken={errors.length > 0} {@attach editor(code)}></div>
	{:else}
		<div class={FIELD} class:broken={errors.length > 0}>
			<div
				class="cm-content plain min-h-7 leading-normal wrap-anywhere whitespace-pre-wrap"
				role="textbox"
				tabindex="0"
				aria-label={around.label}
				aria-describedby={around.describedBy}
				bind:this={plain}
				onfocus={load}
			>
				{#each parts as part, at (at)}<span class={part.kind}>{part.text}</span>{:else}{#if text}{text}{:else}<span
							class="cm-placeholder">{around.placeholder}</span
						>{/if}{/each}
			</div>
		</div>
	{/if}
{/key}

<style>
	.field :global(.cm-editor.cm-focused) {
		outline: none;
	}
	.field :global(.cm-scroller) {
		overflow-x: hidden;
		max-height: 9em;
		font-family: var(--font-mono);
		line-height: 1.5;
	}
	.field :global(.cm-content) {
		padding: 4px 7px;
		caret-color: var(--color-ink);
	}
	.field :global(.cm-line) {
		padding: 0;
	}
	.field :global(.cm-cursor) {
		border-left-color: var(--color-ink);
	}
	.field :global(.cm-placeholder) {
		color: var(--color-ink-soft);
		font-family: var(--font-sans);
		font-style: italic;
	}
	.field :global(.part-sign) {
		color: var(--color-sea);
		font-weight: 500;
	}
	.field :global(.part-value),
	.field :global(.part-separator) {
		border-radius: 2px;
		background: var(--color-sea-wash);
	}
	.field :global(.part-gap) {
		border-bottom: 2px dashed var(--color-flag);
	}
	.field :global(.part-gone) {
		opacity: 0.75;
	}
	.field :global(.part-error) {
		text-decoration: underline wavy var(--color-gone);
		text-underline-offset: 3px;
	}
	:global(.cm-tooltip.cm-tooltip-autocomplete) {
		border: 1px solid var(--color-rule-strong);
		border-radius: 4px;
		background: var(--color-sheet);
		color: var(--color-ink);
		box-shadow: 0 8px 24px rgb(0 0 0 / 0.18);
	}
	:global(.cm-tooltip-autocomplete > ul) {
		min-width: 380px;
		max-width: min(640px, 90vw) !important;
		max-height: 260px !important;
		font-family: var(--font-mono) !important;
		font-size: 12.5px;
	}
	:global(.cm-tooltip-autocomplete > ul > li) {
		display: flex;
		gap: 14px;
		padding: 3px 9px !important;
	}
	:global(.cm-tooltip-autocomplete > ul > li[aria-selected]) {
		background: var(--color-sea-wash) !important;
		color: var(--color-ink) !important;
	}
	:global(.offer-words) {
		overflow: hidden;
		color: var(--color-ink-soft);
		font-family: var(--font-sans);
		text-overflow: ellipsis;
	}
	:global(.cm-completionDetail) {
		overflow: hidden;
		margin-left: auto !important;
		max-width: 210px;
		color: var(--color-ink-soft);
		font-family: var(--font-serif);
		font-style: normal !important;
		text-overflow: ellipsis;
	}
	:global(.cm-completionMatchedText) {
		font-weight: 500;
		text-decoration: none !important;
	}
	:global(.cm-completionInfo) {
		border: 1px solid var(--color-rule-strong);
		background: var(--color-sheet) !important;
		padding: 3px 9px !important;
		font-size: 12.5px;
	}
</style>
