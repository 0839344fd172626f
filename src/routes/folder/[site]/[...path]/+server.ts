import { readFileSync, statSync } from 'node:fs';
import { error } from '@sveltejs/kit';
import { fileOfPath } from '$server/files/folder';
import type { FolderSource } from '$server/imports/folderSource';
import type { RequestHandler } from './$types';

/** A picture of the folder that a site was read from, until the site itself is public; no other file of it. */
export const GET: RequestHandler = ({ locals, params, url }) => {
	const store = locals.store;
	const site = store.working.sites.find(params.site);
	const source = site && store.working.sources.settings<FolderSource>(site.id, 'folder');
	// As it was written: what is encoded in a path stays so.
	const path = url.pathname.split('/').slice(3).join('/');
	const picture = site && store.pictures.one(site.id, `/${path}`);
	const file = source && picture?.type && fileOfPath(source.folder, `/${path}`);
	if (!file || !statSync(file).isFile()) error(404, 'There is no such picture in the folder of the site.');
	return new Response(new Uint8Array(readFileSync(file)), {
		headers: {
			'content-type': picture.type,
			'content-security-policy': "sandbox; default-src 'none'; style-src 'unsafe-inline'",
			'x-content-type-options': 'nosniff',
			'cache-control': 'private, max-age=60'
		}
	});
};
