import { json } from '@sveltejs/kit';
import { decodeTable } from '$server/imports/table/rows';
import { sheetOf, type TableSource } from '$server/imports/table/table';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** What a table would become: its columns, what each is taken for, the first rows and the oddest. Nothing is kept. */
export const POST: RequestHandler = ({ request }) =>
	answering(async () => {
		const { text, base, ...said } = (await readRecord(request)) as Partial<TableSource> & {
			text?: unknown;
			base?: unknown;
		};
		return json(sheetOf(String(text), said, typeof base === 'string' && base !== '' ? base : 'https://site.invalid/'));
	});

/** The text of a table as its file holds it, in whatever encoding that is: the bytes are the body. */
export const PUT: RequestHandler = ({ request }) =>
	answering(async () => json(decodeTable(Buffer.from(await request.arrayBuffer()))));
