import { availableParallelism } from 'node:os';
import { setImmediate } from 'node:timers/promises';
import type { FolderEntry } from '../files/folder';
import { readFiles, type FilePage, type PageFile, type ReadsFiles } from './readFiles';
import type { ReadPage } from './staging';

/** A file, and what is kept of its last reading where it has not changed since. */
export interface FileState extends PageFile {
	readonly entry: FolderEntry;
	readonly kept: ReadPage | undefined;
}

/** So many files are read in a go; so many goes are read elsewhere at once, and so many at the most wait for their turn. */
const GO = 48;
const ELSEWHERE = Math.max(1, Math.min(4, availableParallelism() - 1));
const MOST_GOES = 12;
/** Fewer files of a folder, or of a go, are read here alone: threads cost a second to begin. */
const SHARED_FROM = 2000;
const FEW = 12;

interface Go {
	readonly states: readonly FileState[];
	readonly read: Promise<readonly (FilePage | string)[]>;
	isElsewhere: boolean;
	isDone: boolean;
}

/**
 * The files in their order, each with its page or the reason why it is none; one that has not changed is not opened. Of many,
 * some are read elsewhere; what is waited for is not: meanwhile the next are read here.
 */
export async function* readInTurn(
	entries: readonly FolderEntry[],
	stateOf: (entry: FolderEntry) => FileState,
	bare: boolean,
	reader: ReadsFiles | undefined
): AsyncGenerator<{ readonly state: FileState; readonly read: FilePage | string }> {
	const elsewhere = entries.length >= SHARED_FROM ? reader : undefined;
	const goes: Go[] = [];
	let begun = 0;
	const begin = () => {
		const states = entries.slice(begun, (begun += GO)).map(stateOf);
		const toRead = states.filter(({ entry, kept }) => !entry.link && !kept);
		const files = toRead.map(({ file, path, stamp, isPlaced }) => ({ file, path, stamp, isPlaced }));
		const isFree = goes.filter(({ isElsewhere, isDone }) => isElsewhere && !isDone).length < ELSEWHERE;
		const reads = elsewhere && isFree && files.length >= FEW ? elsewhere : readFiles;
		const go: Go = { states, read: reads(files, bare), isElsewhere: reads !== readFiles, isDone: false };
		const done = () => (go.isDone = true);
		// One that fails is told when its turn comes.
		go.read.then(done, done);
		goes.push(go);
		return go;
	};
	while (begun < entries.length || goes.length > 0) {
		while (begun < entries.length && goes.length < MOST_GOES && goes[0]?.isDone !== true) {
			const { isElsewhere, read } = begin();
			// What others have done meanwhile is heard of.
			if (!isElsewhere) await Promise.all([read, setImmediate()]);
		}
		const { states, read } = goes.shift()!;
		const pages = await read;
		let at = 0;
		for (const state of states)
			yield { state, read: state.entry.link ? 'a link, which is never followed' : (state.kept ?? pages[at++]!) };
	}
}
