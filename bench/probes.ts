import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'parse5';
import sharp from 'sharp';
import { request, Agent } from 'undici';
import { ALL_READERS, READERS } from '$core';
import { TracingFetcher } from '$server/fetching/trace';
import { JOBS } from '$server/jobs/jobs';
import { probe } from '$server/probes/probe';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { generateSite } from '../demo/generate';
import { peakOf } from './memory';

/**
 * What readers see, over HTTP: probes by all readers against a bare loop that fetches and parses the same pages, and
 * the memory of verifying a whole site. The server that both ask is in this process: what it takes, both wait for.
 */
const PAGES = Number(process.env.PROBES_PAGES ?? 10_000);
const PROBED = 300;
const command = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('./thread.js', import.meta.url));

const folder = mkdtempSync(join(tmpdir(), 'kephalon-probes-'));
const db = join(folder, 'k.db');
const store = new Store(db);
const { site, types, pages } = generateSite(PAGES);
saveSiteFile(store, { site, types, pages: [...pages], pictures: [], redirects: {} } as never);
JOBS.release({ db, site: site.name }, () => undefined);
const { id } = store.working.sites.named(site.name);
const paths = store.working.pages.paths(id);
/** Faults of real servers, each with the name that it must be told by. */
type Served = { readonly status?: number; readonly fields?: Record<string, string>; readonly head?: string };
const FAULTS: readonly (readonly [is: string, serve: (head: string) => Served])[] = [
	['error', () => ({ status: 404 })],
	['error', () => ({ status: 503 })],
	['no-page', () => ({ fields: { 'content-type': 'text/plain' } })],
	['noindex', (head) => ({ head: `${head}<meta name="robots" content="noindex">` })],
	['noindex', () => ({ fields: { 'x-robots-tag': 'noindex' } })],
	['other', (head) => ({ head: head.replace(/(og:title" content=")[^"]*/, '$1') })],
	['other', (head) => ({ head: head.replace(/(rel="canonical" href=")[^"]*/, `$1${site.base}`) })],
	['missing', () => ({ head: '<title>Another tool</title>' })],
	['doubled', (head) => ({ head: `${head}<title>Another tool</title>` })],
	['other', (head) => ({ head: head.replace(/<title>[^<]*/, '<title>T') })]
];
const planted = new Map<string, { readonly is: string; readonly serve: (head: string) => Served }>();
const filler = '<p>What stands here is as long as the text of a page. '.repeat(60);
const drawn = await sharp({ create: { width: 1200, height: 630, channels: 3, background: '#357' } })
	.jpeg()
	.toBuffer();
const server = createServer((asked, response) => {
	const path = new URL(asked.url ?? '/', 'http://x.invalid').pathname;
	if (/\.jpe?g$/.test(path)) return void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(drawn);
	const released = store.releases.head(id, { path })?.html;
	if (released === undefined) return void response.writeHead(404).end();
	const { status = 200, fields = {}, head = released } = planted.get(path)?.serve(released) ?? {};
	response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', ...fields });
	response.end(
		`<!doctype html><html lang="en"><head><meta charset="utf-8">${head}</head><body>${filler}</body></html>`
	);
});
await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
const base = site.base.replace(/\/$/, '');
const fetcher = new TracingFetcher(new Set(), { origin: new URL(base).origin, at });

const some = paths.filter((_, index) => index % Math.floor(paths.length / PROBED) === 0).slice(0, PROBED);
const perSecond = async (work: (path: string) => Promise<unknown>) => {
	const began = performance.now();
	for (const path of some) await work(path);
	return (some.length / (performance.now() - began)) * 1000;
};
const agent = new Agent();
// Two of the nine send the same: a page is fetched eight times for all of them, at once, and parsed once.
const textOf = async (path: string) => (await request(at + path, { dispatcher: agent })).body.text();
const fetches = new Set(READERS.map(({ habits }) => habits.agent)).size;
const bare = async (path: string) => {
	const [text = ''] = await Promise.all(Array.from({ length: fetches }, () => textOf(path)));
	parse(text);
	const picture = /property="og:image" content="[^"]*?(\/[^"/]+\.jpe?g)"/.exec(text)?.[1];
	if (picture !== undefined) await (await request(at + picture, { dispatcher: agent })).body.arrayBuffer();
};
const probed = (path: string) => probe(fetcher, base + path, READERS);
const byAll = (path: string) => probe(fetcher, base + path, ALL_READERS);
// Each in turns; the machine is shared, so what counts is what most pairs of turns say.
const rounds: { readonly fast: number; readonly slow: number; readonly all: number }[] = [];
for (let round = 0; round < 9; round++)
	rounds.push({ fast: await perSecond(bare), slow: await perSecond(probed), all: await perSecond(byAll) });
const median = (of: (round: (typeof rounds)[number]) => number) =>
	rounds.map(of).sort((a, b) => a - b)[Math.floor(rounds.length / 2)]!;
const say = (what: string, value: number, target: string, isMet: boolean) =>
	console.log(`${what.padEnd(58)}${value.toFixed(2).padStart(9)}  (${target})${isMet ? '' : '  missed'}`);
const ratio = median(({ slow, fast }) => slow / fast);
const [slow, fast, all] = [median((one) => one.slow), median((one) => one.fast), median((one) => one.all)];
say('probes for nine readers, of fetching and parsing alone', ratio, 'at least 0.7', ratio >= 0.7);
console.log(
	`  ${slow.toFixed(0)} pages a second, each fetched ${fetches} times and once for its picture; bare ${fast.toFixed(0)}; for all ${ALL_READERS.length} readers ${all.toFixed(0)}`
);
await fetcher.close();
await agent.close();

// Two hundred faults, one page in fifty: by number, so that each kind is planted as often.
const PLANTED = 200;
for (let at = 0; at < PLANTED; at++) {
	const [is, serve] = FAULTS[at % FAULTS.length]!;
	planted.set(paths[Math.floor(((at + 0.5) * paths.length) / PLANTED)]!, { is, serve });
}
const began = performance.now();
const report = ['--via', at, '--rate', '100000', '--format', 'json'];
const child = fork(command, ['verify', '--site', site.name, '--db', db, ...report], { silent: true });
let [peak, told] = [0, ''];
child.stdout!.on('data', (part: Buffer) => (told += part.toString()));
const watch = setInterval(() => (peak = Math.max(peak, peakOf(child.pid as number))), 200);
await new Promise((done) => child.once('exit', done));
clearInterval(watch);
const seconds = (performance.now() - began) / 1000;
say(`memory of verifying ${PAGES.toLocaleString('en')} pages, MB`, peak, 'at most 250', peak <= 250);
const { drifted } = JSON.parse(told) as { drifted: { path: string; is: string }[] };
const right = drifted.filter(({ path, is }) => planted.get(path)?.is === is).length;
const wrong = drifted.filter(({ path }) => !planted.has(path)).length;
say(`of ${PLANTED} faults planted in them, found by their names`, right, `${PLANTED}`, right === PLANTED);
say('sound pages told as faulty', wrong, '0', wrong === 0);
console.log(`  ${(paths.length / seconds).toFixed(0)} pages a second, by two readers, with their pictures`);
server.closeAllConnections();
server.close();
store.close();
rmSync(folder, { recursive: true, force: true });
