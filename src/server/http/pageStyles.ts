/** A tag as the renderer writes it: its attributes in double quotes, in which `"` and `<` do not stand as they are. */
const TAG = /<[a-z][^\s>/]*(?:\s+[^\s=>"/]+(?:="[^"]*")?)*\s*\/?>/gi;
const ATTRIBUTE = /\s([^\s=>"/]+)(?:="([^"]*)")?/g;
/** What can end neither a rule nor the element it stands in, and names nothing outside of it. */
const PLAIN = /^(?:[\w\s:;,.%#()+-]|\*(?!\/)|\/(?!\*))*$/;

/**
 * A page's style attributes, which its policy does not allow, as rules of one style element with the page's nonce. What is not
 * plain is left out; the page's own code sets all of them when it comes to life, and takes the marks off.
 * @param html a whole page as it was rendered
 */
export function withoutStyleAttributes(html: string): string {
	const nonce = /<body[^>]*\snonce="([^"]*)"/.exec(html)?.[1];
	const rules: string[] = [];
	const body = html.replace(TAG, (tag) =>
		tag.includes('style="')
			? tag.replace(ATTRIBUTE, (attribute, name: string, value: string | undefined = '') => {
					if (name !== 'style') return attribute;
					if (nonce === undefined || !PLAIN.test(value)) return '';
					// As strong as what a page says of its elements may be.
					rules.push(`[data-style="${rules.length}"]${'[data-style]'.repeat(3)}{${value}}`);
					return ` data-style="${rules.length - 1}"`;
				})
			: tag
	);
	if (rules.length === 0) return body;
	return body.replace('</head>', () => `<style nonce="${nonce}">${rules.join('')}</style></head>`);
}

/** A page's policy with its nonce for style elements too, where styles are bound to the page at all. */
export function withStyleNonce(policy: string): string {
	const nonce = /'nonce-[^']+'/.exec(policy)?.[0];
	return nonce === undefined ? policy : policy.replace(/style-src 'self'(?=;|$)/, `style-src 'self' ${nonce}`);
}
