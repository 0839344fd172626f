<script lang="ts">
	import { wording } from '$ui/words/en/rich';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import 'prosemirror-view/style/prosemirror.css';
	import { baseKeymap, chainCommands, lift, setBlockType, toggleMark, wrapIn } from 'prosemirror-commands';
	import { history, redo, redoDepth, undo, undoDepth } from 'prosemirror-history';
	import { keymap } from 'prosemirror-keymap';
	import { liftListItem, sinkListItem, splitListItem } from 'prosemirror-schema-list';
	import { EditorState, type Command } from 'prosemirror-state';
	import { EditorView } from 'prosemirror-view';
	import { untrack } from 'svelte';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { roving } from '$ui/parts/roving';
	import { readMarkup, whyAsItStands, writeMarkup } from './markup';
	import { linkAt, makeList, setLink, stateOf, styleOf } from './commands';
	import { schema } from './schema';

	/** Text with headings, lists and links, written as it looks; what it is not made for is edited as its markup. */
	let {
		name,
		id,
		value,
		set
	}: {
		name: string;
		id: string;
		value: string;
		set: (html: string) => void;
	} = $props();

	const { nodes, marks } = schema;
	/** What this wrote last: another value came from elsewhere. */
	let written = $state.raw(untrack(() => value));
	/** Why it cannot be shown as it looks, as it was when somebody wanted it so. */
	let cannot = $state(untrack(() => whyAsItStands(value)));
	let isMarkup = $state(untrack(() => cannot !== undefined));
	let view = $state.raw<EditorView>();
	let now = $state.raw<EditorState>();
	let address = $state<string>();

	const plugins = [
		history(),
		keymap({
			Enter: splitListItem(nodes.item),
			'Shift-Enter': (state, dispatch) => {
				dispatch?.(state.tr.replaceSelectionWith(nodes.break.create()).scrollIntoView());
				return true;
			},
			'Mod-]': sinkListItem(nodes.item),
			'Mod-[': liftListItem(nodes.item),
			'Mod-b': toggleMark(marks.strong),
			'Mod-i': toggleMark(marks.em),
			'Mod-z': undo,
			'Mod-y': redo,
			'Mod-Shift-z': redo
		}),
		keymap(baseKeymap)
	];
	const open = (html: string) => EditorState.create({ doc: readMarkup(html), plugins });

	function editor(element: HTMLElement) {
		const made = untrack(
			() =>
				new EditorView(element, {
					state: open(value),
					attributes: { id, role: 'textbox', 'aria-multiline': 'true', 'aria-label': name, class: 'rich-words' },
					dispatchTransaction(transaction) {
						made.updateState(made.state.apply(transaction));
						now = made.state;
						if (!transaction.docChanged) return;
						written = writeMarkup(made.state.doc);
						set(written);
					},
					handleKeyDown({ state }, event) {
						if (!(event.ctrlKey || event.metaKey) || !/^[zy]$/i.test(event.key)) return false;
						const isBack = event.key.toLowerCase() === 'z' && !event.shiftKey;
						// Its own steps first; when there are no more, the bench's.
						if ((isBack ? undoDepth(state) : redoDepth(state)) > 0) event.stopPropagation();
						return false;
					}
				})
		);
		view = made;
		now = made.state;
		return () => {
			made.destroy();
			view = now = undefined;
		};
	}
	$effect(() => {
		if (value === written) return;
		const came = value;
		untrack(() => {
			written = came;
			const wasForced = cannot !== undefined;
			cannot = whyAsItStands(came);
			if (cannot !== undefined) isMarkup = true;
			else if (wasForced) isMarkup = false;
			else if (view) {
				view.updateState(open(came));
				now = view.state;
			}
		});
	});

	function showAsItLooks() {
		cannot = whyAsItStands(value);
		isMarkup = cannot !== undefined;
	}
	function run(command: Command) {
		if (!view) return;
		// A browser tells of what is marked a moment after it is marked; a tool is for what is marked now.
		document.dispatchEvent(new Event('selectionchange'));
		command(view.state, view.dispatch, view);
		view.focus();
	}
	const STYLES = [
		['text', wording.text],
		['2', wording.heading2],
		['3', wording.subheading],
		['4', wording.smaller],
		['code', wording.code]
	] as const;
	function setStyle(style: string) {
		if (style === 'text') run(setBlockType(nodes.paragraph));
		else if (style === 'code') run(setBlockType(nodes.code));
		else run(setBlockType(nodes.heading, { level: Number(style) }));
	}
	const at = $derived(now && stateOf(now));
	const style = $derived(now ? styleOf(now) : 'text');

	function keepLink(event: SubmitEvent) {
		event.preventDefault();
		run(setLink((address ?? '').trim()));
		address = undefined;
	}
</script>

