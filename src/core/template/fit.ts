import { clipText, countGraphemes, cutBefore, isBlank, settleText } from '../text/text';
import { measureText, offsetOfWidth } from '../text/measure';
import { WIDTH_SIZE } from './filters/texts';

interface Place {
	readonly start: number;
	readonly end: number;
}
interface Reading<S> extends Place {
	readonly read: (scope: S) => string | undefined;
}

/** A part of a template that says how long it may be. */
export interface Stretch<S> {
	/** One, or several of which each stands in for those before it, with their places in the source. */
	readonly readings: readonly Reading<S>[];
	/** It may go as a whole. */
	readonly mayGo: boolean;
	/** It goes before those with a greater number; those without one go last, from the end. */
	readonly turn: number | undefined;
}

interface Room {
	readonly limit: number;
	readonly by: 'characters' | 'pixels';
}

/**
 * The most of a template that fits. Stretches go one by one, those with a turn first, then from the end; a choice gives way
 * to its next reading. Then what went last comes back where there is room for it. Where nothing is left that can go, the text
 * is cut at the end of a word.
 */
export function compileFit<S>(
	stretches: readonly Stretch<S>[],
	room: Room,
	settle: (texts: readonly string[], scope: S) => string
) {
	const order = orderOf(stretches);
	const fitting = (scope: S) => {
		const readings = stretches.map((one) => readingsOf(one, scope));
		const chosen = readings.map(() => 0);
		const textNow = () =>
			settle(
				readings.map((texts, at) => texts[chosen[at]!]?.text ?? ''),
				scope
			);
		const gone: number[] = [];
		let text = textNow();
		for (const at of order) {
			while (!fits(text, room) && chosen[at]! < readings[at]!.length - 1) {
				chosen[at]!++;
				const shorter = textNow();
				// What says nothing any more is no reading.
				if (isBlank(shorter)) {
					chosen[at]!--;
					break;
				}
				text = shorter;
				gone.push(at);
			}
		}
		for (const at of gone.slice(0, -1).reverse()) {
			chosen[at]!--;
			const longer = textNow();
			if (fits(longer, room)) text = longer;
			else chosen[at]!++;
		}
		return { text, gone: readings.flatMap((all, at) => all.slice(0, chosen[at])) };
	};
	return {
		run: (scope: S) => cutTo(fitting(scope).text, room),
		gone: (scope: S) => fitting(scope).gone.map(({ start, end }) => ({ start, end }))
	};
}

/** What a stretch can say on a page, in the order in which it does; '' at the end where it may go, or says nothing. */
function readingsOf<S>({ readings, mayGo }: Stretch<S>, scope: S): readonly (Place & { readonly text: string })[] {
	const texts = readings
		.map(({ read, start, end }) => ({ text: read(scope) ?? '', start, end }))
		.filter(({ text }) => readings.length === 1 || !isBlank(text));
	const none = { text: '', start: -1, end: -1 };
	return mayGo || texts.length === 0 ? [...texts, none] : texts;
}

/** The stretches that can give way, in the order in which they do. */
function orderOf<S>(stretches: readonly Stretch<S>[]): number[] {
	const all = stretches.flatMap(({ mayGo, readings, turn }, at) =>
		mayGo || readings.length > 1 ? [{ at, turn }] : []
	);
	return all.sort((a, b) => (a.turn ?? Infinity) - (b.turn ?? Infinity) || b.at - a.at).map(({ at }) => at);
}

function fits(text: string, { limit, by }: Room): boolean {
	const settled = settleText(text);
	return by === 'pixels' ? measureText(settled, WIDTH_SIZE) <= limit : countGraphemes(settled) <= limit;
}

function cutTo(text: string, { limit, by }: Room): string {
	if (fits(text, { limit, by })) return text;
	const settled = settleText(text);
	if (by === 'characters') return clipText(settled, limit);
	const at = offsetOfWidth(settled, limit, WIDTH_SIZE);
	return at <= 0 ? '' : cutBefore(settled, at);
}
