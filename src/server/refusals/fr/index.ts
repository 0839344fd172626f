import { editing } from './editing';
import { ground } from './ground';
import { people } from './people';
import { reading } from './reading';

/** Refusals in French, but those of the command, which speaks English. */
export const FRENCH_REFUSALS = { ...editing, ...ground, ...people, ...reading };
