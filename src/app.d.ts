import type { Store } from '$server/store/store';

declare global {
	namespace App {
		interface Locals {
			/** The database that the application works on; opened when a request first asks for it. */
			readonly store: Store;
		}
	}
}

export {};
