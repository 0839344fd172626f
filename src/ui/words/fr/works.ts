import type { InOtherWords } from '../speaking';
import type { wording } from '../en/works';

export const works: InOtherWords<typeof wording> = {
	aboutSecondsStill: (seconds) => `encore ${seconds} secondes environ`,
	aboutMinutesStill: (minutes) => `encore ${minutes} minutes environ`,
	aboutHoursStill: (hours) => `encore ${hours} heures environ`,
	stop: (what) => `Arrêter : ${what}`,
	stop2: 'Arrêter',
	close: (what) => `Fermer : ${what}`,
	close2: 'Fermer',
	of: (done, all) => `${done} sur ${all}`,
	aFewSecondsStill: 'encore quelques secondes',
	aboutAMinuteStill: 'encore une minute environ',
	aboutAnHourStill: 'encore une heure environ',
	stopped: 'Arrêté.'
};
