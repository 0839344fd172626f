import type { ClientInit } from '@sveltejs/kit';
import { learn, speak } from '$ui/words/speaking';

/** The words of the language that the page was drawn in come before anything is drawn in the browser. */
export const init: ClientInit = async () => {
	if (document.documentElement.lang !== 'fr') return;
	learn('fr', (await import('$ui/words/fr')).fr);
	speak('fr');
};
