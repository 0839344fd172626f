import { InvalidArgumentError } from 'commander';
import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { parseUrl } from '$core';
import { refuse } from '$server/errors';
import type { Verb } from '../common';

interface Options {
	readonly server: string;
	readonly data?: string;
}

export const addApi: Verb = (program) => {
	program
		.command('api')
		.description('Asks a route of a running Kephalon, such as: kephalon api GET /sites')
		.argument('<method>', 'GET, POST, PUT, PATCH or DELETE', method)
		.argument('<path>', 'the path below /api/v1, such as /sites/Docs/pages')
		.option('--server <address>', 'where Kephalon answers', 'http://127.0.0.1:4870')
		.option('--data <what>', 'what is sent: JSON, @FILE for what a file holds, @- for standard input')
		.action(async (asked: string, path: string, { server, data }: Options) => {
			const key = process.env.KEPHALON_KEY;
			const sent = data === undefined ? undefined : await dataOf(data);
			const answer = await fetch(addressOf(server, path), {
				method: asked,
				headers: {
					// Not in lines: of those only the last says whether it was refused.
					accept: 'application/json, */*;q=0.5',
					...(sent !== undefined && {
						'content-type': data!.endsWith('.ndjson') ? 'application/x-ndjson' : 'application/json'
					}),
					...(key !== undefined && { authorization: `Bearer ${key}` })
				},
				...(sent !== undefined && { body: sent })
			}).catch(() => undefined);
			if (!answer) throw refuse('server-not-there', { server });
			if (answer.body) await pipeline(Readable.fromWeb(answer.body as NodeStream), process.stdout, { end: false });
			process.stdout.write('\n');
			if (!answer.ok) process.exitCode = 1;
		});
};

function addressOf(server: string, path: string): string {
	const address = `${server.replace(/\/$/, '')}/api/v1/${path.replace(/^\/(?:api\/v1\/)?/, '')}`;
	if (!parseUrl(address)) throw refuse('server-not-there', { server });
	return address;
}

async function dataOf(data: string): Promise<string | Uint8Array<ArrayBuffer>> {
	if (!data.startsWith('@')) return data;
	const file = data.slice(1);
	try {
		return file === '-' ? readFileSync(0, 'utf8') : new Uint8Array(await readFile(file));
	} catch {
		throw refuse('path-missing', { path: file });
	}
}

function method(text: string): string {
	const wanted = text.toUpperCase();
	if (!/^(?:GET|HEAD|POST|PUT|PATCH|DELETE)$/.test(wanted))
		throw new InvalidArgumentError('A method is GET, POST, PUT, PATCH or DELETE.');
	return wanted;
}
