import type { EditableLayer } from '$ui/parts/words';
import { wording } from '$ui/words/en/settings';
import { firstOf } from '$ui/words/speaking';

/** The settings of each layer by the keys of their names, for who looks for one. */
export const SETTINGS_OF = {
	site: [
		'name2',
		'publicBaseAddress',
		'languages',
		'timeZone',
		'private',
		'editorsRelease',
		'releasesKept',
		'separator',
		'publisher',
		'account',
		'authorOfPagesThatNameNone',
		'sizeOfCards',
		'leanHeads',
		'pathsThatRobotsLeaveAlone'
	],
	type: [
		'whatOneOfThemIsCalled',
		'thesePagesAreVideos',
		'kindOgType',
		'itStandsFor',
		'itsOwnPicture',
		'switchedOff',
		'pathsOfItsPages',
		'addressOfARecord',
		'samples'
	],
	page: ['path', 'type', 'markForVideo', 'state', 'hiddenFromSearch', 'keyPage', 'targetPhrase']
} as const satisfies Readonly<Record<EditableLayer, readonly (keyof typeof wording)[]>>;

/** Their names, as they stand beside them. */
export const settingNames = (layer: EditableLayer): string[] => SETTINGS_OF[layer].map((key) => wording[key]);

/** What a setting is called in the first language, by which `?` knows it; undefined of what has no such words. */
export function firstNamed(name: string): string | undefined {
	const key = Object.values(SETTINGS_OF)
		.flat()
		.find((one) => wording[one] === name);
	return key && firstOf(wording)[key];
}
