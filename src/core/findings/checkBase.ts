import { isLocalAddress, normaliseBase } from '../resolve/address';

/** What is to be said of a base address: where it comes to, why it cannot be taken, or what to ask before it is. */
export interface BaseCheck {
	/** The address as the URL standard writes it; undefined when it is none. */
	readonly base: string | undefined;
	/** Why it cannot be taken, in a sentence. */
	readonly refused: string | undefined;
	/** What is unusual about it, to be confirmed. */
	readonly asks: readonly string[];
	/** What was probably meant. */
	readonly guess: string | undefined;
}

/** Checks the public base address of a site as someone types it. */
export function checkBase(text: string): BaseCheck {
	const base = normaliseBase(text);
	if (!base) {
		const guess = /^[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)+(:\d+)?(\/\S*)?$/u.test(text.trim())
			? `https://${text.trim()}`
			: undefined;
		return { base, refused: 'It is not an absolute http or https address.', asks: [], guess };
	}
	const url = new URL(base);
	const secure = url.protocol === 'https:' ? undefined : `https${base.slice(4)}`;
	const asks = [
		...(isLocalAddress(base) || !url.hostname.includes('.')
			? [`${url.hostname} is this machine or a network of its own: no reader of links can follow it.`]
			: []),
		...(secure ? ['It is http, not https: some readers will not show its pictures.'] : []),
		...(url.port ? [`It names the port ${url.port}: public sites seldom do.`] : []),
		...(url.pathname !== '/' ? [`It has the path ${url.pathname}: every page’s path will stand under it.`] : []),
		...(/[?#]/.test(text) ? ['What stood behind ? or # was dropped.'] : [])
	];
	// An address of this machine over https is no more public than before.
	return { base, refused: undefined, asks, guess: isLocalAddress(base) ? undefined : secure };
}
