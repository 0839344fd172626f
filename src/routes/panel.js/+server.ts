import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { RequestHandler } from './$types';

let script: string | undefined;

/** The panel's script, for pages of any origin: it holds nothing but the way to the frame. It lies beside the server's own program. */
export const GET: RequestHandler = () => {
	script ??= readFileSync(join(dirname(process.env.KEPHALON_THREAD ?? ''), 'panel.js'), 'utf8');
	return new Response(script, {
		headers: {
			'content-type': 'text/javascript; charset=utf-8',
			'access-control-allow-origin': '*',
			'cross-origin-resource-policy': 'cross-origin',
			'cache-control': 'public, max-age=300'
		}
	});
};
