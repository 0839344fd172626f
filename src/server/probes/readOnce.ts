import { readServedHead, type ServedHead } from '$core';

/** Reads heads as they are served, one that is the same for several readers once. */
export function readOnce(): (html: string) => ServedHead {
	const heads = new Map<string, ServedHead>();
	return (html) => {
		const head = heads.get(html) ?? readServedHead(html);
		heads.set(html, head);
		return head;
	};
}
