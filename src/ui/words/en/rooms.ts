import { section, type Said } from '../speaking';

export const wording = section('rooms', {
	keys: 'Keys',
	theRoom: (name: Said) => `The room “${name}”`,
	toTheContent: 'To the content',
	roomsOfTheSite: 'Rooms of the site',
	kephalonToTheSites: 'Kephalon, to the sites',
	kephalon: 'Kephalon',
	oneEditWaits: 'One edit waits',
	editsWait: (waiting: Said) => `${waiting} edits wait`,
	toBeKept: (what: Said) => `${what} to be kept`,
	language: 'Language',
	look: 'Look',
	colours: 'Colours',
	asTheSystemHasThem: 'as the system has them',
	space: 'Space',
	asUsual: 'as usual',
	overview: 'Overview',
	pages: 'Pages',
	bench: 'Bench',
	findings: 'Findings',
	readers: 'Readers',
	library: 'Library',
	releases: 'Releases'
});
