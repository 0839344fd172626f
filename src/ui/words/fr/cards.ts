import type { InOtherWords } from '../speaking';
import type { wording } from '../en/cards';

export const cards: InOtherWords<typeof wording> = {
	thisReaderCutsHere: 'Ce lecteur coupe ici',
	aDoubleClickWritesItAtThis: (tag, what) => `${tag}${what}. Un double clic l’écrit à cette page.`,
	fromThisPage: 'de cette page',
	fromItsType: 'de son type',
	fromTheSite: 'du site',
	builtIn: 'd’origine',
	asFoundInThePage: 'comme trouvé dans la page',
	beingDrawn: 'Dessin en cours …',
	thePictureCannotBeFetched: 'L’image ne peut pas être obtenue',
	noPictureTheCardStaysBlank: 'Pas d’image : la carte reste vide ici',
	aSmallCard: (why) => `Une petite carte : ${why}.`,
	wideItGetsLittleRoomHere: 'large : elle a peu de place ici'
};
