import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { drawPictures } from '../demo/draw';
import { generateSite } from '../demo/generate';
import { peakOf } from './memory';
import type { Picture } from '$core';
import { Library } from '$server/pictures/library';
import { Store } from '$server/store/store';

/**
 * Share pictures drawn by the command: a small number and ten times as many. How many come in a second, and whether
 * memory stays level: the ratios of both runs are the figures to look at. `--long` draws 10,000.
 */
const command = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const SMALL = 200;
const LARGE = process.argv.includes('--long') ? 10_000 : 2000;

/** The demo's generator, all of its pages of the one type that has a layout, with the demo's pictures as leads. */
async function fill(folder: string, count: number): Promise<{ db: string; site: string }> {
	const db = join(folder, `${count}.db`);
	const store = new Store(db);
	const { site, types, pages } = generateSite(count);
	const library = new Library(store);
	const pictures: Picture[] = [];
	for (const { file, picture } of await drawPictures(folder)) {
		const { src, ...facts } = picture;
		pictures.push({ src, ...(await library.copyOf(await readFile(file), facts)) });
	}
	store.transaction(() => {
		const id = store.working.sites.save(site);
		for (const type of types) store.working.types.save(id, type);
		store.pictures.save(id, pictures);
		for (const page of pages) store.working.pages.save(id, { ...page, type: 'sighting' });
	});
	store.close();
	return { db, site: site.name };
}

function compose(db: string, site: string): Promise<{ seconds: number; megabytes: number; told: string }> {
	return new Promise((resolve, reject) => {
		const began = performance.now();
		const args = [command, 'compose', '--db', db, '--site', site, '--json'];
		const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
		let [megabytes, told] = [0, ''];
		const watch = setInterval(() => (megabytes = Math.max(megabytes, peakOf(child.pid as number))), 50);
		child.stdout.on('data', (data: Buffer) => (told += data.toString()));
		child.once('close', (code) => {
			clearInterval(watch);
			if (code === 0) resolve({ seconds: (performance.now() - began) / 1000, megabytes, told });
			else reject(new Error(`The command ended with code ${code}.`));
		});
	});
}

const folder = mkdtempSync(join(tmpdir(), 'kephalon-bench-'));
try {
	const runs = [];
	for (const count of [SMALL, LARGE]) {
		const { db, site } = await fill(folder, count);
		const first = await compose(db, site);
		const again = await compose(db, site);
		runs.push({ count, first, again });
		console.log(
			`${count.toLocaleString('en')} share pictures in ${first.seconds.toFixed(1)} s: ${(count / first.seconds).toFixed(0)} a second, ${first.megabytes.toFixed(0)} MB at the most; again, with nothing changed, ${again.seconds.toFixed(1)} s`
		);
	}
	const [small, large] = runs as [(typeof runs)[0], (typeof runs)[0]];
	console.log(
		`${LARGE / SMALL} times the pictures: ${(large.first.seconds / small.first.seconds).toFixed(1)} times the time, ${(large.first.megabytes / small.first.megabytes).toFixed(2)} times the memory`
	);
} finally {
	rmSync(folder, { recursive: true, force: true });
}
