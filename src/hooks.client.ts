import type { ClientInit } from '@sveltejs/kit';
import { learn, speak } from '$ui/words/speaking';

/** The words of the language that the page was drawn in come before anything is drawn in the browser. */
export const init: ClientInit = async () => {
	const language = document.documentElement.lang;
	if (language === 'fr') {
		const { fr, learnFrench } = await import('$ui/languages/french');
		learn(language, fr);
		learnFrench();
	} else if (language !== 'en-GB') {
		const [{ ENGLISH }, { inPseudo, isPseudo }] = await Promise.all([
			import('$ui/languages/english'),
			import('$ui/words/pseudo')
		]);
		if (isPseudo(language)) learn(language, inPseudo(ENGLISH, language));
	}
	speak(language);
};
