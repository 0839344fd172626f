import type { Store } from '$server/store/store';

declare global {
	namespace App {
		interface Error {
			/** The site of which something was asked that is not there. */
			site?: string;
			/** It has no pages. */
			isEmpty?: boolean;
		}
		interface Locals {
			/** The database that the application works on; opened when a request first asks for it. */
			readonly store: Store;
		}
	}
}

export {};
