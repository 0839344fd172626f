import { json } from '@sveltejs/kit';
import { refuse } from '$server/errors';
import type { TableSource } from '$server/imports/table/table';
import { runJob } from '$server/jobs/run';
import { answering, readWithFile } from '$server/web/problem';
import type { RequestHandler } from './$types';

const UNKNOWN_BASE = 'https://site.invalid/';

/** What a table would become: its columns, what each is taken for, the first rows and the oddest. Nothing is kept. */
export const POST: RequestHandler = ({ request }) =>
	answering(async () => {
		const { record, file } = await readWithFile(request);
		if (!file) throw refuse('table-file-missing');
		const { base, ...said } = record as Partial<TableSource> & { base?: unknown };
		const known = typeof base === 'string' && base !== '' ? base : UNKNOWN_BASE;
		const input = { file, said, base: known };
		return json(await runJob('lookAtTable', input, { signal: request.signal, gives: [file.buffer] }));
	});
