/** What became of one line of pages that a program sends. */
export interface PushTold {
	/** From 1. */
	readonly line: number;
	readonly path?: string;
	readonly is: 'made' | 'changed' | 'same' | 'gone' | 'refused';
	/** Fields that its source sent before and sends no more: they are taken away. */
	readonly left?: readonly string[];
	/** Fields that it sends empty. */
	readonly emptied?: readonly string[];
	/** What is sent and stays as it is here: fields that somebody wrote, `state`, `alternates`. */
	readonly held?: readonly string[];
	/** Another source had sent the page before. */
	readonly otherSource?: string;
	readonly code?: string;
	readonly refused?: string;
}

/** Told how many pages a job has seen, of how many where it knows, and what became of the last ones where that is told. */
export type Progress = (done: number, all?: number, told?: readonly PushTold[]) => void;

/** The same, told so often at the most (milliseconds), and of the last: who hears it counts faster than anybody reads. */
export function atMostEvery(wait: number, progress: Progress): (done: number, all: number) => void {
	let last = -Infinity;
	return (done, all) => {
		const now = performance.now();
		if (now - last < wait && done !== all) return;
		last = now;
		progress(done, all);
	};
}
