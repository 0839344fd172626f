import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, BenchPage, openBrowser, startDemo, type RunningDemo } from '../browser/demo';

/** One picture of each main view, as it is with the demo's content; some after a few strokes, as the README tells them. */
const folder = fileURLToPath(new URL('../../docs/screenshots/', import.meta.url));
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

async function begin(people: boolean) {
	demo = await startDemo({ few: false, people });
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
}
async function end() {
	await browser?.quit();
	demo?.stop();
}

const at = (room: string, query = '') => `/${room}/${encodeURIComponent(demo.site)}${query}`;
async function open(address: string) {
	await browser.driver.get(demo.kephalon + address);
	await browser.driver.wait(until.elementLocated(By.css('main')), 15_000);
	await atRest(browser.driver, 1000);
}
const click = (text: string) =>
	browser.driver.executeScript(
		`const one = [...document.querySelectorAll('button, a')].find((one) => one.checkVisibility() && one.textContent.trim().startsWith(arguments[0]));
		if (!one) throw new Error('nothing to press says ' + arguments[0]); one.click();`,
		text
	);
async function take(name: string) {
	await atRest(browser.driver, 1000);
	// A caret that is seen or not is no difference.
	await browser.driver.executeScript(`document.documentElement.style.caretColor = 'transparent'`);
	writeFileSync(join(folder, `${name}.png`), Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
}

describe('alone', () => {
	let files = '';
	beforeAll(() => begin(false));
	afterAll(async () => {
		await end();
		if (files) rmSync(files, { recursive: true, force: true });
	});

	test.each([
		['bench', 'bench', '?page=/reserves/gannet-head'],
		['bench-fields', 'bench', '?page=/reserves/saltholm-marsh&at=fields'],
		['bench-versions', 'bench', '?page=/reserves/gannet-head&at=versions'],
		['bench-markup', 'bench', '?page=/reserves/ember-heath&view=markup'],
		['bench-study', 'bench', '?page=/reserves/ember-heath&tag=og:image&at=picture'],
		['overview', 'overview', ''],
		['pages', 'pages', ''],
		['findings', 'findings', ''],
		['library', 'library', '']
	])('%s', async (name, room, query) => {
		await open(at(room, query));
		// What is counted by itself is counted by then.
		await browser.driver.wait(
			async () => !/Counting|being looked at/.test(await browser.driver.findElement(By.css('main')).getText()),
			60_000,
			'it goes on counting'
		);
		await take(name);
	});

	test('bench-edit', async () => {
		await open(at('bench', '?page=/reserves/gannet-head'));
		await bench.write('title', 'type', '{page.title} in {page.region} {separator} {site.name}');
		await bench.waitForText('[data-layer=type] [data-testid=reach]', /would change/);
		await take('bench-edit');
		await bench.press(Key.ESCAPE);
	});

	test('readers', async () => {
		await open(at('readers', '?address=https://merrowcoast.example/faults/heavy-picture'));
		await bench.waitForText('main', /more than/);
		await take('readers');
	});

	test('bench-share', async () => {
		await open(at('bench', '?page=/sightings/hoopoe-in-the-car-park&tag=og:image&view=share'));
		await bench.waitForText('main', /Title/);
		await browser.driver.executeScript(`document.querySelector('[data-part=title]')?.click()`);
		await take('bench-share');
	});

	test('bench-dark', async () => {
		await open(at('bench', '?page=/shop/gannet-mug&at=type'));
		await click('Look');
		await (await bench.find('[role=menu]')).sendKeys('dark', Key.ENTER, Key.ESCAPE);
		await take('bench-dark');
		await click('Look');
		await (await bench.find('[role=menu]')).sendKeys('as the', Key.ENTER, Key.ESCAPE);
	});

	test('releases', async () => {
		await open(at('releases'));
		await bench.waitForText('main', /What would go out/);
		await take('releases');
	});

	test('bench-changes', async () => {
		await open(at('bench', '?page=/visit'));
		await (await bench.find('body')).sendKeys(Key.chord(Key.ALT, 'e'));
		await bench.find('[data-testid=record] li');
		await take('bench-changes');
	});

	test('panel', async () => {
		await browser.driver.get(`${demo.editor}/?page=/reserves/gannet-head`);
		const frame = await browser.driver.wait(
			() =>
				browser.driver.executeScript<WebElement>(
					`return document.querySelector('kephalon-panel')?.shadowRoot?.querySelector('iframe')`
				),
			15_000
		);
		await browser.driver.switchTo().frame(frame);
		await bench.find('article [data-line="og:image"]');
		await browser.driver.switchTo().defaultContent();
		const title = await bench.find('form [name=title]');
		await title.clear();
		await title.sendKeys('Ten thousand gannets, seen from the sea');
		await take('panel');
	});

	test('setup', async () => {
		await open(`/setup?site=${encodeURIComponent(demo.site)}`);
		await take('setup');
	});

	test('bench-found', async () => {
		files = mkdtempSync(join(tmpdir(), 'ferran-'));
		mkdirSync(join(files, 'isles'));
		const isles = {
			marl: 'a pier',
			orm: 'a lighthouse',
			skell: 'two farms',
			tarn: 'a chapel',
			brae: 'a school',
			holm: 'nobody'
		};
		const page = (title: string, about: string) =>
			`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title} — Ferran Isles</title><meta name="description" content="${about}"></head><body><main><h1>${title}</h1><p>${about} The boat goes twice a day while the weather holds.</p></main></body></html>`;
		writeFileSync(
			join(files, 'index.html'),
			page('Home', 'Six islands in the north of the bay, and the boat that goes round them.')
		);
		for (const [isle, has] of Object.entries(isles)) {
			const name = isle[0]!.toUpperCase() + isle.slice(1);
			writeFileSync(
				join(files, `isles/${isle}.html`),
				page(name, `${name} has ${has}, and forty thousand puffins, in that order as you land.`)
			);
		}
		await open('/setup');
		await bench.find('input');
		for (const [label, text] of [
			['Name of the site', 'Ferran Isles'],
			['Public base address', 'https://ferranisles.example/'],
			['Folder', files]
		] as const) {
			const field = await browser.driver.findElement(
				By.xpath(`//label[contains(., "${label}")]//input | //input[@aria-label="${label}"]`)
			);
			await field.clear();
			await field.sendKeys(text);
		}
		await click('Read the content');
		await bench.waitForText('main', /7 pages read/);
		await browser.driver.executeScript(`document.querySelector('main').scrollTo?.(0, 1e4); window.scrollTo(0, 1e4)`);
		await click('Go on');
		await browser.driver.wait(until.urlContains('Ferran'), 20_000);
		await open('/bench/Ferran%20Isles?page=/isles/marl.html&tag=description');
		await bench.write('description', 'type', '{page.summary | clip 80}');
		await bench.waitForText('[data-layer=type] [data-testid=reach]', /in their own file/);
		await take('bench-found');
	});
});

describe('together', () => {
	beforeAll(() => begin(true));
	afterAll(end);

	test('people', async () => {
		await open('/sign-in?to=/people');
		const [name, password] = await browser.driver.findElements(By.css('form input'));
		await name!.sendKeys('Ada Marrow');
		await password!.sendKeys('seven slow gannets', Key.ENTER);
		await bench.waitForText('h1', /People/);
		expect(await bench.textOf('main')).toContain('Cleo Sands');
		await take('people');
	});
});
