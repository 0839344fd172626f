import { createReadStream, statSync } from 'node:fs';
import { Readable } from 'node:stream';
import { Library } from '$server/pictures/library';
import { answering, problem } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

const TYPES = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' } as const;

/**
 * A picture of the library, or one made of it. Its name is the hash of its bytes or says all that goes into it: it never
 * changes, and may be kept for ever.
 */
export const GET: RequestHandler = ({ params }) =>
	answering(async () => {
		const file = await new Library(openStore()).find(params.file);
		if (!file) return problem(404, 'Not found', `There is no picture ${params.file} in the library.`);
		return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
			headers: {
				'content-type': TYPES[file.slice(file.lastIndexOf('.') + 1) as keyof typeof TYPES],
				'content-length': String(statSync(file).size),
				'cache-control': 'public, max-age=31536000, immutable',
				'x-content-type-options': 'nosniff'
			}
		});
	});
