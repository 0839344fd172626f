import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { GuardedFetcher } from '../fetching/fetch';
import { Store } from '../store/store';
import { importFolder } from './importFolder';

let folder = '';
let server: Server;
let host = '';

beforeAll(async () => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const picture = await sharp({ create: { width: 640, height: 360, channels: 3, background: '#357' } })
		.jpeg()
		.toBuffer();
	server = createServer((request, response) => {
		if (request.url === '/lying.png') response.writeHead(200, { 'content-type': 'image/png' }).end(picture);
		else response.writeHead(200, { 'content-type': 'image/png' }).end('no picture at all');
	});
	await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
	host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
	rmSync(folder, { recursive: true, force: true });
	await new Promise((done) => server.close(done));
});

test('pictures at whole addresses are fetched for their facts, whatever their names and servers say', async () => {
	const at = (name: string) => `http://${host}/${name}`;
	writeFileSync(
		join(folder, 'page.html'),
		`<title>Tide</title><h1>Tide</h1><p>Long enough a text to be taken for the page's own paragraph, about the tide.</p>
		<img src="${at('lying.png')}"><img src="${at('text.png')}"><img src="http://10.0.0.1/inner.png">`
	);
	const store = new Store(join(folder, 'k.db'));
	const fetcher = new GuardedFetcher(new Set([host]));
	const options = { folder, site: 's', base: 'https://site.example/', types: [] };
	const summary = await importFolder(store, { ...options, fetcher });
	await fetcher.close();
	expect(summary.skipped).toEqual([
		{ path: at('text.png'), why: 'a picture on 1 page: what stands there is no picture' },
		{
			path: 'http://10.0.0.1/inner.png',
			why: 'a picture on 1 page: http://10.0.0.1/inner.png is not fetched: it leads to a private network.'
		}
	]);
	const { id } = store.findSite('s')!;
	expect(store.pictures(id)).toEqual([
		{
			...{ src: at('lying.png'), width: 640, height: 360, bytes: expect.any(Number), type: 'image/jpeg' },
			...{ kept: { file: expect.stringMatching(/^[0-9a-f]{24}\.jpg$/), width: 640, height: 360 } }
		}
	]);
	expect(store.page(id, '/page.html')?.fields.pictures).toEqual([{ src: at('lying.png') }]);
});

test('a picture of the folder is copied into the library; what people set for it stays when it is read again', async () => {
	const top = mkdtempSync(join(tmpdir(), 'kephalon-'));
	const draw = (background: string) => sharp({ create: { width: 1200, height: 700, channels: 3, background } });
	await draw('#246').png().toFile(join(top, 'boat.png'));
	writeFileSync(join(top, 'mark.svg'), '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"/>');
	writeFileSync(join(top, 'a.html'), '<title>A</title><img src="boat.png" alt="A boat"><img src="mark.svg">');
	const store = new Store(join(top, 'k.db'));
	const read = () => importFolder(store, { folder: top, site: 's', base: 'https://s.example/', types: [] });
	await read();
	const { id } = store.findSite('s')!;
	const boat = store.picture(id, '/boat.png')!;
	expect(boat).toMatchObject({ width: 1200, height: 700, type: 'image/png', kept: { width: 1200, height: 700 } });
	expect(store.picture(id, '/mark.svg')).toMatchObject({ type: 'image/svg+xml' });
	expect(store.picture(id, '/mark.svg')).not.toHaveProperty('kept');
	store.savePictures(id, [{ ...boat, focus: [0.1, 0.9], alt: 'A small boat', cuts: { tall: { focus: [0.5, 0.5] } } }]);
	await draw('#a42').png().toFile(join(top, 'boat.png'));
	await read();
	const again = store.picture(id, '/boat.png')!;
	expect(again).toMatchObject({ focus: [0.1, 0.9], alt: 'A small boat', cuts: { tall: { focus: [0.5, 0.5] } } });
	expect(again.kept?.file).not.toBe(boat.kept?.file);
	rmSync(top, { recursive: true, force: true });
});
