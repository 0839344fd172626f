import { section, type Said } from '../speaking';

const NUMBERS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const many = (count: number) => NUMBERS[count] ?? String(count);

export const wording = section('help', {
	whatIs: (called: Said) => `What is ${called}?`,
	suchAs: 'Such as',
	nothingWrittenYet: 'Nothing is written on this yet.',
	whyItMatters: 'Why it matters',
	title: 'the title',
	description: 'the text',
	picture: 'the picture',
	place: 'the address',
	first: (readers: number, what: Said) => `${many(readers)} ${readers === 1 ? 'takes' : 'take'} it for ${what}`,
	later: (readers: number, what: Said) =>
		`${many(readers)} ${readers === 1 ? 'takes' : 'take'} it for ${what} where nothing better is said`,
	chooseTheSize: (readers: number) =>
		`${many(readers)} ${readers === 1 ? 'chooses' : 'choose'} the size of its card by it`,
	showTheIcon: (readers: number) => `${many(readers)} show it`,
	showThePairs: (readers: number) => `${many(readers)} shows it`,
	robots: 'Search engines keep to it; readers of links make cards all the same.',
	siteName: 'Where a card names the site, it says this; else it says the host.',
	noReader: 'No reader shown here makes its card of it; programs that know its vocabulary read it.',
	ofReaders: (all: Said, parts: Said) => `Of ${all} readers here, ${parts}.`,
	secure: 'Readers here take the picture by its own address; others may take this one.',
	mediaType: 'What the file is when it is fetched counts for more.',
	size: 'Readers lay their cards out by it before the picture has come.',
	alt: 'It goes out with the picture, for people who hear the card.',
	noRule: (parent: Said) => `It takes no rule: it goes with ${parent}, whose picture it is of.`,
	altByItself: 'Where no rule says anything, it is the alt text of the picture.',
	leftOut: 'Where no rule says anything, it is left out.',
	builtIn: (built: Said) => `Where no rule says anything, it is ${built}.`,
	else: ', else ',
	called: (name: Said) => `They call it {${name}}.`
});
