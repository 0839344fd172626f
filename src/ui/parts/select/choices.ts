import { hasTyped } from '../shown/typed';

/** What can be chosen: a value that says itself, or one with its words. */
export type Choice<V extends string = string> = V | readonly [value: V, words: string];

/** Above so many choices one searches among them. */
export const SEARCHED_ABOVE = 10;

export const valueOf = <V extends string>(choice: Choice<V>): V => (typeof choice === 'string' ? choice : choice[0]);
export const wordsOf = (choice: Choice): string => (typeof choice === 'string' ? choice : choice[1]);

/** The words of a value; one that is none of the choices says itself. */
export const wordsFor = (choices: readonly Choice[], value: string): string => {
	const one = choices.find((choice) => valueOf(choice) === value);
	return one === undefined ? value : wordsOf(one);
};

/** The choices that have all the words that were typed, as numbers of their places. */
export function foundIn(choices: readonly Choice[], typed: string): number[] {
	return choices.flatMap((choice, at) => (hasTyped(typed, wordsOf(choice)) ? [at] : []));
}

/** What both kinds of opened lists are given. */
export interface ListProps {
	readonly value: string;
	readonly choices: readonly Choice[];
	readonly set: (value: string) => void;
	/** Open as it comes. */
	readonly opens: boolean;
	/** Takes the focus as it comes: what stood here before had it. */
	readonly takes: boolean;
	/** What the button says of itself: its name, its id, its look. */
	readonly trigger: Readonly<Record<string, unknown>>;
}

/** Whether a key is held with another: it belongs to the room. */
export const isHeld = ({ altKey, ctrlKey, metaKey }: KeyboardEvent): boolean => altKey || ctrlKey || metaKey;

/** Whether a key writes a letter or the like, and does nothing else. */
export const isLetter = (event: KeyboardEvent): boolean =>
	event.key.length === 1 && event.key !== ' ' && !isHeld(event);

/** The next choice behind a value whose words begin with a letter. */
export function nextBy<V extends string>(choices: readonly Choice<V>[], value: V, letter: string): V | undefined {
	const at = choices.findIndex((choice) => valueOf(choice) === value);
	const inTurn = [...choices.slice(at + 1), ...choices.slice(0, at + 1)];
	const found = inTurn.find((choice) => wordsOf(choice).toLowerCase().startsWith(letter.toLowerCase()));
	return found === undefined ? undefined : valueOf(found);
}

/** What a part does with a key, but where it is held with another. */
export const besidesHeld = (does: unknown) => (event: KeyboardEvent) => {
	if (!isHeld(event) && typeof does === 'function') (does as (event: KeyboardEvent) => void)(event);
};
