import { tv, type VariantProps } from 'tailwind-variants/lite';

/** How parts look that are more than one of Bits UI's, or of the markup. */

export const button = tv({
	base: 'disabled:cursor-default disabled:opacity-55',
	variants: {
		look: {
			/** What can be done. */
			plain:
				'rounded-sm border border-rule-strong bg-sheet px-2.5 py-0.5 font-medium not-disabled:hover:border-sea not-disabled:hover:text-sea',
			/** In a row of many. */
			small:
				'rounded-sm border border-rule-strong bg-sheet px-1.5 font-medium not-disabled:hover:border-sea not-disabled:hover:text-sea',
			/** What one most likely wants to do here: one at a place. */
			main: 'rounded-sm bg-sea px-3.5 py-1.25 font-semibold text-sea-ink',
			/** In the midst of words. */
			link: 'underline underline-offset-2'
		}
	},
	defaultVariants: { look: 'plain' }
});
export type ButtonLook = NonNullable<VariantProps<typeof button>['look']>;

/** What one chooses among a few by, and the list that opens under it. */
export const select = tv({
	base: 'inline-flex max-w-full items-center justify-between gap-1.5 text-left disabled:cursor-default disabled:opacity-55 [&>.sign]:text-2xs [&>.sign]:text-ink-soft',
	variants: {
		look: {
			plain: 'rounded-sm border border-rule-strong bg-sheet px-1.75 py-0.75 hover:border-sea aria-invalid:border-gone',
			/** In the midst of words. */
			bare: 'rounded-sm border border-transparent px-0.5 text-ink-soft hover:border-rule-strong'
		}
	},
	defaultVariants: { look: 'plain' }
});
export type SelectLook = NonNullable<VariantProps<typeof select>['look']>;
export const LIST =
	'z-30 max-h-80 min-w-(--bits-select-anchor-width) max-w-[calc(100vw-16px)] overflow-y-auto rounded-sm border border-rule-strong bg-sheet py-1.5 shadow-over';
export const LIST_ITEM = 'flex cursor-pointer items-baseline gap-1.5 px-2.5 py-0.75';

/** A few fields behind one word. */
export const LEAF =
	'z-20 max-w-[calc(100vw-16px)] rounded-sm border border-rule-strong bg-sheet px-3 py-2.25 text-sm shadow-over';

/** What lies over a room. */
export const over = tv({
	base: 'fixed top-15 left-1/2 z-20 max-w-[calc(100vw-32px)] -translate-x-1/2 rounded-sm border border-rule-strong bg-sheet shadow-over',
	variants: { size: { small: 'w-130', middle: 'w-155', wide: 'w-245' } },
	defaultVariants: { size: 'small' }
});
export type WindowSize = NonNullable<VariantProps<typeof over>['size']>;

/** What veils the room under it. */
export const VEIL = 'fixed inset-0 z-19 bg-shade/35';
