import { section, type Said } from '../speaking';

export const wording = section('cards', {
	thisReaderCutsHere: 'This reader cuts here',
	aDoubleClickWritesItAtThis: (tag: Said, what: Said) => `${tag}${what}. A double click writes it at this page.`,
	fromThisPage: 'from this page',
	fromItsType: 'from its type',
	fromTheSite: 'from the site',
	builtIn: 'built in',
	asFoundInThePage: 'as found in the page',
	beingDrawn: 'Being drawn …',
	thePictureCannotBeFetched: 'The picture cannot be fetched',
	noPictureTheCardStaysBlank: 'No picture: the card stays blank here',
	aSmallCard: (why: Said) => `A small card: ${why}.`,
	wideItGetsLittleRoomHere: 'wide: it gets little room here'
});
