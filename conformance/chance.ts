/** Numbers from 0 up to 1, the same ones for the same seed. */
export class Chance {
	constructor(private state: number) {}

	next(): number {
		this.state = (Math.imul(this.state, 1664525) + 1013904223) >>> 0;
		return this.state / 2 ** 32;
	}
	below(limit: number): number {
		return Math.floor(this.next() * limit);
	}
	/** True so many times in a hundred. */
	is(percent: number): boolean {
		return this.next() * 100 < percent;
	}
	pick<T>(all: readonly T[]): T {
		return all[this.below(all.length)] as T;
	}
	/** Up to so many, some perhaps twice. */
	some<T>(all: readonly T[], most: number): T[] {
		return Array.from({ length: this.below(most + 1) }, () => this.pick(all));
	}
	/** A part of an object, or nothing of it. */
	maybe<T extends object>(percent: number, make: () => T): T | Record<never, never> {
		return this.is(percent) ? make() : {};
	}
}

/** A text in which white space and controls can be told apart. */
export const visible = (text: string) =>
	text.replace(
		/[\u0000-\u0009\u000b-\u001f\u007f-\u00a0\u2028\u2029]/g,
		(sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`
	);
