import type { IncomingMessage, ServerResponse } from 'node:http';

/** Where heads are asked for. */
export interface HeadsFrom {
	/** Where Kephalon answers, such as `http://127.0.0.1:4880`. */
	readonly server: string;
	readonly site: string;
	/** A key that may read, for a private site. */
	readonly key?: string;
	/** How long (milliseconds) a page waits for its head at the most; 50 without it. */
	readonly patience?: number;
	/** For so long (milliseconds) a head is not asked for again; 1000 without it. */
	readonly fresh?: number;
}
export type Middleware = (request: IncomingMessage, response: ServerResponse, next: (error?: unknown) => void) => void;

/** Released heads in the pages of a server of the form `(request, response, next)`. */
export declare function heads(from: HeadsFrom): Middleware;
/** The same for servers of web standards. */
export declare function headsOf(from: HeadsFrom): (request: Request, response: Response) => Promise<Response>;
