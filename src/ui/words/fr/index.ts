import type { Tables } from '../speaking';
import { asking } from './asking';
import { bench } from './bench';
import { cards } from './cards';
import { fields } from './fields';
import { findings } from './findings';
import { look } from './look';
import { overview } from './overview';
import { pages } from './pages';
import { pagesAbout } from './pagesAbout';
import { panel } from './panel';
import { parts } from './parts';
import { people } from './people';
import { pictures } from './pictures';
import { places } from './places';
import { programs } from './programs';
import { readers } from './readers';
import { record } from './record';
import { releases } from './releases';
import { rich } from './rich';
import { rooms } from './rooms';
import { settings } from './settings';
import { setup } from './setup';
import { share } from './share';
import { works } from './works';
import { workspace } from './workspace';

export { FRENCH } from '../../../core/words/fr';

/** The interface in French. */
export const fr = {
	asking,
	bench,
	cards,
	fields,
	findings,
	look,
	overview,
	pages,
	pagesAbout,
	panel,
	parts,
	people,
	pictures,
	places,
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
