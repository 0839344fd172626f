import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { FAULTS } from '../../../demo/faults';
import { websiteHandler } from '../../../demo/website';
import { TracingFetcher } from '../fetching/trace';
import { probe } from './probe';

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
		const { findings } = await probe(fetcher, `${BASE}/faults/${name}`);
		const codes = findings.map((one) => one.code);
		if (code === '') expect(codes).toEqual([]);
		else expect(codes).toContain(code);
	},
	40_000
);
