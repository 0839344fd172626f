import { section } from '../speaking';

export const wording = section('look', {
	language: 'Language',
	look: 'Look',
	colours: 'Colours',
	asTheSystemHasThem: 'as the system has them',
	space: 'Space',
	asUsual: 'as usual'
});
