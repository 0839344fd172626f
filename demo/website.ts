import { createReadStream, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { MANIFEST_PATH, toText, type Page } from '$core';
import { CACHED_PAGE, FAULTS, FAULTS_ROBOTS, faultsPage, heavy } from './faults';

/**
 * The stand-in for the real website: it serves the demo's pages on a port of its own, and asks Kephalon for the head
 * of each, as a real site would.
 */
export interface Website {
	readonly pages: ReadonlyMap<string, Page>;
	/** The folder of its pictures. */
	readonly files: string;
	/** Where released heads, the library and the web manifest come from: the address of the site in Kephalon's API. */
	readonly api: string;
}

interface KnownHead {
	readonly etag: string;
	readonly html: string;
}

/** Answers requests for the demo's pages and pictures. */
export function websiteHandler({ pages, files, api }: Website): RequestListener {
	const known = new Map<string, KnownHead>();
	/** What a cache in front of one page still serves: the head before the one that is released. */
	let cached: KnownHead | undefined;
	return (request, response) => {
		const { pathname } = new URL(request.url ?? '/', 'http://site.invalid');
		const fault = /^\/faults\/([\w.-]+)$/.exec(pathname)?.[1];
		if (fault !== undefined) return sendFault(fault, request, response);
		if (pathname === '/faults') return void response.writeHead(200, { 'content-type': HTML }).end(faultsPage());
		if (pathname === '/robots.txt') return void sendRobots(response);
		if (pathname === '/sitemap.xml') return void passOn(new URL(`${api}/sitemap`), response);
		if (/^\/media\/[\w.-]+$/.test(pathname)) return void passOn(new URL(pathname, api), response);
		if (pathname === MANIFEST_PATH) return void passOn(new URL(`${api}/manifest`), response);
		if (/^\/pictures\/[\w.-]+$/.test(pathname)) return sendPicture(join(files, pathname), response);
		void sendPage(pages.get(pathname), pathname, request, response);
	};

	function sendFault(name: string, request: IncomingMessage, response: ServerResponse) {
		if (name === 'heavy.jpg') {
			const picture = readFileSync(join(files, 'pictures/cliff.jpg'));
			return void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(heavy(picture));
		}
		const fault = Object.hasOwn(FAULTS, name) ? FAULTS[name] : undefined;
		if (fault) fault.answer(request, response);
		else void sendPage(undefined, `/faults/${name}`, request, response);
	}

	/** What Kephalon writes, and what the faults need beside it. */
	async function sendRobots(response: ServerResponse) {
		const answer = await fetch(`${api}/robots`).catch(() => undefined);
		const text = answer?.ok ? await answer.text() : '';
		response.writeHead(200, { 'content-type': 'text/plain; charset=utf-8' });
		response.end(`${text}\n${FAULTS_ROBOTS}`);
	}

	/** Where a page that has moved is now, as Kephalon knows it. */
	async function movedTo(path: string): Promise<string | undefined> {
		const answer = await fetch(`${api}/head?path=${encodeURIComponent(path)}`, { redirect: 'manual' }).catch(
			() => undefined
		);
		const to = answer && answer.status >= 300 && answer.status < 400 ? answer.headers.get('location') : null;
		return to ? (new URL(to, api).searchParams.get('path') ?? undefined) : undefined;
	}

	/** What a page serves: the released head, but for the one page that has a cache in front of it. */
	async function servedHead(path: string): Promise<string> {
		const head = await headOf(path);
		return path === CACHED_PAGE ? (cached?.html ?? head) : head;
	}

	/** The released head, asked for again each time but only fetched when it changed. */
	async function headOf(path: string): Promise<string> {
		const before = known.get(path);
		try {
			const answer = await fetch(
				`${api}/head?path=${encodeURIComponent(path)}`,
				before ? { headers: { 'if-none-match': before.etag } } : {}
			);
			if (answer.status === 304 && before) return before.html;
			if (!answer.ok) return '';
			const head = { etag: answer.headers.get('etag') ?? '', html: await answer.text() };
			known.set(path, head);
			if (path === CACHED_PAGE && before?.etag !== head.etag) cached = before;
			return head.html;
		} catch {
			// Kephalon is not there: the last head that is known serves on.
			return before?.html ?? '';
		}
	}

	async function sendPage(page: Page | undefined, path: string, _request: IncomingMessage, response: ServerResponse) {
		const moved = await movedTo(path);
		if (moved !== undefined && moved !== path) return void response.writeHead(301, { location: moved }).end();
		const shown = page?.state === 'live' ? page : undefined;
		const head = await servedHead(shown ? path : '/404');
		response.writeHead(shown ? 200 : 404, { 'content-type': 'text/html; charset=utf-8' });
		response.end(
			`<!doctype html>\n<html lang="${shown?.language ?? 'en-GB'}">\n<head>\n<meta charset="utf-8">\n${head}<meta name="viewport" content="width=device-width">\n<style>${STYLE}</style>\n</head>\n<body>\n${bodyOf(shown)}</body>\n</html>\n`
		);
	}
}

/** What Kephalon makes comes from there. */
async function passOn(address: URL, response: ServerResponse) {
	const answer = await fetch(address).catch(() => undefined);
	if (!answer?.ok) return void response.writeHead(404).end();
	const kept = ['content-type', 'cache-control'].map((name) => [name, answer.headers.get(name) ?? '']);
	response.writeHead(200, Object.fromEntries(kept) as Record<string, string>);
	response.end(Buffer.from(await answer.arrayBuffer()));
}

function sendPicture(file: string, response: ServerResponse) {
	if (!existsSync(file)) return void response.writeHead(404).end();
	response.writeHead(200, {
		'content-type': file.endsWith('.png') ? 'image/png' : 'image/jpeg',
		'cache-control': 'max-age=3600'
	});
	createReadStream(file).pipe(response);
}

const HTML = 'text/html; charset=utf-8';
const STYLE =
	'body{font:18px/1.6 Georgia,serif;max-width:38rem;margin:2rem auto;padding:0 1rem;color:#20302e}img{max-width:100%;border-radius:4px}a{color:#1f5f5a}';
const escape = (text: string) => text.replace(/[&<>"]/g, (char) => `&#${char.charCodeAt(0)};`);

function bodyOf(page: Page | undefined): string {
	if (!page) return '<main><h1>There is no such page</h1><p><a href="/">To the front page</a></p></main>\n';
	const { title, summary, body, picture } = page.fields;
	const image =
		picture && typeof picture === 'object' && 'src' in picture
			? `<img src="${escape(picture.src)}" alt="${escape(picture.alt ?? '')}">`
			: '';
	return `<nav><a href="/">Merrow Coast Reserves</a></nav>\n<main><h1>${escape(toText(title))}</h1>\n${image}<p>${escape(toText(summary))}</p>\n${toText(body)}</main>\n`;
}
