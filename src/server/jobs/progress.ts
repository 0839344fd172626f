/** Told how many pages a job has seen. */
export type Progress = (done: number) => void;
