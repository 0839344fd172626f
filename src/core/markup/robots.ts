/**
 * Whether robots directives tell search not to list a page, as a `meta` or a header says them: by directive, so that
 * `max-image-preview:none` is not taken for `none`.
 */
export const hidesFromSearch = (directives: string): boolean =>
	directives.split(',').some((one) => ['noindex', 'none'].includes(one.trim().toLowerCase()));
