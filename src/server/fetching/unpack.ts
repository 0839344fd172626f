import { constants, createBrotliDecompress, createGunzip, createInflate, createInflateRaw } from 'node:zlib';
import { Readable } from 'node:stream';

/** A body without its packing, up to a limit; or why it cannot be unpacked. */
export type Unpacked =
	| { readonly body: Buffer; readonly hasMore: boolean }
	| { readonly fails: 'bad-compression' | 'unknown-packing'; readonly why?: string };

/** Packed so many times over, a body is taken for an attack. */
const MOST_LAYERS = 4;

/**
 * Undoes what `Content-Encoding` says was done to a body, last first (RFC 9110, 8.4), and reads no further than so many
 * bytes of each: however much is packed into little, no more comes out. Of a part, what can be had of it is.
 */
export async function unpack(raw: Buffer, encoding: string, maxBytes: number, isPart: boolean): Promise<Unpacked> {
	const layers = encoding
		.toLowerCase()
		.split(',')
		.map((one) => one.trim())
		.filter((one) => one !== '' && one !== 'identity')
		.reverse();
	if (layers.length > MOST_LAYERS) return { fails: 'bad-compression', why: `packed ${layers.length} times` };
	let [body, hasMore] = [raw, raw.length > maxBytes];
	for (const layer of layers) {
		const inflater = inflaterFor(layer, body, isPart || hasMore);
		if (!inflater) return { fails: 'unknown-packing', why: layer.slice(0, 40) };
		// An empty body is no packed one, and is what it is.
		if (body.length === 0) return { body, hasMore };
		const out = await readUpTo(Readable.from([body]).pipe(inflater), maxBytes);
		if (!out) return { fails: 'bad-compression' };
		({ body, hasMore } = { body: out.body, hasMore: hasMore || out.hasMore });
	}
	return { body: body.subarray(0, maxBytes), hasMore };
}

function inflaterFor(layer: string, body: Buffer, isPart: boolean) {
	const options = isPart ? { finishFlush: constants.Z_SYNC_FLUSH } : {};
	if (layer === 'gzip' || layer === 'x-gzip') return createGunzip(options);
	// Some servers leave the frame of zlib away: its first four bits are 8, and two bytes are a multiple of 31 (RFC 1950, 2.2).
	if (layer === 'deflate') {
		const isFramed = ((body[0] ?? 0) & 15) === 8 && (((body[0] ?? 0) << 8) | (body[1] ?? 0)) % 31 === 0;
		return isFramed ? createInflate(options) : createInflateRaw(options);
	}
	if (layer === 'br') return createBrotliDecompress(isPart ? { finishFlush: constants.BROTLI_OPERATION_FLUSH } : {});
	return undefined;
}

async function readUpTo(stream: AsyncIterable<Buffer> & { destroy(): void }, maxBytes: number) {
	const chunks: Buffer[] = [];
	let size = 0;
	try {
		for await (const chunk of stream) {
			chunks.push(chunk);
			// One more than is read tells that there is more.
			if ((size += chunk.length) > maxBytes) break;
		}
	} catch {
		return undefined;
	} finally {
		stream.destroy();
	}
	return { body: Buffer.concat(chunks), hasMore: size > maxBytes };
}
