import type { Client } from 'openapi-fetch';
import type { paths } from './api.js';

/** Where Kephalon is, and what lets the program in. */
export interface ClientOptions {
	/** Such as `http://127.0.0.1:4870`. */
	readonly server: string;
	/** A key of a site, `kephalon_…`; without people none is needed. */
	readonly key?: string;
	/** What asks; without it, the platform's own. */
	readonly fetch?: typeof fetch;
}

/** Asks every route of Kephalon, typed by its description: `await kephalon({ server }).GET('/sites/{site}/pages', …)`. */
export declare function kephalon(options: ClientOptions): Client<paths>;
export type { components, operations, paths } from './api.js';
