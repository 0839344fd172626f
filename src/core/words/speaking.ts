import type { FindingWords } from '../findings/finding';
import type { Issue, IssueCode } from '../issue';
import type { Habits, PictureHabits } from '../readers/habits';
import type { Outcome, SkippedSource, TraceStep } from '../resolve/trace';

/** What the core says, in a language other than English: what is built in says it in English, where it is made. */
export interface CoreWords {
	readonly findings: FindingWords;
	readonly issues: Readonly<Record<IssueCode, (issue: Issue, at: string) => string>>;
	/** Where a line and a column are, in words that follow a name. */
	readonly at: (line: number, column: number) => string;
	/** What tags are for, and what readers are, by their names and ids. */
	readonly purposes: Readonly<Record<string, string>>;
	readonly readers: Readonly<Record<string, string>>;
	/** How a reader goes about it, in sentences; with the statuses of redirects that it does not follow. */
	readonly habits: (
		reader: { readonly habits: Habits; readonly frame?: PictureHabits },
		passed: readonly number[]
	) => string[];
	readonly layer: (layer: TraceStep['layer']) => string;
	/** What is built in, by its name; with the tag that it borrows from. */
	readonly builtIn: (name: string, from: string) => string;
	/** What a step would use; with the shapes it cuts to, where it does. */
	readonly rule: (rule: TraceStep['rule'], cut: string) => string;
	/** What became of a step; with its issue in words, where a rule does not work. */
	readonly outcome: (outcome: Outcome, issue: string) => string;
	readonly skipped: (skipped: SkippedSource) => string;
}

let asked: () => CoreWords | undefined = () => undefined;

/** Says how the words of the language that is spoken now are found; undefined stands for English. */
export const speakBy = (words: () => CoreWords | undefined): unknown => (asked = words);

export const otherWords = (): CoreWords | undefined => asked();
