import type { Actor } from '$core';
import type { From } from '../people/accounts';
import type { Progress } from '../progress';
import type { Store, StoredSite } from '../store/store';
import type { PartOf, RouteName, SoFar } from './contract';

export type Say = (line: SoFar) => void;

/** Where sessions come and go. */
export interface Door {
	/** The secret of the session that asks. */
	readonly session: string | undefined;
	readonly from: From;
	/** Under which address Kephalon was reached, as the browser says it. */
	readonly origin: string;
	/** A word that the browser was given to bring back soon; undefined where it has none. */
	readonly held: string | undefined;
	/** Gives the browser a word to bring back. */
	hold(word: string): void;
	/** From now on whoever asks has this session. */
	open(session: string): void;
	/** From now on whoever asks has none. */
	close(): void;
}

/** What a route is asked: all of it is as the contract says. */
export interface Asked<K extends RouteName> {
	readonly store: Store;
	/** The site of the path; routes without one do not ask for it. */
	readonly site: string;
	readonly stored: StoredSite;
	/** The path of a page, where the route has one behind it. */
	readonly path: string;
	readonly query: PartOf<K, 'query'>;
	readonly body: PartOf<K, 'body'>;
	/** The file of the lines that were sent; it goes when the route has answered. */
	readonly lines: string | undefined;
	/** What was sent as bytes; undefined where a record came alone. */
	readonly bytes: Uint8Array<ArrayBuffer> | undefined;
	readonly headers: Headers;
	/** Whoever asks. */
	readonly who: Actor;
	readonly door: Door;
	/** Ends when the asker goes away. */
	readonly signal: AbortSignal;
	/** Tells how far the work is, where that is asked for. */
	readonly say: Say | undefined;
}

/** The work of a route; what it gives is sent as JSON, or as it is where the contract names another type. */
type Work<K extends RouteName> = (asked: Asked<K>) => Given<K> | Promise<Given<K>>;
/** A `Response` is sent as it is: of another type, or with headers of its own. */
type Given<K extends RouteName> = PartOf<K, 'media'> extends string ? Response : PartOf<K, 'answer'> | Response;

/** Rows of the contract with their work. */
export type Rows = { readonly [K in RouteName]?: Work<K> };

type Watcher = Pick<Asked<RouteName>, 'say' | 'signal'>;
interface Watched {
	readonly signal?: AbortSignal;
	readonly progress?: Progress;
}

/** How a job is watched: told how far it is where that is asked for, and ended when the asker goes. */
export const watched = ({ say, signal }: Watcher): Watched => ({
	signal,
	...(say && { progress: (done, all) => say({ done, ...(all !== undefined && { all }) }) })
});

/** The same for what is done though its asker leaves, unless it is watched. */
export const watchedOrDone = (watcher: Watcher): Watched => (watcher.say ? watched(watcher) : {});
