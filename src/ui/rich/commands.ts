import type { MarkType, NodeType } from 'prosemirror-model';
import { wrapInList } from 'prosemirror-schema-list';
import type { Command, EditorState } from 'prosemirror-state';
import { schema, type Kept } from './schema';

const { nodes, marks } = schema;

/** What the tools show of the place that the caret is at. */
export interface ToolState {
	readonly strong: boolean;
	readonly em: boolean;
	/** Where the words at the caret lead. */
	readonly link: string | undefined;
	readonly canLink: boolean;
	readonly bullets: boolean;
	readonly numbers: boolean;
	readonly quote: boolean;
}

export function stateOf(state: EditorState): ToolState {
	const { $from, empty } = state.selection;
	const isIn = (type: NodeType) =>
		Array.from({ length: $from.depth + 1 }, (_, depth) => $from.node(depth)).some((node) => node.type === type);
	const link = linkAt(state);
	return {
		strong: hasMark(state, marks.strong),
		em: hasMark(state, marks.em),
		link: link?.href,
		canLink: (link !== undefined || !empty) && !isIn(nodes.code),
		bullets: isIn(nodes.bullets),
		numbers: isIn(nodes.numbers),
		quote: isIn(nodes.quote)
	};
}

function hasMark({ selection, storedMarks, doc }: EditorState, type: MarkType): boolean {
	const { $from, from, to, empty } = selection;
	if (empty) return type.isInSet(storedMarks ?? $from.marks()) !== undefined;
	return doc.rangeHasMark(from, to, type);
}

/** The style of the block at the caret: `text`, `code`, or the level of a heading. */
export function styleOf({ selection }: EditorState): string {
	const { parent } = selection.$from;
	if (parent.type === nodes.heading) return String(parent.attrs.level);
	return parent.type === nodes.code ? 'code' : 'text';
}

interface LinkThere {
	readonly href: string;
	readonly kept: Kept;
	readonly from: number;
	readonly to: number;
}

/** The link at the caret or the beginning of what is marked, with all the words that it is on. */
export function linkAt({ selection, doc }: EditorState): LinkThere | undefined {
	const { $from, from, to } = selection;
	let found: LinkThere | undefined;
	const start = $from.start();
	$from.parent.forEach((node, offset) => {
		const mark = marks.link.isInSet(node.marks);
		if (!mark) return;
		const [begin, end] = [start + offset, start + offset + node.nodeSize];
		const isNext = found?.to === begin && marks.link.isInSet(doc.nodeAt(found.from)?.marks ?? [])?.eq(mark);
		if (isNext) found = { ...(found as LinkThere), to: end };
		else if (!found || found.to < from) {
			const kept = mark.attrs.kept as Kept;
			if (begin <= to) found = { href: kept.href ?? '', kept, from: begin, to: end };
		}
	});
	return found && found.from <= from && found.to >= from ? found : undefined;
}

/** Leads the marked words, or those of the link at the caret, to an address; '' takes the link out. */
export const setLink =
	(href: string): Command =>
	(state, dispatch) => {
		const { from, to, empty } = state.selection;
		const there = linkAt(state);
		const range = there && (empty || (there.from <= from && there.to >= to)) ? there : { from, to };
		if (range.from === range.to) return false;
		const { tr } = state;
		tr.removeMark(range.from, range.to, marks.link);
		if (href !== '') tr.addMark(range.from, range.to, marks.link.create({ kept: { ...there?.kept, href } }));
		dispatch?.(tr);
		return true;
	};

/** Makes a list of the blocks that are marked; its lines stand without an element of their own. */
export const makeList =
	(type: NodeType): Command =>
	(state, dispatch) => {
		const { $from } = state.selection;
		const isListed = $from.depth > 1 && $from.node(-1).type === nodes.item && $from.node(-2).type === type;
		if (isListed) return false;
		return wrapInList(type)(
			state,
			dispatch &&
				((tr) => {
					const { from, to } = tr.selection;
					tr.doc.nodesBetween(from, to, (node, at, parent) => {
						if (node.type === nodes.paragraph && parent?.type === nodes.item && parent.childCount === 1)
							tr.setNodeMarkup(at, null, { ...node.attrs, bare: true });
					});
					dispatch(tr);
				})
		);
	};
