import { PURPOSES } from '../catalogue/catalogue';
import { FINDING_WORDS } from '../findings/finding';
import { ISSUE_WORDS } from '../issue';
import { READER_WORDS } from '../readers/habits';
import { STEP_WORDS } from '../resolve/describe';
import { findings } from './findings';
import { LABELS } from '../words/labels';
import { issues } from './issues';
import { labels } from './labels';
import { readers } from './readers';
import { KIND_NAMES } from '../findings/names';
import { SEEN_WORDS } from '../readers/seenWords';
import { names } from './names';
import { seen } from './seen';
import { REASON_WORDS } from '../readers/reasons';
import { reasons } from './reasons';
import { steps } from './steps';
import { purposes } from './tags';

/** The core learns French. */
export function learnFrench(): void {
	FINDING_WORDS.learn('fr', findings);
	ISSUE_WORDS.learn('fr', issues);
	READER_WORDS.learn('fr', readers);
	KIND_NAMES.learn('fr', names);
	SEEN_WORDS.learn('fr', seen);
	REASON_WORDS.learn('fr', reasons);
	STEP_WORDS.learn('fr', steps);
	PURPOSES.learn('fr', purposes);
	LABELS.learn('fr', labels);
}
