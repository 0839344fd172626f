/** What the page's style elements carry, for those that are made in the page; empty where the page has none. */
export const styleNonce = () => document.body.nonce ?? '';
