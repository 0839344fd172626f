import { createReadStream, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { Library } from '$server/pictures/library';
import { problem } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** A picture of the library. Its name is the hash of its bytes: it never changes, and may be kept for ever. */
export const GET: RequestHandler = ({ params }) => {
	const file = new Library(openStore()).fileOf(params.file);
	if (!file) return problem(404, 'Not found', `There is no picture ${params.file} in the library.`);
	return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
		headers: {
			'content-type': file.endsWith('.png') ? 'image/png' : 'image/jpeg',
			'content-length': String(statSync(file).size),
			'cache-control': 'public, max-age=31536000, immutable',
			'x-content-type-options': 'nosniff'
		}
	});
};
