import { readFileSync } from 'node:fs';

/** The most memory a process has held so far, in megabytes, as Linux counts it; 0 once it has ended. */
export function peakOf(pid: number): number {
	try {
		return Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
	} catch {
		return 0;
	}
}
