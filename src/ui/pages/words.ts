import type { FieldValue } from '$core';
/** What it means that a work over many pages was stopped, or that its answer broke off. */
export const ENDINGS = {
	stopped: 'Stopped: nothing was changed.',
	broken: 'The work ended before its time. Look at the record, and try again.'
};

/** What is told before a change of many that reaches beyond one's area. */
export const beyondInWords = (pages: number): string =>
	`${pages === 1 ? 'One of these pages lies' : `${pages.toLocaleString('en')} of these pages lie`} outside your area: it would be refused whole. Leave ${pages === 1 ? 'it' : 'them'} out first.`;

/** A field as it is written on many pages: undefined while that is not said, null to empty it. */
export interface WrittenField {
	readonly name: string;
	readonly value: FieldValue | undefined;
}
