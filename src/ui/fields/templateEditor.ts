import {
	autocompletion,
	closeCompletion,
	completionKeymap,
	completionStatus,
	startCompletion,
	type Completion,
	type CompletionContext,
	type CompletionResult
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, redo, redoDepth, undo, undoDepth } from '@codemirror/commands';
import {
	Annotation,
	Compartment,
	EditorState,
	RangeSetBuilder,
	StateEffect,
	StateField,
	type Extension
} from '@codemirror/state';
import { Decoration, EditorView, keymap, placeholder, tooltips, type DecorationSet } from '@codemirror/view';
import type { TemplatePart } from '$core';
import { rehearsing } from '$ui/parts/idle';
import { styleNonce } from '$ui/look/nonce';
import { filterOffers, kindOf, offersAfter, spotAt, variableOffers, type Offer, type Variable } from './offers';

/** What the editor asks its surroundings. */
export interface Surroundings {
	/** How the field is called. */
	readonly label: string;
	readonly describedBy: string;
	readonly placeholder: string;
	variables(): readonly Variable[];
	/** What a template comes to on the page in view. */
	show(template: string): string;
	changed(text: string): void;
	/** Whether what can be written is being offered: what is begun is no mistake yet. */
	choosing?(is: boolean): void;
	/** Enter. */
	keep(): void;
	/** Escape; false when there is nothing to take back. */
	takeBack(): boolean;
}

export interface Marks {
	readonly pieces: readonly TemplatePart[];
	readonly errors: readonly { readonly start: number; readonly end: number }[];
}

const undoing = new Compartment();
const setMarks = StateEffect.define<DecorationSet>();

/** Variables set apart in the text, empty ones as gaps, errors underlined where they are. */
const marks = StateField.define<DecorationSet>({
	create: () => Decoration.none,
	update(drawn, { effects, changes }) {
		const effect = effects.find((one) => one.is(setMarks));
		return effect ? effect.value : drawn.map(changes);
	},
	provide: (field) => EditorView.decorations.from(field)
});

/** One decoration for each class, so that those that are alike are the same. */
const MARKS = new Map<string, Decoration>();
function markOf(name: string): Decoration {
	let mark = MARKS.get(name);
	if (!mark) MARKS.set(name, (mark = Decoration.mark({ class: name })));
	return mark;
}

function draw({ pieces, errors }: Marks): DecorationSet {
	const ranges = [
		...pieces
			.filter(({ kind }) => kind !== 'text')
			.map(({ start, end, kind, gone }) => ({ start, end, class: `part-${kind}${gone ? ' part-gone' : ''}` })),
		...errors.map(({ start, end }) => ({ start, end, class: 'part-error' }))
	].filter(({ start, end }) => end > start);
	const builder = new RangeSetBuilder<Decoration>();
	for (const range of ranges.sort((a, b) => a.start - b.start || a.end - b.end))
		builder.add(range.start, range.end, markOf(range.class));
	return builder.finish();
}

/** Behind `{` the variables that fit, each with its value here; behind a variable and behind `|` what can follow. */
function offer(around: Surroundings) {
	return (context: CompletionContext): CompletionResult | null => {
		const text = context.state.doc.toString();
		// Most signs are written outside of braces.
		if (!spotAt(text, context.pos, () => true)) return null;
		const variables = around.variables();
		const names = new Set(variables.map(({ name }) => name));
		const spot = spotAt(text, context.pos, (name) => names.has(name));
		if (!spot) return null;
		const isClosed = text.slice(context.pos).startsWith('}');
		const offers =
			spot.kind === 'name'
				? variableOffers(variables, isClosed)
				: spot.kind === 'filter'
					? filterOffers(spot.expression, kindOf(spot.expression, variables), isClosed, (template) =>
							around.show(template)
						)
					: offersAfter(
							spot.expression,
							kindOf(spot.expression, variables),
							(template) => around.show(template),
							variables.find(({ name }) => name === spot.expression)?.options
						);
		return {
			from: spot.from,
			options: offers.map(completionOf),
			filter: spot.kind !== 'after',
			validFor: /^[\w.:-]+$/
		};
	};
}

const completionOf = ({ name, words, value, text, caret, rank }: Offer): Completion & { words: string } => ({
	...{ label: name, words, detail: value, boost: rank, sortText: String(1000 - rank) },
	apply: (view, _completion, from, to) => {
		view.dispatch({
			changes: { from, to, insert: text },
			selection: { anchor: from + caret },
			userEvent: 'input.complete',
			annotations: chosen.of(true)
		});
		// Behind a variable the list goes on with what can follow it.
		setTimeout(() => startCompletion(view));
	}
});
/** A change that a choice from the list made. */
const chosen = Annotation.define<boolean>();

/** Whether the caret stands where a choice from the list left it; the space that may follow counts as there. */
const afterChoice = StateField.define<boolean>({
	create: () => false,
	update(was, change) {
		if (change.annotation(chosen)) return true;
		if (!change.docChanged) return was && change.selection === undefined;
		let typed = '';
		change.changes.iterChanges((_fromA, _toA, _fromB, _toB, inserted) => (typed += inserted.toString()));
		return was && typed === ' ';
	}
});

