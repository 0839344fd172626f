import type { TakenBack } from '../../edits/takeBack';
import type { AnyEdit, Edit, FieldUse, GivenWay, Proposal, Reach, TriedPage } from '$core';
import type { TypeAction } from '../../edits/types';
import type { RecordedEdit } from '../../store/record/record';
import type { FindingsTold } from '../../web/findings';
import type { Kept, On, Sure } from './shared';

/** A rule that is set, or taken away where its body is null; `expected` is what the sender saw there. */
interface RuleWrite extends Omit<Edit, 'body'> {
	/** The form of a rule is checked with what it says. */
	readonly body: Readonly<Record<string, unknown>> | null;
	readonly expected?: unknown;
}

/** Settings that are changed, by their names; null sets one back. `expected` are those that the sender saw. */
interface SettingsWrite {
	readonly place: AnyEdit['place'] | { readonly layer: 'picture'; readonly src: string };
	readonly changes: Readonly<Record<string, unknown>>;
	readonly expected?: Readonly<Record<string, unknown>>;
}

/** A starting set, taken into a type. */
interface SetTaken {
	readonly type: string;
	readonly set: string;
}

/** What is written: rules, settings, types; what an edit would do; the record and findings. */
export interface EditRoutes {
	/** Sets one rule in the working copy; 409 with the rule as it is now where someone else has changed it meanwhile. */
	'PUT /sites/{site}/rules': { body: RuleWrite; answer: Kept };
	/** Changes what a site, a type, a page or a picture is, beside its rules; 409 as with rules. */
	'PATCH /sites/{site}/settings': { body: SettingsWrite; answer: Kept };
	/** Adds, renames or takes away a content type, or renames a field of one. Gives the name to look at then. */
	'POST /sites/{site}/types': {
		body: TypeAction | { readonly name: string; readonly set?: string };
		answer: { readonly name: string };
	};
	/** What asks for a field: rules of every layer, and texts of its type's layout. */
	'GET /sites/{site}/types/uses': {
		query: { readonly type: string; readonly field: string };
		answer: { readonly uses: readonly FieldUse[] };
	};
	/** Which pages an edit would change, before it is kept. Going away stops it. */
	'POST /sites/{site}/reach': {
		body: RuleWrite | SettingsWrite | SetTaken;
		lines: true;
		answer: { readonly reach: Reach };
	};
	/**
	 * What edits of one tag would make of the pages that are hard on templates, of a type or of the whole site; and of live data, by the
	 * samples of the type's source and by paths that are named.
	 */
	'POST /sites/{site}/tries': {
		body: {
			readonly edits: readonly RuleWrite[];
			readonly type?: string;
			/** @maxItems 10 */
			readonly live?: readonly string[];
		};
		answer: readonly TriedPage[];
	};
	/** On how many pages the stretches of a template give way that says how long it may be. Going away stops it. */
	'POST /sites/{site}/given-way': { body: RuleWrite; lines: true; answer: GivenWay };
	/** A first template for a tag of a type, from its records; null where they say no more than what is built in. */
	'GET /sites/{site}/proposal': {
		query: { readonly type: string; readonly tag: string };
		answer: { readonly proposal: Proposal | null };
	};
	/** The record of edits, the newest first. */
	'GET /sites/{site}/edits': {
		query: {
			/** Goes on after the edit of this number. @asType integer */
			readonly before?: number | undefined;
			/** @asType integer @minimum 1 @maximum 200 */
			readonly limit?: number;
		};
		answer: {
			readonly revision: number;
			readonly edits: readonly RecordedEdit[];
			/** What would be taken back, and done again, now. */
			readonly next: { readonly back?: number | undefined; readonly again?: number | undefined };
		};
	};
	/** Takes an edit back, or does the one that was taken back last again. Going away stops it where it is asked for in lines. */
	'POST /sites/{site}/edits': {
		body: {
			/** The number of an edit, "last" or "again". */
			readonly takeBack: number | 'last' | 'again';
		} & Sure;
		lines: true;
		answer: Kept & TakenBack;
	};
	/** All that is wrong or weak on a site, by kind, as it was counted last. */
	'GET /sites/{site}/findings': {
		query: {
			/** Waits a moment for the count that goes on. */
			readonly wait?: On;
		};
		answer: FindingsTold;
	};
	/** Sets a kind of finding aside with a reason, on one page or on all; or takes it up again. */
	'POST /sites/{site}/findings': {
		body: {
			/** @minLength 1 */
			readonly code: string;
			readonly tag?: string;
			readonly path?: string;
			readonly reason?: string;
			readonly takeUp?: boolean;
		};
		answer: Kept;
	};
}
