import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { generateSite } from '../demo/generate';
import { peakOf } from './memory';
import { reachOf } from '$server/jobs/reach';
import { stopJobs } from '$server/jobs/run';
import { Store } from '$server/store/store';

/**
 * The demo's generator at 10,000 and at 100,000 pages: every page resolved and rendered by the command in a stream.
 * Time must grow in step with the pages, and memory stay level.
 */
const command = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const SMALL = 10_000;
const LARGE = 100_000;
/** Each size runs this often; the fastest counts: the machine is shared. */
const ROUNDS = 2;

function fill(file: string, count: number): string {
	const store = new Store(file);
	const { site, types, pictures, pages } = generateSite(count);
	store.transaction(() => {
		const id = store.working.sites.save(site);
		for (const type of types) store.working.types.save(id, type);
		store.pictures.save(id, pictures);
		for (const page of pages) store.working.pages.save(id, page);
	});
	store.close();
	return site.name;
}

function render(db: string, site: string): Promise<{ seconds: number; megabytes: number; lines: number }> {
	return new Promise((resolve, reject) => {
		const began = performance.now();
		const child = spawn(process.execPath, [command, 'render', '--all', '--db', db, '--site', site], {
			stdio: ['ignore', 'pipe', 'inherit']
		});
		let [megabytes, lines] = [0, 0];
		const watch = setInterval(() => (megabytes = Math.max(megabytes, peakOf(child.pid as number))), 20);
		child.stdout.on('data', (data: Buffer) => {
			for (const byte of data) if (byte === 10) lines++;
		});
		child.once('close', (code) => {
			clearInterval(watch);
			if (code === 0) resolve({ seconds: (performance.now() - began) / 1000, megabytes, lines });
			else reject(new Error(`The command ended with code ${code}.`));
		});
	});
}

const folder = mkdtempSync(join(tmpdir(), 'kephalon-bench-'));
const seconds: number[] = [];
/** The site of the smaller size. */
let siteName = '';
for (const count of [SMALL, LARGE]) {
	const db = join(folder, `${count}.db`);
	const site = fill(db, count);
	siteName ||= site;
	const runs = [];
	for (let round = 0; round < ROUNDS; round++) runs.push(await render(db, site));
	const best = runs.reduce((a, b) => (a.seconds < b.seconds ? a : b));
	const most = Math.max(...runs.map((run) => run.megabytes));
	if (best.lines !== count) throw new Error(`${best.lines} heads came out for ${count} pages.`);
	seconds.push(best.seconds);
	console.log(
		`${count.toLocaleString('en').padStart(9)} pages in a stream ${best.seconds.toFixed(2).padStart(8)} s ${most.toFixed(0).padStart(6)} MB at the most  (to stay under: 250)${most >= 250 ? '  missed' : ''}`
	);
}

/** How long the reach of an edit takes to be found, as the bench asks for it: in a thread of its own. */
async function secondsOfReach(db: string, site: string): Promise<number> {
	const edit = {
		place: { layer: 'site' },
		tag: 'description',
		body: { kind: 'template', template: '{page.summary ?? site.description | clip 120}' }
	} as const;
	const began = performance.now();
	const store = new Store(db, { readonly: true });
	const { under } = await reachOf(store, site, edit);
	store.close();
	if (under < SMALL) throw new Error(`Only ${under} pages were looked at.`);
	return (performance.now() - began) / 1000;
}
process.env.KEPHALON_THREAD ??= fileURLToPath(new URL('./thread.js', import.meta.url));
const small = join(folder, `${SMALL}.db`);
const reaches = [
	await secondsOfReach(small, siteName),
	await secondsOfReach(small, siteName),
	await secondsOfReach(small, siteName)
];
const reach = Math.min(...reaches);
await stopJobs();
rmSync(folder, { recursive: true, force: true });
const growth = (seconds[1] as number) / (seconds[0] as number);
console.log(
	`time for ten times the pages ${growth.toFixed(1).padStart(6)} times  (to stay under: 10.5)${growth > 10.5 ? '  missed' : ''}`
);
console.log(
	`reach of an edit at the site, ${SMALL.toLocaleString('en')} pages ${reach.toFixed(2).padStart(6)} s  (to stay under: 1)${reach > 1 ? '  missed' : ''}`
);
