import type { PushTold } from './imports/push';

/** Told how many pages a job has seen, of how many where it knows, and what became of the last ones where that is told. */
export type Progress = (done: number, all?: number, told?: readonly PushTold[]) => void;
