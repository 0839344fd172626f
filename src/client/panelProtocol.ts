/** The version of what a page and the panel in it tell each other; each says it with every message, and hears no other. */
const PANEL_VERSION = 1;

/** What a page tells the panel. */
export type ToPanel =
	| { readonly say: 'page'; readonly page: string; readonly type?: string; readonly language?: string }
	/** What its editor holds at this moment, by the name of the field; the whole of it each time. */
	| { readonly say: 'fields'; readonly fields: Readonly<Record<string, unknown>> }
	/** What was typed has been sent to Kephalon: it is read anew. */
	| { readonly say: 'saved' }
	/** What lets the panel in; '' where the page has none. */
	| { readonly say: 'token'; readonly token: string };

/** What the panel tells the page. */
export type FromPanel =
	| { readonly say: 'ready' }
	| { readonly say: 'token-wanted' }
	/** Somebody wrote what a tag says at the page, and it is kept. */
	| { readonly say: 'kept' }
	/** The cards of what was told last are on the screen. */
	| { readonly say: 'shown' };

/** A message with its version; undefined for what is none. */
export function readMessage<M extends ToPanel | FromPanel>(data: unknown): M | undefined {
	if (typeof data !== 'object' || data === null) return undefined;
	const { kephalon, ...message } = data as { kephalon?: unknown; say?: unknown };
	return kephalon === PANEL_VERSION && typeof message.say === 'string' ? (message as unknown as M) : undefined;
}

/** A message as it is sent. */
export const message = (told: ToPanel | FromPanel) => ({ kephalon: PANEL_VERSION, ...told });
