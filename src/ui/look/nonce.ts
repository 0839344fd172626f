/** What the page's style elements carry, for those that are made in the page; undefined where the page has none. */
export const styleNonce = () => document.body.nonce || undefined;
