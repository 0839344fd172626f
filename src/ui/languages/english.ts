import { wording as asking } from '$ui/words/en/asking';
import { wording as bench } from '$ui/words/en/bench';
import { wording as cards } from '$ui/words/en/cards';
import { wording as fields } from '$ui/words/en/fields';
import { wording as findings } from '$ui/words/en/findings';
import { wording as overview } from '$ui/words/en/overview';
import { wording as pages } from '$ui/words/en/pages';
import { wording as pagesAbout } from '$ui/words/en/pagesAbout';
import { wording as panel } from '$ui/words/en/panel';
import { wording as parts } from '$ui/words/en/parts';
import { wording as people } from '$ui/words/en/people';
import { wording as pictures } from '$ui/words/en/pictures';
import { wording as programs } from '$ui/words/en/programs';
import { wording as readers } from '$ui/words/en/readers';
import { wording as record } from '$ui/words/en/record';
import { wording as releases } from '$ui/words/en/releases';
import { wording as rich } from '$ui/words/en/rich';
import { wording as rooms } from '$ui/words/en/rooms';
import { wording as settings } from '$ui/words/en/settings';
import { wording as setup } from '$ui/words/en/setup';
import { wording as share } from '$ui/words/en/share';
import { wording as works } from '$ui/words/en/works';
import { wording as workspace } from '$ui/words/en/workspace';

import { wording as help } from '$ui/words/en/help';

/** All messages of the interface in its first language, by part. */
export const ENGLISH = {
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
};
