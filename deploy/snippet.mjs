// The head of a page, in a template of any language, by HTTP: asked for with what is known of it, and the last good one while
// nobody answers. This is JavaScript without packages; another language does the same few steps.
//
// To fit: where `kephalon deliver` answers, the name of the site (Docs), and a key where the site is private.

const HEADS = 'http://127.0.0.1:4880/api/v1/sites/Docs/head';
const KEY = process.env.KEPHALON_KEY;
/** By path: the head, and the tag that it came with. */
const known = new Map();

export async function headOf(path) {
	const last = known.get(path);
	try {
		const answer = await fetch(`${HEADS}?path=${encodeURIComponent(path)}&or=empty`, {
			headers: {
				accept: 'text/html',
				...(last && { 'if-none-match': last.etag }),
				...(KEY && { authorization: `Bearer ${KEY}` })
			},
			signal: AbortSignal.timeout(1000)
		});
		if (answer.status === 304) return last.head;
		if (!answer.ok) return last?.head ?? '';
		const head = await answer.text();
		const etag = answer.headers.get('etag');
		// An empty answer has no tag: the page has no head now.
		if (etag) known.set(path, { head, etag });
		else known.delete(path);
		return head;
	} catch {
		return last?.head ?? '';
	}
}

// As the page is made:
//
//     `<head>\n<meta charset="utf-8">\n${await headOf('/walks/one.html')}\n</head>`
