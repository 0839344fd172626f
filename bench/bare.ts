import { createServer } from 'node:http';

/** The bare server that delivery is measured against: the same body for every request, and nothing else. */
const body = Buffer.from(process.env.BARE_BODY ?? '', 'base64');
const etag = '"bare"';
createServer((request, response) => {
	if (request.headers['if-none-match'] === etag) return void response.writeHead(304, { etag }).end();
	response
		.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'content-length': body.length, etag })
		.end(body);
}).listen(Number(process.env.BARE_PORT), '127.0.0.1', () => process.send?.('ready'));
