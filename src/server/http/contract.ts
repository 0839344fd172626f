import type { EditRoutes } from './contract/edits';
import type { PageRoutes } from './contract/pages';
import type { PeopleRoutes } from './contract/people';
import type { ProgramRoutes } from './contract/programs';
import type { ReleaseRoutes } from './contract/releases';
import type { PushTold } from '../progress';

/**
 * Every route below `/api`, by its method and path: what is asked with it, what it is sent, and what it answers. The forms
 * that requests and answers are held to are made from here (`npm run forms`), and the client of the rooms is typed by it.
 *
 * - `query` names what may stand behind the `?`.
 * - `body` is sent as JSON; with `takes`, bytes are sent instead of it (`bytes`), or after its line (`record and bytes`), or lines
 *   of JSON of any number (`lines`).
 * - `lines`: who accepts `application/x-ndjson` is answered in lines of JSON; all but the last say how far it is (`SoFar`).
 * - `media` is the type of an answer that is no JSON.
 *
 * @public It is read by its name where the forms are made.
 */
export interface Contract extends ProgramRoutes, ReleaseRoutes, EditRoutes, PageRoutes, PeopleRoutes {}

/** How far a work is: so many of so many, where it is known of how many; and what was done last, where that is told. */
export interface SoFar extends Partial<PushTold> {
	readonly done: number;
	readonly all?: number;
	readonly last?: string;
}

/** A method and a path of the contract. */
export type RouteName = keyof Contract;
/** What a route is asked with, is sent and answers; undefined where it has none. */
export type PartOf<K extends RouteName, P extends string> =
	Contract[K] extends Readonly<Record<P, infer T>> ? T : undefined;
