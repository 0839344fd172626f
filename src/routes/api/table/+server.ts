import { json } from '@sveltejs/kit';
import { runJob } from '$server/jobs/run';
import { decodeTable } from '$server/imports/table/rows';
import { sheetOf, type TableSource } from '$server/imports/table/table';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

const UNKNOWN_BASE = 'https://site.invalid/';
/** A longer text (UTF-16 code units) is read in a thread: others are answered meanwhile. */
const MUCH = 1_000_000;

/** What a table would become: its columns, what each is taken for, the first rows and the oddest. Nothing is kept. */
export const POST: RequestHandler = ({ request }) =>
	answering(async () => {
		const { text, base, ...said } = (await readRecord(request)) as Partial<TableSource> & {
			text?: unknown;
			base?: unknown;
		};
		const input = { text: String(text), said, base: typeof base === 'string' && base !== '' ? base : UNKNOWN_BASE };
		return json(
			input.text.length < MUCH
				? sheetOf(input.text, said, input.base)
				: await runJob('sheet', input, { signal: request.signal })
		);
	});

/** The text of a table as its file holds it, in whatever encoding that is: the bytes are the body. */
export const PUT: RequestHandler = ({ request }) =>
	answering(async () => json(decodeTable(Buffer.from(await request.arrayBuffer()))));
