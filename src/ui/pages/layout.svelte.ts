import { COLUMNS, type Column } from './columns';

/** Columns are this wide (pixels) at the least and at the most. */
export const NARROWEST = 48;
export const WIDEST = 900;

/** How somebody has set the columns of a site's table: which, in which order, how wide. The path stands first, always. */
export class ColumnLayout {
	/** Ids in their order. */
	shown = $state.raw<readonly string[]>([]);
	/** Of those that were set otherwise. */
	private widths = $state.raw<Readonly<Record<string, number>>>({});
	readonly columns: readonly Column[] = $derived(
		this.shown.flatMap((id) => {
			const column = COLUMNS.find((one) => one.id === id);
			const width = Object.hasOwn(this.widths, id) ? this.widths[id] : undefined;
			return column ? [width === undefined ? column : { ...column, width }] : [];
		})
	);

	constructor(
		shown: readonly string[],
		/** What widths are remembered under, in this browser; without it, they are not. */
		private readonly key?: string
	) {
		this.shown = inOrder(shown);
	}

	/** Takes the widths that are remembered: once the room is drawn as it came, since the server knows none. */
	recall() {
		try {
			const kept = JSON.parse((this.key && localStorage.getItem(this.key)) ?? '{}') as Readonly<
				Record<string, unknown>
			>;
			this.widths = Object.fromEntries(
				Object.entries(kept).flatMap(([id, width]) => (typeof width === 'number' ? [[id, within(width)]] : []))
			);
		} catch {
			// What is remembered there is somebody else's.
		}
	}

	toggle(id: string) {
		this.shown = this.shown.includes(id)
			? this.shown.filter((one) => one !== id || one === 'path')
			: [...this.shown, id];
	}
	/** Moves a column by a place; the path stays first. */
	move(id: string, by: -1 | 1) {
		const at = this.shown.indexOf(id);
		const to = at + by;
		if (at < 1 || to < 1 || to >= this.shown.length) return;
		const next = [...this.shown];
		[next[at], next[to]] = [next[to]!, id];
		this.shown = next;
	}
	resize(id: string, width: number) {
		this.widths = { ...this.widths, [id]: within(width) };
	}
	/** Once somebody has let go. */
	keep() {
		try {
			if (this.key) localStorage.setItem(this.key, JSON.stringify(this.widths));
		} catch {
			// A browser that keeps nothing: it is as it is until the room is left.
		}
	}
}

const within = (width: number) => Math.round(Math.min(WIDEST, Math.max(NARROWEST, width)));

/** Those that are known, once each, the path first. */
function inOrder(ids: readonly string[]): readonly string[] {
	const known = ids.filter((id) => id !== 'path' && COLUMNS.some((column) => column.id === id));
	return ['path', ...new Set(known)];
}

/** A column's edge is dragged: it is as wide as the hand says, and that is kept when it lets go. */
export function widen(event: PointerEvent, id: string, before: number, layout: ColumnLayout): void {
	event.preventDefault();
	event.stopPropagation();
	const edge = event.currentTarget as HTMLElement;
	edge.setPointerCapture(event.pointerId);
	const begun = event.clientX;
	const move = ({ clientX }: PointerEvent) => layout.resize(id, before + clientX - begun);
	const end = () => {
		edge.removeEventListener('pointermove', move);
		layout.keep();
	};
	edge.addEventListener('pointermove', move);
	edge.addEventListener('lostpointercapture', end, { once: true });
}