<div class="rich">
	{#if isMarkup}
		<TextInput
			{id}
			aria-label={name}
			class="font-mono"
			lines={8}
			{value}
			set={(html) => {
				written = html;
				cannot = undefined;
				set(html);
			}}
		/>
		{#if cannot}
			<p class="text-ink-soft">{wording.nothingOfItIsChanged(cannot)}</p>
		{:else}
			<Button look="link" onclick={showAsItLooks}>{wording.writeItAsItLooks}</Button>
		{/if}
	{:else}
		<div
			class="tools mt-0.5 mb-0.75 flex flex-wrap gap-0.75 [&>*]:min-h-6.5 [&>[data-select]]:w-21 [&>button]:rounded-sm [&>button]:border [&>button]:border-rule-strong [&>button]:bg-sheet [&>button]:px-1.25 [&>button]:text-xs [&>button]:disabled:text-ink-soft [&>button]:aria-pressed:border-sea [&>button]:aria-pressed:bg-sea [&>button]:aria-pressed:text-sea-ink"
			role="toolbar"
			aria-label={wording.formOf(name)}
			{@attach roving('button')}
		>
			<Select
				aria-label={wording.style}
				value={style}
				choices={STYLES.some(([key]) => key === style) ? STYLES : [...STYLES, [style, wording.heading(style)]]}
				set={setStyle}
			/>
			<button
				aria-label={wording.bold}
				data-tip={wording.boldCtrlB}
				aria-pressed={at?.strong}
				onclick={() => run(toggleMark(marks.strong))}><b>B</b></button
			>
			<button
				aria-label={wording.italic}
				data-tip={wording.italicCtrlI}
				aria-pressed={at?.em}
				onclick={() => run(toggleMark(marks.em))}><i>I</i></button
			>
			<button
				aria-pressed={at?.link !== undefined}
				disabled={!at?.canLink}
				data-tip={at?.canLink ? wording.leadTheseWordsSomewhere : wording.markTheWordsThatShouldLead}
				onclick={() => (address = address === undefined ? (now ? (linkAt(now)?.href ?? '') : '') : undefined)}
				>{wording.link}</button
			>
			<button
				aria-pressed={at?.bullets}
				onclick={() => run(chainCommands(makeList(nodes.bullets), liftListItem(nodes.item)))}>{wording.list}</button
			>
			<button
				aria-pressed={at?.numbers}
				onclick={() => run(chainCommands(makeList(nodes.numbers), liftListItem(nodes.item)))}>1. 2.</button
			>
			<button aria-pressed={at?.quote} onclick={() => run(at?.quote ? lift : wrapIn(nodes.quote))}
				>{wording.quote}</button
			>
			<button class="ml-auto" onclick={() => (isMarkup = true)}>{wording.markup}</button>
		</div>
		{#if address !== undefined}
			<form class="address mb-0.75 flex gap-1.5" onsubmit={keepLink}>
				<!-- svelte-ignore a11y_autofocus -->
				<input
					class="min-w-0 flex-1 font-mono"
					aria-label={wording.whereTheWordsLead}
					placeholder={wording.visitOrHttps}
					bind:value={address}
					autofocus
					onkeydown={(event) => {
						if (event.key !== 'Escape') return;
						event.stopPropagation();
						address = undefined;
						view?.focus();
					}}
				/>
				<Button>{address.trim() === '' && at?.link ? wording.takeTheLinkOut : wording.keepTheLink}</Button>
			</form>
		{/if}
		<div
			class="page [&>.rich-words]:max-h-105 [&>.rich-words]:min-h-24 [&>.rich-words]:overflow-y-auto [&>.rich-words]:rounded-sm [&>.rich-words]:border [&>.rich-words]:border-rule-strong [&>.rich-words]:bg-sheet [&>.rich-words]:px-2.5 [&>.rich-words]:py-1.75 [&>.rich-words]:font-serif [&>.rich-words]:text-base [&>.rich-words]:leading-normal [&>.rich-words]:wrap-anywhere"
			{@attach editor}
		></div>
	{/if}
</div>

<style>
	.page :global(:is(p, ul, ol, blockquote, pre):not(:first-child)) {
		margin-top: 7px;
	}
	.page :global(:is(h1, h2, h3, h4, h5, h6)) {
		margin: 9px 0 3px;
		font-weight: 650;
	}
	.page :global(:is(h1, h2)) {
		font-size: 17px;
	}
	.page :global(h3) {
		font-size: 15.5px;
	}
	.page :global(ul) {
		list-style: disc;
		padding-left: 20px;
	}
	.page :global(ol) {
		list-style: decimal;
		padding-left: 22px;
	}
	.page :global(li > p:not(:first-child)) {
		margin-top: 3px;
	}
	.page :global(blockquote) {
		border-left: 3px solid var(--color-rule-strong);
		padding-left: 9px;
	}
	.page :global(:is(pre, code)) {
		font-family: var(--font-mono);
		font-size: 12.5px;
		white-space: pre-wrap;
	}
	.page :global(.link-text) {
		color: var(--color-sea);
		text-decoration: underline;
	}
	.page :global(.as-it-stands) {
		padding: 0 4px;
		border: 1px dashed var(--color-rule-strong);
		font-family: var(--font-mono);
		font-size: 12px;
		color: var(--color-ink-soft);
	}
	.page :global(.ProseMirror-selectednode) {
		outline: 2px solid var(--color-sea);
	}
</style>
