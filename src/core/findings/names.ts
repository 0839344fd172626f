import { ownOf } from '../own';
import { otherWords } from '../words/speaking';

/** What kinds of findings are called in other languages, by their codes. */
export const KIND_NAMES = otherWords<Readonly<Record<string, string>>>();

/** What a kind of finding is called, as short as a cell of a table takes it: its code in words. */
export const nameOfKind = (code: string): string => ownOf(KIND_NAMES.now() ?? {}, code) ?? code.replaceAll('-', ' ');
