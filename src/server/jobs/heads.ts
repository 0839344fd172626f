import { createHash } from 'node:crypto';
import { headToJson, MEDIA_PATH, renderHead, Resolver, type Page } from '$core';
import type { ReleasedHead } from '../store/releases';
import type { Store, StoredSite } from '../store/store';

/** The resolver of a site's working copy. `now` is the moment that `{now}` names. */
export function resolverOf(store: Store, { id, site, types }: StoredSite, now: string): Resolver {
	return new Resolver({ site, types, pictures: store.pictures(id) }, now);
}

/** A page's head as a release keeps it. */
export function releasedHead(resolver: Resolver, page: Page): ReleasedHead {
	const evaluation = resolver.evaluate(page);
	const head = resolver.headOf(evaluation);
	const html = renderHead(head);
	const json = JSON.stringify(headToJson(head));
	const hash = createHash('sha256').update(html).update('\0').update(json).digest('base64url');
	const { src, recipe } = evaluation.composedPicture ?? {};
	const share = src && recipe && { name: src.slice(MEDIA_PATH.length), recipe };
	const address = resolver.addressOf(page.path) ?? page.path;
	return { path: page.path, address, hash, html, json, ...(share && { share }) };
}
