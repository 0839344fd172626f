import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, typeIn, violationsOf, type RunningDemo } from './demo';

/** `?` beside anything, and long work that goes on when its room is left. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;
beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
}, 120_000);
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});
const EXPLAINED = '[data-testid=explained]';
const gone = (at: string) =>
	browser.driver.wait(async () => (await browser.driver.findElements(By.css(at))).length === 0, 8000);
const site = () => encodeURIComponent(demo.site);

test('a tag, a sign, a setting, a field and a finding say what they are, by key; Escape gives the focus back', async () => {
	await bench.open('/walks/low-tide-for-beginners');
	const asks: readonly (readonly [address: string | undefined, at: string, says: RegExp])[] = [
		[undefined, '.stack header .explain', /The name of the page in browser tabs.*<title>/s],
		[undefined, '[data-layer=type] .explain', /Hatched: its type says it/],
		[
			`/bench/${site()}?page=/walks/low-tide-for-beginners&at=site`,
			'[data-settings=site] .setting .explain',
			/What the site is called/
		],
		[
			`/bench/${site()}?page=/walks/low-tide-for-beginners&at=fields`,
			'[data-panel=fields] .from .explain',
			/They call it \{page\./
		],
		[`/findings/${site()}`, '.what .explain', /Why it matters/]
	];
	for (const [address, at, says] of asks) {
		if (address) await browser.driver.get(demo.kephalon + address);
		const ask = await bench.find(at);
		await browser.driver.executeScript('arguments[0].focus()', ask);
		await ask.sendKeys(Key.ENTER);
		await bench.waitForText(EXPLAINED, says);
		expect(await violationsOf(browser.driver), at).toEqual([]);
		await typeIn(browser.driver, Key.ESCAPE);
		await gone(EXPLAINED);
		expect(await browser.driver.executeScript('return document.activeElement === arguments[0]', ask), at).toBe(true);
	}
});

test('where there is no site yet, one is greeted; with the first site never again', async () => {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-first-'));
	const server = spawn(process.execPath, ['bin/kephalon.js', 'serve', '--db', join(folder, 'k.db'), '--port', '0']);
	try {
		const address = await new Promise<string>((found, failed) => {
			let said = '';
			server.once('exit', (code) => failed(new Error(`It ended with ${code}: ${said}`)));
			server.stderr.on('data', (data: Buffer) => {
				said += data.toString();
				const at = /Kephalon is at (\S+)/.exec(said)?.[1];
				if (at) found(at);
			});
		});
		await browser.driver.get(address);
		await bench.waitForText('[data-testid=greeting]', /Welcome to Kephalon.*npm run demo/s);
		expect(await violationsOf(browser.driver)).toEqual([]);
		const body = JSON.stringify({ name: 'S', base: 'https://s.example/', source: { kind: 'hand' } });
		const headers = { 'content-type': 'application/json' };
		expect((await fetch(`${address}/api/v1/sites`, { method: 'POST', headers, body })).status).toBe(200);
		await browser.driver.get(address);
		await bench.waitForText('[data-testid=answer]', /Nothing is released yet/);
		await browser.driver.get(`${address}/setup`);
		await bench.waitForText('main', /Where its content comes from/);
		await gone('[data-testid=greeting]');
	} finally {
		server.kill();
		rmSync(folder, { recursive: true, force: true });
	}
});

test('what takes long goes on in the bar when its room is left, and is stopped there', async () => {
	await browser.driver.get(`${demo.kephalon}/overview/${site()}`);
	const served = '[data-testid=served]';
	await bench.waitForText(served, /Compare all pages now/);
	await (await browser.driver.findElement(By.xpath('//button[contains(.,"Compare all pages now")]'))).click();
	await bench.waitForText(`${served} [data-testid=work]`, /Looking at what is served: [1-9]\d* of \d+/);
	expect(await browser.driver.findElements(By.css('[data-testid=work-away]'))).toEqual([]);
	await (await browser.driver.findElement(By.linkText('Findings'))).click();
	await bench.waitForText('[data-testid=work-away]', /Looking at what is served: \d+ of \d+.*Stop/s);
	expect(await violationsOf(browser.driver)).toEqual([]);
	await (await bench.find('[data-testid=work-away] button')).click();
	await bench.waitForText('[data-testid=work-away]', /Close/);
	await (await bench.find('[data-testid=work-away] button')).click();
	await gone('[data-testid=work-away]');
});

test('what is seldom done on the bench stands in its menu, by key, each with its own', async () => {
	await bench.open('/walks/low-tide-for-beginners');
	const more = await bench.find('[data-button=more]');
	await browser.driver.executeScript('arguments[0].focus()', more);
	await more.sendKeys(Key.ENTER);
	await bench.waitForText('[role=menu]', /Settings of the site.*A new page\s*Alt\+N/s);
	expect(await violationsOf(browser.driver)).toEqual([]);
	const active = () => browser.driver.switchTo().activeElement();
	for (let steps = 0; steps < 12 && !/^Settings of its type/.test(await active().getText()); steps++)
		await active().sendKeys(Key.ARROW_DOWN);
	await active().sendKeys(Key.ENTER);
	await bench.find('[data-settings][data-panel=type]');
});

test('on a telephone a chosen tag’s layers are in view; one mends a title and gets back', async () => {
	await browser.driver.manage().window().setRect({ width: 390, height: 844 });
	try {
		await bench.open('/walks/winter-waders');
		await (await bench.find('[data-tag="og:description"]')).click();
		const isIn = (at: string) =>
			browser.driver.executeScript(
				'const box = document.querySelector(arguments[0]).getBoundingClientRect(); return box.top >= -2 && box.top < innerHeight - 100',
				at
			);
		await browser.driver.wait(() => isIn('.stack h2'), 8000);
		await (await bench.find('[data-layer=page] .cm-content')).click();
		await bench.find('[data-layer=page] .cm-content:not(.plain)');
		await typeIn(browser.driver, 'Said on the way');
		await bench.waitForText('[data-tag="og:description"] .value', /Said on the way/);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		await (await browser.driver.findElement(By.xpath('//button[starts-with(normalize-space(),"All tags")]'))).click();
		await browser.driver.wait(() => isIn('.line.chosen'), 8000);
		expect(await browser.driver.executeScript('return document.documentElement.scrollWidth')).toBeLessThanOrEqual(390);
	} finally {
		await browser.driver.manage().window().setRect({ width: 1280, height: 900 });
	}
});

test('taking back says what it took back, where it stands; doing it again says that', async () => {
	await bench.open('/about');
	await (await bench.find('[data-layer=page] .cm-content')).click();
	await bench.find('[data-layer=page] .cm-content:not(.plain)');
	await typeIn(browser.driver, 'Said for a moment');
	await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
	await (await bench.find('[data-tag="og:type"]')).click();
	await browser.driver.executeScript('document.activeElement.blur()');
	await bench.press(Key.CONTROL, 'z');
	const line = '[data-layer=page] [data-testid=undone]';
	await bench.waitForText(line, /^Taken back: title at \/about: nothing became “Said for a moment”\. Do it again$/);
	expect(await browser.driver.findElements(By.css('.line.chosen[data-tag=title]'))).toHaveLength(1);
	await (await bench.find(`${line} button`)).click();
	await bench.waitForText(line, /^Done again: title at \/about.*Take it back$/);
	await (await bench.find(`${line} button`)).click();
	await bench.waitForText(line, /^Taken back: /);
});
