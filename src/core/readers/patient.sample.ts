import { ALL_READERS, type ReaderProfile } from '../index';

/** The readers, but that they wait as long as a busy machine takes. */
export const PATIENT: readonly ReaderProfile[] = ALL_READERS.map((reader) => ({
	...reader,
	habits: { ...reader.habits, patience: 600_000 }
}));
