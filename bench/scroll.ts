import { fork } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { JOBS } from '$server/jobs/jobs';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { generateSite } from '../demo/generate';
import type { Driver as ChromeDriver } from 'selenium-webdriver/chrome.js';
import { openBrowser } from '../tests/browser/demo';

/**
 * Scrolling through the table of 100,000 pages in the browser, from the first row to the last: how long frames are, and
 * what memory is left over.
 */
const PORT = 48960;
const ROWS = Number(process.env.SPINE_PAGES ?? 100_000);
/** How far each frame scrolls, in pixels: as a wheel in haste, and as the bar that is dragged. */
const STEPS = { 'by the wheel': 120, 'by the bar': 3000 };
/** So many frames by the wheel; by the bar, until the end. */
const MOST_FRAMES = 1200;

const SCROLL = `const [step, most, done] = arguments;
	const sheet = document.querySelector('.pages-sheet');
	const times = []; let last = performance.now(); let top = 0; const end = sheet.scrollHeight - sheet.clientHeight;
	${'' /* Of each row in view that is blank, by its number: since when. */}
	const since = new Map(); let blank = 0; let rests = 0;
	const look = (now) => {
		const view = sheet.getBoundingClientRect();
		const seen = new Set();
		for (const box of sheet.querySelectorAll('.line .tick input:disabled')) {
			const line = box.closest('.line');
			const { top, bottom } = line.getBoundingClientRect();
			if (bottom < view.top + 60 || top > view.bottom) continue;
			const row = line.getAttribute('aria-rowindex');
			seen.add(row);
			if (!since.has(row)) since.set(row, now);
			blank = Math.max(blank, now - since.get(row));
		}
		for (const row of since.keys()) if (!seen.has(row)) since.delete(row);
		return seen.size;
	};
	requestAnimationFrame(function frame(now) {
		times.push(now - last); last = now;
		const isOver = times.length > most || top >= end;
		if (!isOver) sheet.scrollTop = top += step;
		if (look(now) === 0 && isOver && ++rests > 10) return done([times.slice(1), blank]);
		requestAnimationFrame(frame);
	});`;

const folder = mkdtempSync(join(tmpdir(), 'kephalon-scroll-'));
const db = join(folder, 'scroll.db');
const { site, types, pictures, pages } = generateSite(ROWS);
const store = new Store(db);
saveSiteFile(store, { site, types, pictures: [...pictures], pages: [...pages], redirects: {} } as never);
JOBS.refresh({ db, site: site.name }, () => undefined);
store.close();

const server = fork(
	fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url)),
	['serve', '--db', db, '--port', String(PORT)],
	{ silent: true }
);
const { driver, quit } = await openBrowser();
try {
	const isReady = () =>
		fetch(`http://127.0.0.1:${PORT}/ready`).then(
			({ ok }) => ok,
			() => false
		);
	await driver.wait(isReady, 20_000);
	await driver.get(`http://127.0.0.1:${PORT}/pages/${encodeURIComponent(site.name)}`);
	await driver.manage().setTimeouts({ script: 300_000 });
	await driver.sleep(3000);
	const heap = async () => {
		await (driver as ChromeDriver).sendDevToolsCommand('HeapProfiler.collectGarbage', {});
		return driver.executeScript<number>('return performance.memory.usedJSHeapSize / 1e6');
	};
	const before = await heap();
	for (const [name, step] of Object.entries(STEPS)) {
		await driver.executeScript(`document.querySelector('.pages-sheet').scrollTop = 0`);
		await driver.sleep(500);
		const [unsorted, blank] = await driver.executeAsyncScript<[number[], number]>(SCROLL, step, MOST_FRAMES);
		const times = unsorted.sort((a, b) => a - b);
		const over = times.filter((time) => time > 50).length;
		console.log(
			`${ROWS} rows scrolled ${name}: ${times.length} frames, median ${times[times.length >> 1]?.toFixed(1)} ms, 99th percentile ${times[Math.floor(times.length * 0.99)]?.toFixed(1)} ms, longest ${times.at(-1)?.toFixed(1)} ms, over 50 ms ${over}; a row in view was blank for ${blank.toFixed(0)} ms at most (at most 100)${blank > 100 ? '  missed' : ''}`
		);
	}
	console.log(`memory of its scripts: ${before.toFixed(1)} MB before, ${(await heap()).toFixed(1)} MB after`);
} finally {
	await quit();
	server.kill();
	rmSync(folder, { recursive: true, force: true });
}
