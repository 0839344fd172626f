import { HELP_WORDS } from '../help';
import { findings } from './findings';
import { kinds } from './kinds';
import { settings } from './settings';
import { signs } from './signs';

/** The help learns French. */
export const learnHelp = (): unknown => HELP_WORDS.learn('fr', { findings, kinds, settings, signs });
