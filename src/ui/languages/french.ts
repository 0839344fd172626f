import { speakBy } from '$core';
import type { Tables } from '$ui/words/speaking';
import { asking } from '$ui/words/fr/asking';
import { bench } from '$ui/words/fr/bench';
import { cards } from '$ui/words/fr/cards';
import { fields } from '$ui/words/fr/fields';
import { findings } from '$ui/words/fr/findings';
import { overview } from '$ui/words/fr/overview';
import { pages } from '$ui/words/fr/pages';
import { pagesAbout } from '$ui/words/fr/pagesAbout';
import { panel } from '$ui/words/fr/panel';
import { parts } from '$ui/words/fr/parts';
import { people } from '$ui/words/fr/people';
import { pictures } from '$ui/words/fr/pictures';
import { programs } from '$ui/words/fr/programs';
import { readers } from '$ui/words/fr/readers';
import { record } from '$ui/words/fr/record';
import { releases } from '$ui/words/fr/releases';
import { rich } from '$ui/words/fr/rich';
import { rooms } from '$ui/words/fr/rooms';
import { settings } from '$ui/words/fr/settings';
import { setup } from '$ui/words/fr/setup';
import { share } from '$ui/words/fr/share';
import { works } from '$ui/words/fr/works';
import { workspace } from '$ui/words/fr/workspace';

import { help } from '$ui/words/fr/help';
import { learnHelp } from '$ui/help/fr';
import { learnFrench as learnCore } from '../../core/french';

/** In a browser whose page is in French: all that is said beside these messages is learned, and said so from now on. */
export function learnFrench(): void {
	learnCore();
	learnHelp();
	speakBy(() => 'fr');
}

/** The interface in French. */
export const fr = {
	help,
	asking,
	bench,
	cards,
	fields,
	findings,
	overview,
	pages,
	pagesAbout,
	panel,
	parts,
	people,
	pictures,
	programs,
	readers,
	record,
	releases,
	rich,
	rooms,
	settings,
	setup,
	share,
	works,
	workspace
} satisfies Tables;
