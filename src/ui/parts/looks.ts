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

/** What lies over a room. */
export const over = tv({
	base: 'fixed top-15 left-1/2 z-20 max-w-[calc(100vw-32px)] -translate-x-1/2 rounded-sm border border-rule-strong bg-sheet shadow-over',
	variants: { size: { small: 'w-130', middle: 'w-155', wide: 'w-245' } },
	defaultVariants: { size: 'small' }
});
export type WindowSize = NonNullable<VariantProps<typeof over>['size']>;

/** What veils the room under it. */
export const VEIL = 'fixed inset-0 z-19 bg-shade/35';
