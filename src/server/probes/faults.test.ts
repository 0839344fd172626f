import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Page } from '$core';
import { CACHED_PAGE, FAULTS } from '../../../demo/faults';
import { websiteHandler } from '../../../demo/website';
import { TracingFetcher } from '../fetching/trace';
import { JOBS } from '../jobs/jobs';
import { Store } from '../store/store';
import { probe } from './probe';
import { probeInWords } from './told';
import { verify } from './verify';

/** What is seen of an address, as it is told. */
const seenOf = async (...asked: Parameters<typeof probe>) => probeInWords(await probe(...asked));

/** The faults of the stand-in website, over HTTP: each is found by its kind, and nothing is found on the sound page. */

let website: Server;
let fetcher: TracingFetcher;
let folder = '';
const BASE = 'https://merrowcoast.example';

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-faults-'));
	mkdirSync(join(folder, 'pictures'));
	const draw = sharp({ create: { width: 1600, height: 840, channels: 3, background: '#357' } });
	await draw.jpeg().toFile(join(folder, 'pictures/cliff.jpg'));
	website = createServer(websiteHandler({ pages: new Map(), files: folder, api: 'http://127.0.0.1:9/api' }));
	await new Promise<void>((done) => website.listen(0, '127.0.0.1', () => done()));
	const at = `http://127.0.0.1:${(website.address() as AddressInfo).port}`;
	fetcher = new TracingFetcher(new Set(), { origin: BASE, at });
});
afterAll(async () => {
	await fetcher.close();
	website.closeAllConnections();
	website.close();
	rmSync(folder, { recursive: true, force: true });
});

test.each(Object.entries(FAULTS).map(([name, { code }]) => [name, code] as const))(
	'/faults/%s',
	async (name, code) => {
		const { findings } = await seenOf(fetcher, `${BASE}/faults/${name}`);
		const codes = findings.map((one) => one.code);
		if (code === '') expect(codes).toEqual([]);
		else expect(codes).toContain(code);
	},
	40_000
);

test('a page behind a cache is served a release behind, and found to be', async () => {
	const store = new Store(join(folder, 'cached.db'));
	const site = { ...{ name: 'S', base: `${BASE}/`, languages: ['en'], separator: '·', fields: {}, rules: [] } };
	const id = store.working.sites.save(site);
	store.working.types.ensure(id, 'page');
	const page = (path: string, title: string): Page => ({
		...{ path, type: 'page', state: 'live', rules: [], fields: { title } }
	});
	const release = (title: string) => {
		for (const path of ['/', CACHED_PAGE]) store.working.pages.save(id, page(path, title));
		return JOBS.release({ db: store.file, site: 'S' }, () => undefined);
	};
	/** Kephalon's side: the heads as they are released. */
	const api = createServer((request, response) => {
		const path = new URL(request.url!, 'http://x.invalid').searchParams.get('path') ?? '';
		const head = store.releases.head(id, { path });
		response.writeHead(head ? 200 : 404, { etag: `"${head?.hash}"` }).end(head?.html);
	});
	const listen = async (server: Server) => {
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()));
		return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	};
	const from = await listen(api);
	const pages = new Map(['/', CACHED_PAGE].map((path) => [path, page(path, '')]));
	const front = createServer(websiteHandler({ pages, files: folder, api: from }));
	const via = { origin: BASE, at: await listen(front) };
	const drifted = async () =>
		(await verify(store, { site: 'S', rate: 1000, via })).drifted.map(({ path, is }) => `${path} ${is}`);
	release('First');
	expect(await drifted()).toEqual([]);
	release('Second');
	// The cache fills as it is asked, and then serves what was there before.
	await drifted();
	expect(await drifted()).toEqual([`${CACHED_PAGE} old`]);
	for (const server of [front, api]) {
		server.closeAllConnections();
		server.close();
	}
	store.close();
});
