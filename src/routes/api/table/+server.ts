import { json } from '@sveltejs/kit';
import { guessMapping, readTable } from '$server/imports/readTable';
import { answering, readRecord } from '$server/web/problem';
import type { RequestHandler } from './$types';

/** What a CSV or JSON file holds: its columns, a guess of what each means, and the first rows. Nothing is kept. */
export const POST: RequestHandler = ({ request }) =>
	answering(async () => {
		const { text } = (await readRecord(request)) as { text: string };
		const { columns, rows } = readTable(String(text));
		return json({ columns, mapping: guessMapping(columns), rows: rows.length, sample: rows.slice(0, 5) });
	});
