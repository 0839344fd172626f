import { wording } from '$ui/words/en/pages';
import { counted } from '$ui/words/speaking';
import type { FieldValue } from '$core';
/** What it means that a work over many pages was stopped, or that its answer broke off. */
export const ENDINGS = {
	get stopped() {
		return wording.stoppedNothingWasChanged;
	},
	get broken() {
		return wording.theWorkEndedBeforeItsTime;
	}
};

/** What is told before a change of many that reaches beyond one's area. */
export const beyondInWords = (pages: number): string =>
	wording.outsideYourAreaItWouldBe(
		pages === 1 ? wording.oneOfThesePagesLies : wording.ofThesePagesLie(counted(pages)),
		pages === 1 ? wording.it : wording.them
	);

/** A field as it is written on many pages: undefined while that is not said, null to empty it. */
export interface WrittenField {
	readonly name: string;
	readonly value: FieldValue | undefined;
}
