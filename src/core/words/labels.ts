import { ownOf } from '../own';
import { otherWords } from './speaking';

/** Names and short remarks of what is built in, by how they stand in English, in other languages. */
export const LABELS = otherWords<Readonly<Record<string, string>>>();

/** The same in the language that is spoken; words of a site's own stay as they are, since nobody asks for them here. */
export const labelled = (english: string): string => ownOf(LABELS.now(), english) ?? english;
