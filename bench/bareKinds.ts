import { Agent, createServer, request as ask } from 'node:http';
import { pipeline } from 'node:stream';
import { heads } from '../src/client/middleware';

/** The bare servers that programs' ways are measured against, by `BARE_KIND`: nothing but what cannot be left out. */
const { BARE_KIND: kind, BARE_PORT: port, BARE_UPSTREAM: upstream = '', BARE_BODY = '' } = process.env;
const body = Buffer.from(BARE_BODY, 'base64');
const agent = new Agent({ keepAlive: true });
const behind = upstream === '' ? undefined : new URL(upstream);

const withHeads = heads({ server: upstream, site: 'S' });

const KINDS: Readonly<Record<string, Parameters<typeof createServer>[1]>> = {
	/** A proxy that passes all on. */
	pipe: (request, response) => {
		const { method, url, rawHeaders } = request;
		const asked = ask({
			hostname: behind!.hostname,
			port: behind!.port,
			method,
			path: url,
			headers: rawHeaders,
			agent
		});
		asked.on('response', (answer) => {
			response.writeHead(answer.statusCode!, answer.statusMessage, answer.rawHeaders as never);
			pipeline(answer, response, () => undefined);
		});
		asked.on('error', () => response.destroy());
		asked.end();
	},
	/** Reads JSON, and answers the same bytes each time. */
	json: (request, response) => {
		const parts: Buffer[] = [];
		request.on('data', (part: Buffer) => parts.push(part));
		request.on('end', () => {
			if (request.method === 'POST') JSON.parse(Buffer.concat(parts).toString());
			response.writeHead(200, { 'content-type': 'application/json', 'content-length': body.length }).end(body);
		});
	},
	/** A server that makes its page anew each time. */
	page: (_, response) => {
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
		response.end(body.toString());
	},
	/** The same with the middleware before it. */
	middleware: (request, response) => withHeads(request, response, () => KINDS.page!(request, response)),
	/** The site itself, where no web server is at hand: the same page for every path. */
	site: (_, response) =>
		void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', etag: '"site"' }).end(body)
};
createServer(KINDS[kind ?? '']).listen(Number(port), '127.0.0.1', () => process.send?.('ready'));