/** A filter with its arguments, whole. */
const WHOLE_FILTER = /^\|\s*\w+(?:\s+(?:"[^"]*"|[\w.:-]+))*\??$/;

/** Whether what is written goes on inside braces: after `??`, or in a filter that is not whole. */
function isInFilter(before: string): boolean {
	const text = before.trimEnd();
	if (text.endsWith('??')) return true;
	const at = text.lastIndexOf('|');
	return at >= 0 && !text.includes('}', at) && !WHOLE_FILTER.test(text.slice(at));
}

/** Going on to write plain words after a choice leaves the braces first: they would be read as part of the name. */
const leaveBraces = EditorView.inputHandler.of((view, from, to, text) => {
	const { doc } = view.state;
	if (from !== to || !view.state.field(afterChoice) || doc.sliceString(from, from + 1) !== '}') return false;
	if (/^[|?}]/.test(text)) return false;
	const hasSpace = doc.sliceString(from - 1, from) === ' ';
	if (text === ' ' && !hasSpace) return false;
	// After ` ?? ` and in a filter's arguments one goes on inside.
	if (isInFilter(doc.sliceString(0, from))) return false;
	const insert = (hasSpace ? ' ' : '') + text;
	const at = from + 1;
	view.dispatch({
		changes: [...(hasSpace ? [{ from: from - 1, to: from }] : []), { from: at, insert }],
		selection: { anchor: at + insert.length - (hasSpace ? 1 : 0) },
		userEvent: 'input.type'
	});
	return true;
});

/** The name in words, between what is written and what it gives here. */
const inWords = {
	render(completion: Completion) {
		const words = document.createElement('span');
		words.className = 'offer-words';
		words.textContent = (completion as { words?: string }).words ?? '';
		return words;
	},
	position: 60
};

/** A template field: one line of text that wraps, with completion and its own undo. */
export function makeEditor(parent: HTMLElement, text: string, around: Surroundings): EditorView {
	const isOpen = (view: EditorView) => completionStatus(view.state) !== null;
	const keys = keymap.of([
		...completionKeymap.filter(({ key }) => key !== 'Escape'),
		// The list closes, and the focus goes on.
		{ key: 'Tab', run: (view) => (closeCompletion(view), false) },
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
		EditorView.cspNonce.of(styleNonce()),
		placeholder(around.placeholder),
		afterChoice,
		leaveBraces,
		// Beside its field, whatever the panel cuts off.
		tooltips({ parent: document.body, position: 'fixed' }),
		autocompletion({
			override: [offer(around)],
			icons: false,
			// See where it is opened: most signs are written where nothing can be offered.
			activateOnTyping: false,
			closeOnBlur: true,
			// Below stand the preview and the messages.
			aboveCursor: true,
			addToOptions: [inWords]
		}),
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
		EditorView.updateListener.of(({ docChanged, startState, transactions, state, view }) => {
			const isChoosing = completionStatus(state) !== null;
			if (isChoosing !== (completionStatus(startState) !== null)) around.choosing?.(isChoosing);
			const isWritten = transactions.some((one) => USER_EVENTS.some((event) => one.isUserEvent(event)));
			if (!docChanged || !isWritten) return;
			const text = state.doc.toString();
			around.changed(text);
			const isTyped = transactions.some((one) => one.isUserEvent('input.type'));
			if (isTyped && !isOpen(view) && spotAt(text, state.selection.main.head, () => true)) startCompletion(view);
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
	const drawn = draw({ pieces: inside(value.pieces), errors: inside(value.errors) });
	// A sign among words moves what is marked and marks nothing else.
	if (!isSame(view.state.field(marks), drawn)) view.dispatch({ effects: setMarks.of(drawn) });
}

/** Whether two sets mark the same places alike. The library's own comparison looks at points alone, and marks are none. */
function isSame(a: DecorationSet, b: DecorationSet): boolean {
	if (a.size !== b.size) return false;
	const [one, other] = [a.iter(), b.iter()];
	for (; one.value; one.next(), other.next())
		if (one.from !== other.from || one.to !== other.to || one.value !== other.value) return false;
	return true;
}

/**
 * Writes into a field that nobody sees while nobody does anything, so that the first words somebody writes go as fast as
 * later ones.
 */
export function rehearse() {
	const place = document.createElement('div');
	place.inert = true;
	place.style.cssText = 'position:fixed;top:0;left:0;width:320px;height:60px;opacity:0;z-index:-1;contain:strict';
	document.body.append(place);
	const view = makeEditor(place, '{page.title} ', {
		...{ label: '', describedBy: '', placeholder: '' },
		...{ variables: () => [], show: () => '', changed: () => undefined, keep: () => undefined, takeBack: () => false }
	});
	const once = async (times: number) => {
		const words = view.contentDOM.querySelector('.cm-line')?.lastChild;
		if (words instanceof Text) words.appendData('words '.charAt(times % 6));
		// The editor has seen what was written when this goes on.
		await Promise.resolve();
		setMarksOf(view, { pieces: [], errors: [{ start: 0, end: 12 - (times % 2) }] });
		view.coordsAtPos(view.state.doc.length);
	};
	rehearsing(once, () => {
		view.destroy();
		place.remove();
	});
}
