import { page } from '$app/state';

/** Whoever did something, as whoever is signed in reads it: of oneself as “you”. */
export function byWhom(name: string): string {
	const me = page.data.me as { readonly kind: string; readonly name: string } | undefined;
	return me?.kind === 'person' && me.name === name ? 'you' : name;
}
