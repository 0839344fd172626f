/** What is used of the package, whose types know nothing of `preferred`. */
declare module 'negotiator' {
	export default class Negotiator {
		constructor(request: { readonly headers: Readonly<Record<string, string | undefined>> });
		/** Of the available encodings those that are accepted, best first; of equals the preferred one. */
		languages(available: readonly string[]): string[];
		encodings(available: readonly string[], options?: { readonly preferred: readonly string[] }): string[];
	}
}
