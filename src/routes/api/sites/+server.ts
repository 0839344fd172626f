import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { runJob } from '$server/jobs/run';
import type { ContentSource } from '$server/imports/content';
import { refuseFolder } from '$server/web/contentFolders';
import { answering, readWithFile } from '$server/web/problem';
import { standIn } from '$server/web/working';
import type { RequestHandler } from './$types';

interface Wanted {
	readonly name?: unknown;
	readonly base?: unknown;
	readonly source?: { readonly kind?: unknown };
}

const KINDS = ['folder', 'table', 'web', 'hand'];

/** Makes a site from where its content is, or reads the content of one again. */
export const POST: RequestHandler = ({ locals, request }) =>
	answering(async () => {
		const { record, file } = await readWithFile(request);
		const { name, base, source } = record as unknown as Wanted;
		if (typeof name !== 'string' || typeof base !== 'string' || !KINDS.includes(String(source?.kind)))
			throw refuse('site-needs', { sources: KINDS });
		if (source?.kind === 'table' && !file) throw refuse('table-file-missing');
		if (source?.kind === 'folder') refuseFolder(String((source as { folder?: unknown }).folder));
		const own = standIn();
		const input = {
			db: locals.store.file,
			name,
			base,
			source: { ...source, ...(file && { file }) } as ContentSource,
			...(own && { via: { origin: own.base.replace(/\/$/, ''), at: own.origin } })
		};
		return json(await runJob('content', input, { signal: request.signal, ...(file && { gives: [file.buffer] }) }));
	});
