import { autocompletion, closeCompletion, completionKeymap, type CompletionContext } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, redo, redoDepth, undo, undoDepth } from '@codemirror/commands';
import { Compartment, EditorState, RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state';
import { Decoration, EditorView, keymap, placeholder, type DecorationSet } from '@codemirror/view';
import { FILTERS, type Piece } from '$core';

export interface Variable {
	readonly name: string;
	readonly label: string | undefined;
	/** What it is on the page in view; '' for nothing. */
	readonly value: string;
}

/** What the editor asks its surroundings. */
export interface Surroundings {
	/** How the field is called. */
	readonly label: string;
	readonly describedBy: string;
	readonly placeholder: string;
	variables(): readonly Variable[];
	changed(text: string): void;
	/** Enter. */
	keep(): void;
	/** Escape; false when there is nothing to take back. */
	takeBack(): boolean;
}

export interface Marks {
	readonly pieces: readonly Piece[];
	readonly errors: readonly { readonly start: number; readonly end: number }[];
}

const undoing = new Compartment();
const setMarks = StateEffect.define<Marks>();

/** Variables set apart in the text, empty ones as gaps, errors underlined where they are. */
const marks = StateField.define<DecorationSet>({
	create: () => Decoration.none,
	update(drawn, { effects, changes }) {
		const effect = effects.find((one) => one.is(setMarks));
		return effect ? draw(effect.value as Marks) : drawn.map(changes);
	},
	provide: (field) => EditorView.decorations.from(field)
});

function draw({ pieces, errors }: Marks): DecorationSet {
	const ranges = [
		...pieces
			.filter(({ kind }) => kind === 'value' || kind === 'gap' || kind === 'separator')
			.map(({ start, end, kind, gone }) => ({ start, end, class: `part-${kind}${gone ? ' part-gone' : ''}` })),
		...errors.map(({ start, end }) => ({ start, end, class: 'part-error' }))
	].filter(({ start, end }) => end > start);
	const builder = new RangeSetBuilder<Decoration>();
	for (const range of ranges.sort((a, b) => a.start - b.start || a.end - b.end))
		builder.add(range.start, range.end, Decoration.mark({ class: range.class }));
	return builder.finish();
}

/** Behind `{` the variables that fit, each with its value here; behind `|` the filters. */
function offer(variables: () => readonly Variable[]) {
	return (context: CompletionContext) => {
		const before = context.state.doc.sliceString(0, context.pos);
		const open = before.lastIndexOf('{');
		if (open < 0 || before.indexOf('}', open) >= 0 || before[open - 1] === '\\') return null;
		const inner = before.slice(open + 1);
		const isFilter = /\|\s*\w*$/.test(inner);
		const from = context.pos - (/[\w.:-]*$/.exec(inner)?.[0].length ?? 0);
		const isClosed = context.state.doc.sliceString(context.pos).startsWith('}');
		const end = isClosed ? '' : '}';
		const options = isFilter
			? Object.entries(FILTERS).map(([name, { purpose }]) => ({ label: name, detail: purpose }))
			: [
					...variables().map(({ name, value, label }) => ({
						label: name,
						detail: value || 'empty here',
						...(label && { info: label }),
						apply: name + end,
						boost: value ? 1 : 0
					})),
					{ label: 'sep', detail: 'the site’s separator', apply: `sep${end}`, boost: 0 }
				];
		return { from, options, validFor: /^[\w.:-]*$/ };
	};
}

/** A template field: one line of text that wraps, with completion and its own undo. */
export function makeEditor(parent: HTMLElement, text: string, around: Surroundings): EditorView {
	const isOpen = (view: EditorView) => view.dom.querySelector('.cm-tooltip-autocomplete') !== null;
	const keys = keymap.of([
		...completionKeymap,
		{ key: 'Enter', run: () => (around.keep(), true) },
		{ key: 'Escape', run: (view) => (isOpen(view) ? closeCompletion(view) : around.takeBack()) },
		// With nothing of its own left to take back, the key is the bench's.
		{ key: 'Mod-z', run: (view) => undoDepth(view.state) > 0 && undo(view) },
		{ key: 'Mod-y', mac: 'Mod-Shift-z', run: (view) => redoDepth(view.state) > 0 && redo(view) },
		...historyKeymap.filter(({ key }) => key !== 'Mod-z' && key !== 'Mod-y'),
		...defaultKeymap.filter(({ key }) => key !== 'Alt-ArrowLeft' && key !== 'Alt-ArrowRight' && key !== 'Escape')
	]);
	const extensions: Extension[] = [
		keys,
		undoing.of(history()),
		marks,
		EditorView.lineWrapping,
		placeholder(around.placeholder),
		autocompletion({ override: [offer(around.variables)], icons: false, closeOnBlur: true }),
		// One line: what is pasted with line ends keeps its words.
		EditorState.transactionFilter.of((change) =>
			change.newDoc.lines > 1
				? [
						change,
						{
							changes: { from: 0, to: change.newDoc.length, insert: change.newDoc.toString().replaceAll('\n', ' ') },
							sequential: true
						}
					]
				: change
		),
		EditorView.contentAttributes.of({
			'aria-label': around.label,
			'aria-describedby': around.describedBy,
			spellcheck: 'false'
		}),
		EditorView.updateListener.of(({ docChanged, transactions, state }) => {
			const isWritten = transactions.some((one) => USER_EVENTS.some((event) => one.isUserEvent(event)));
			if (docChanged && isWritten) around.changed(state.doc.toString());
		})
	];
	return new EditorView({ parent, state: EditorState.create({ doc: text, extensions }) });
}

/** What a person does in the field, as against what is put into it. */
const USER_EVENTS = ['input', 'delete', 'undo', 'redo', 'move'];

/** Forgets what could be taken back in the field: it was kept, and taking it back is the bench's from now on. */
export function forget(view: EditorView) {
	view.dispatch({ effects: undoing.reconfigure([]) });
	view.dispatch({ effects: undoing.reconfigure(history()) });
}

/** Puts a text into the field that was not written in it; what was written before cannot be taken back into it. */
export function setText(view: EditorView, text: string) {
	if (view.state.doc.toString() === text) return;
	view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
}

export function setMarksOf(view: EditorView, value: Marks) {
	const { length } = view.state.doc;
	const inside = <T extends { readonly start: number; readonly end: number }>(list: readonly T[]) =>
		list.filter(({ end }) => end <= length);
	view.dispatch({ effects: setMarks.of({ pieces: inside(value.pieces), errors: inside(value.errors) }) });
}
