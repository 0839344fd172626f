import type { Spoken } from '$core';

/** What was chosen is kept in a cookie of the browser. */
export const LANGUAGE_COOKIE = 'kephalon-language';
/** As long as browsers keep one (seconds). */
const KEPT = 400 * 24 * 60 * 60;

/** Speaks another language: the page in view is asked for again, once what is being typed was kept. */
export function takeLanguage(language: Spoken): void {
	const secure = location.protocol === 'https:' ? '; Secure' : '';
	document.cookie = `${LANGUAGE_COOKIE}=${language}; Path=/; Max-Age=${KEPT}; SameSite=Lax${secure}`;
	(document.activeElement as HTMLElement | null)?.blur();
	setTimeout(() => location.reload());
}
