import type { Progress } from '../progress';
import type { Store, StoredSite } from '../store/store';
import type { PartOf, RouteName, SoFar } from './contract';

export type Say = (line: SoFar) => void;

/** What a route is asked: all of it is as the contract says. */
export interface Asked<K extends RouteName> {
	readonly store: Store;
	/** The site of the path; routes without one do not ask for it. */
	readonly site: string;
	readonly stored: StoredSite;
	readonly query: PartOf<K, 'query'>;
	readonly body: PartOf<K, 'body'>;
	/** What was sent as bytes; undefined where a record came alone. */
	readonly bytes: Uint8Array<ArrayBuffer> | undefined;
	readonly headers: Headers;
	/** Ends when the asker goes away. */
	readonly signal: AbortSignal;
	/** Tells how far the work is, where that is asked for. */
	readonly say: Say | undefined;
}

/** The work of a route; what it gives is sent as JSON, or as it is where the contract names another type. */
export type Work<K extends RouteName> = (asked: Asked<K>) => Given<K> | Promise<Given<K>>;
type Given<K extends RouteName> = PartOf<K, 'media'> extends string ? Response : PartOf<K, 'answer'>;

/** Rows of the contract with their work. */
export type Rows = { readonly [K in RouteName]?: Work<K> };

/** How a job is watched by one who asked for lines: told how far it is, and ended when the asker goes. */
export const watchOf = ({
	say,
	signal
}: {
	readonly say: Say | undefined;
	readonly signal: AbortSignal;
}): { readonly signal?: AbortSignal; readonly progress?: Progress } =>
	// Without lines, who leaves meanwhile has asked for it all the same.
	say ? { signal, progress: (done, all) => say({ done, ...(all !== undefined && { all }) }) } : {};
