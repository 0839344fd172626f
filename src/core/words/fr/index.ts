import type { CoreWords } from '../speaking';
import { findings } from './findings';
import { at, issues } from './issues';
import { habits, readers } from './readers';
import { builtIn, layer, outcome, rule, skipped } from './steps';
import { purposes } from './tags';

/** What the core says in French. */
export const FRENCH: CoreWords = {
	...{ findings, issues, at, purposes, readers, habits },
	...{ layer, builtIn, rule, outcome, skipped }
};
