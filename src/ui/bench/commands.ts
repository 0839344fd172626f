import { wording } from '$ui/words/en/bench';
import { CATALOGUE, purposeOf } from '$core';
import { KEYS, type KeyId } from '$ui/parts/keys';
import type { Command } from '$ui/parts/command';
import { roomAt, ROOMS } from '$ui/places/rooms';
import type { EditableLayer } from '$ui/parts/words';
import { settingNames } from '$ui/settings/names';

const PANEL_NAMES = {
	get page() {
		return wording.settingsOfThisPage;
	},
	get type() {
		return wording.settingsOfItsType;
	},
	get site() {
		return wording.settingsOfTheSite;
	}
} as const;

/** What commands do at the bench, beside what its keys do. */
export interface CommandsDo {
	readonly siteName: string;
	readonly choose: (tag: string) => void;
	readonly goTo: (address: string) => void;
	/** Opens the settings of a layer, at one of them where it is named. */
	readonly open: (layer: EditableLayer, setting?: string) => void;
	readonly takeAway: () => void;
	/** Pins what the cards of this page say, and of the hard pages of its type. */
	readonly pin: () => void;
	readonly pinHard: () => void;
}

/** All that can be done or gone to from the bench by its name; `does` is what its keys do. */
export function commandsOf(
	does: Partial<Record<KeyId, () => void>>,
	{ siteName, choose, goTo, open, takeAway, pin, pinHard }: CommandsDo
): Command[] {
	return [
		...KEYS.filter(({ id }) => does[id] && id !== 'palette').map(({ id, keys, does: name }): Command => ({
			...{ group: 'Do', name, keys },
			run: does[id] as () => void
		})),
		...(['page', 'type', 'site'] as const).map((layer): Command => ({
			...{ group: 'Do', name: PANEL_NAMES[layer], leads: true },
			run: () => open(layer)
		})),
		...(['page', 'type', 'site'] as const).flatMap((layer) =>
			settingNames(layer).map((name): Command => ({
				...{ group: 'Do', name, more: PANEL_NAMES[layer], leads: true },
				run: () => open(layer, name)
			}))
		),
		{ group: 'Do', name: wording.takeThisPageAway, run: takeAway },
		{ group: 'Do', name: wording.pinWhatThisPageSays, run: pin },
		{ group: 'Do', name: wording.pinTheHardPagesOfThisType, run: pinHard },
		...ROOMS.filter(({ id }) => id !== 'bench').map(({ id, name, key }): Command => ({
			...{ group: 'Rooms', name, keys: key },
			run: () => goTo(roomAt(id, siteName))
		})),
		{ group: 'Do', name: wording.setUpOfTheSite, run: () => goTo(`/setup?site=${encodeURIComponent(siteName)}`) },
		{ group: 'Do', name: wording.allSites, run: () => goTo('/sites') },
		{ group: 'Do', name: wording.forPrograms, more: wording.everyRouteToBeReadAndTried, run: () => goTo('/programs') },
		...CATALOGUE.filter((tag) => !tag.fact || tag.fact === 'alt').map((tag): Command => ({
			...{ group: 'Tags', name: tag.name, more: purposeOf(tag), isCode: true, leads: true },
			run: () => choose(tag.name)
		}))
	];
}
