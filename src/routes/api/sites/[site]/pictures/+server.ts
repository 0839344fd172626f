import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import { GuardedFetcher, PICTURE_LIMITS } from '$server/fetching/fetch';
import { runJob } from '$server/jobs/run';
import { removePicture } from '$server/web/pictures';
import { answering, readRecord } from '$server/web/problem';
import { standIn } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Takes a picture into the library: its bytes as they are, or as JSON the address it is fetched from. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const store = locals.store;
		store.working.sites.named(params.site);
		const isAddress = (request.headers.get('content-type') ?? '').startsWith('application/json');
		const bytes = isAddress
			? await fetchPicture(((await readRecord(request)) as { address?: unknown }).address)
			: await request.arrayBuffer();
		const own = new Uint8Array(bytes);
		const input = { db: store.file, site: params.site, bytes: own, name: nameOf(request) };
		return json(await runJob('takePicture', input, { gives: [own.buffer] }));
	});

/** The name of the file as it came, in percent-encoding; nothing when it cannot be read. */
function nameOf(request: Request): string | undefined {
	try {
		return decodeURIComponent(request.headers.get('x-file-name') ?? '').slice(0, 300) || undefined;
	} catch {
		return undefined;
	}
}

/** The pictures of a site, by their source. */
export const GET: RequestHandler = ({ locals, params }) =>
	answering(() => {
		const store = locals.store;
		return json(store.pictures.all(store.working.sites.named(params.site).id));
	});

/** Takes a picture out of the library that nothing uses. */
export const DELETE: RequestHandler = ({ locals, params, request }) =>
	answering(async () => {
		const { src } = (await readRecord(request)) as { src?: unknown };
		if (typeof src !== 'string') throw refuse('picture-needs-src');
		await removePicture(locals.store, params.site, src);
		return json({});
	});

/** The stand-in's server is the one machine of our own that may be asked. */
async function fetchPicture(address: unknown): Promise<Buffer> {
	if (typeof address !== 'string') throw refuse('picture-needs-address');
	const own = standIn();
	const fetcher = new GuardedFetcher(new Set(own ? [new URL(own.origin).host] : []));
	try {
		return (await fetcher.fetch(address, PICTURE_LIMITS)).body;
	} finally {
		await fetcher.close();
	}
}
