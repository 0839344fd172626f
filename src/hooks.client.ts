import type { ClientInit } from '@sveltejs/kit';
import { speakBy } from '$core';
import { learn, speak } from '$ui/words/speaking';

/** The words of the language that the page was drawn in come before anything is drawn in the browser. */
export const init: ClientInit = async () => {
	if (document.documentElement.lang !== 'fr') return;
	const { fr, FRENCH } = await import('$ui/words/fr');
	learn('fr', fr);
	speakBy(() => FRENCH);
	speak('fr');
};
