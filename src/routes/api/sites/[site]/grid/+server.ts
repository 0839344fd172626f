import { json } from '@sveltejs/kit';
import { readGrid } from '$server/web/grid';
import { answering } from '$server/web/problem';
import { openStore } from '$server/web/working';
import type { RequestHandler } from './$types';

/** Rows of the table of pages, by filter and order; `?count=1` also says how many there are. */
export const GET: RequestHandler = ({ params, url }) =>
	answering(() => json(readGrid(openStore(), params.site, url.searchParams)));
