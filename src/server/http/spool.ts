import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { refuse } from '../errors';
import { isOverLimit } from './problem';

/** A body that is too long for the memory, in a file of its own. */
export interface Spooled {
	readonly file: string;
	/** Takes the file away. */
	readonly end: () => Promise<void>;
}

/** Puts the body of a request into a file as it comes. Throws a `UserError` for what did not come whole, or is none. */
export async function spool({ body }: Request): Promise<Spooled> {
	if (!body) throw refuse('body-missing');
	const folder = await mkdtemp(join(tmpdir(), 'kephalon-lines-'));
	const end = () => rm(folder, { recursive: true, force: true });
	const file = join(folder, 'lines');
	try {
		await pipeline(Readable.fromWeb(body as NodeStream), createWriteStream(file, { mode: 0o600 }));
		return { file, end };
	} catch (error) {
		await end();
		throw isOverLimit(error) ? error : refuse('body-broken-off');
	}
}
