import { section, type Said } from '../speaking';

export const wording = section('places', {
	overview: 'Overview',
	pages: 'Pages',
	bench: 'Bench',
	findings: 'Findings',
	readers: 'Readers',
	library: 'Library',
	releases: 'Releases'
});
