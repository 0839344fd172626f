import type { Visitor } from '$server/http/visitor';
import type { Store } from '$server/store/store';

declare global {
	namespace App {
		interface Error {
			/** The site of which something was asked that is not there. */
			site?: string;
			/** It has no pages. */
			isEmpty?: boolean;
		}
		/** Whoever sent the request, and the database that the application works on. */
		interface Locals extends Visitor {
			readonly store: Store;
			/** The language that the interface speaks to them. */
			language: string;
		}
	}
}

export {};
