import type { ReaderCase } from './answers';
import { READERS_APART } from './apart';
import { BESIDE } from './beside';
import { KINDS } from './kinds';
import { LINES } from './lines';
import { MARKUP } from './markup';
import { MORE } from './more';
import { ODD_ANSWERS } from './oddAnswers';
import { ODD_TAGS } from './oddTags';
import { PICTURES } from './pictures';
import { SHELLS } from './shells';
import { TEXTS } from './texts';
import { WAYS } from './ways';

export const CASES: readonly ReaderCase[] = [
	...LINES,
	...MARKUP,
	...BESIDE,
	...WAYS,
	...READERS_APART,
	...KINDS,
	...TEXTS,
	...SHELLS,
	...PICTURES,
	...MORE,
	...ODD_TAGS,
	...ODD_ANSWERS
];
