import type { InOtherWords } from '../speaking';
import type { wording } from '../en/rich';

export const rich: InOtherWords<typeof wording> = {
	nothingOfItIsChanged: (cannot) => `${cannot} Rien n’en est changé.`,
	writeItAsItLooks: 'L’écrire tel qu’il apparaît',
	formOf: (name) => `Forme de ${name}`,
	style: 'Style',
	heading: (style) => `Intertitre ${style}`,
	bold: 'Gras',
	boldCtrlB: 'Gras (Ctrl+B)',
	italic: 'Italique',
	italicCtrlI: 'Italique (Ctrl+I)',
	leadTheseWordsSomewhere: 'Faire mener ces mots quelque part',
	markTheWordsThatShouldLead: 'Sélectionnez les mots qui doivent mener quelque part',
	link: 'Lien',
	list: 'Liste',
	quote: 'Citation',
	markup: 'Code',
	whereTheWordsLead: 'Où mènent les mots',
	visitOrHttps: '/visit ou https://…',
	takeTheLinkOut: 'Ôter le lien',
	keepTheLink: 'Garder le lien',
	text: 'Texte',
	heading2: 'Titre',
	subheading: 'Sous-titre',
	smaller: 'Plus petit',
	code: 'Code',
	aRemark: 'une remarque',
	itIsTooLongToBeShown: 'Il est trop long pour être montré tel qu’il apparaît ; il se modifie donc tel quel.',
	itHasPartsThatOnlyMarkupCan: 'Il a des parties que seul le code peut dire ; il se modifie donc tel quel.'
};
