import { section, type Said } from '../speaking';

export const wording = section('works', {
	aboutSecondsStill: (seconds: Said) => `about ${seconds} seconds still`,
	aboutMinutesStill: (minutes: Said) => `about ${minutes} minutes still`,
	aboutHoursStill: (hours: Said) => `about ${hours} hours still`,
	stop: (what: Said) => `Stop: ${what}`,
	stop2: 'Stop',
	close: (what: Said) => `Close: ${what}`,
	close2: 'Close',
	of: (done: Said, all: Said) => `${done} of ${all}`,
	aFewSecondsStill: 'a few seconds still',
	aboutAMinuteStill: 'about a minute still',
	aboutAnHourStill: 'about an hour still',
	stopped: 'Stopped.'
});
