import { section, type Said } from '../speaking';

export const wording = section('programs', {
	mayBeMissing: ', may be missing',
	routes: 'Routes',
	kephalon: 'Kephalon',
	findARoute: 'Find a route',
	findARoutePushReleaseHead: 'Find a route: push, release, head',
	noRouteHasThatInItsWords: 'No route has that in its words.',
	forPrograms: 'For programs',
	theWholeOfIt: (what: Said) => `${what} The whole of it:`,
	everybodyMayAsk: 'Everybody may ask.',
	asksFor: (right: Said) => `Asks for: ${right}.`,
	whatIsSent: 'What is sent',
	send: (method: Said) => `Send ${method}`,
	sayFirst: (join: Said) => `Say first: ${join}.`,
	askedWithYourOwnRights: 'Asked with your own rights.',
	askedWithYourOwnRightsItDoes: 'Asked with your own rights: it does what it says.',
	whatWasAnswered: 'What was answered',
	whatIsAnswered: 'What is answered',
	nothingWasAnswered: 'Nothing was answered',
	bytesNoText: (blob: Said) => `${blob} bytes, no text.`,
	andMore: (slice: Said, it: Said) => `${slice}
… and ${it} more.`,
	anything: 'anything',
	listOf: (what: Said) => `list of ${what}`
});
