/** Told how many pages a job has seen, and of how many where it knows. */
export type Progress = (done: number, all?: number) => void;
