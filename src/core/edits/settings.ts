import type { ContentType, Page, Picture, Site } from '../model';

/** Changes to what a layer is, beside its rules: keys with their new values, null for a key that goes. */
export type Changes<T> = { readonly [K in keyof T]?: T[K] | null };

/** A change of a site's, a type's, a page's or a picture's own settings. */
export type SettingsEdit =
	| { readonly place: { readonly layer: 'site' }; readonly changes: Changes<Omit<Site, 'rules'>> }
	| {
			readonly place: { readonly layer: 'type'; readonly name: string };
			readonly changes: Changes<Omit<ContentType, 'rules' | 'name'>>;
	  }
	| {
			readonly place: { readonly layer: 'page'; readonly path: string };
			readonly changes: Changes<Omit<Page, 'rules'>>;
	  }
	| PictureEdit;

/** A change of what is known of a picture: its focus, its cuts, its alt texts. */
export interface PictureEdit {
	readonly place: { readonly layer: 'picture'; readonly src: string };
	readonly changes: Changes<Omit<Picture, 'src'>>;
}

/** A record with changes made to it; keys that went are gone, not undefined. */
export function withChanges<T extends object>(record: T, changes: Changes<T>): T {
	const entries = Object.entries({ ...record, ...changes }).filter(
		([, value]) => value !== null && value !== undefined
	);
	return Object.fromEntries(entries) as unknown as T;
}

/** The values that changes would replace, so that they can be taken back: null for keys that are not there. */
export function takenBack<T extends object>(record: T, changes: Changes<T>): Changes<T> {
	const keys = Object.keys(changes) as (keyof T)[];
	return Object.fromEntries(keys.map((key) => [key, record[key] ?? null])) as Changes<T>;
}

/** Whether two values are the same as JSON, whatever the order of their keys. */
export function sameJson(a: unknown, b: unknown): boolean {
	return a === b || JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
}

function sorted(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(sorted);
	if (typeof value !== 'object' || value === null) return value ?? null;
	const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
	return Object.fromEntries(entries.map(([key, inner]) => [key, sorted(inner)]));
}
