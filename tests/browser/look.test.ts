import { By, Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** How everything looks, by choice of whoever looks, without a pointer. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

async function open(room: string) {
	await browser.driver.get(`${demo.kephalon}/${room}/${encodeURIComponent(demo.site)}`);
	await browser.driver.wait(until.elementLocated(By.css('main')), 15_000);
	await atRest(browser.driver);
}
const keys = (...all: string[]) =>
	browser.driver
		.actions()
		.sendKeys(...all)
		.perform();
const shown = () =>
	browser.driver.executeScript<{ look: string; ground: string; space: string; row: number }>(`
		const { look, space } = document.documentElement.dataset;
		return { look, space, ground: getComputedStyle(document.body).backgroundColor, row: document.querySelector('nav.rooms').offsetHeight };`);
const DARK = 'rgb(13, 20, 19)';
const LIGHT = 'rgb(233, 237, 234)';
/** Opens the menu by its key: again, until the page has come to life. */
async function openMenu() {
	await browser.driver.wait(
		async () => {
			if (await browser.driver.executeScript(`return document.activeElement.closest('[role=menu]') !== null`))
				return true;
			await browser.driver.executeScript(
				`[...document.querySelectorAll('nav.rooms button')].find((one) => one.textContent.trim() === 'Look').focus()`
			);
			await keys(Key.ENTER);
			await atRest(browser.driver);
			return false;
		},
		15_000,
		'the menu never came'
	);
}
async function choose(words: string) {
	await openMenu();
	const isThere = () =>
		browser.driver.executeScript<boolean>(
			"return document.activeElement.matches('[role=menuitemradio]') && document.activeElement.textContent.includes(arguments[0])",
			words
		);
	for (let steps = 0; !(await isThere()) && steps < 8; steps++) await keys(Key.ARROW_DOWN);
	expect(await isThere(), words).toBe(true);
	await keys(Key.ENTER);
	await keys(Key.ESCAPE);
	await browser.driver.wait(
		async () => (await browser.driver.findElements(By.css('[role=menu]'))).length === 0,
		5000,
		'the menu stays'
	);
}

test('dark, light, denser, roomier: at once, in every room, and the next time', async () => {
	await open('overview');
	const before = await shown();
	expect(before).toMatchObject({ look: 'system', space: 'usual', ground: LIGHT });
	await choose('dark');
	expect(await shown()).toMatchObject({ look: 'dark', ground: DARK });
	await choose('denser');
	const dense = await shown();
	expect(dense.row).toBeLessThan(before.row);
	// The focus is where it was.
	expect(await browser.driver.executeScript('return document.activeElement.textContent.trim()')).toBe('Look');
	for (const room of ['pages', 'bench', 'findings']) {
		await open(room);
		expect(await shown()).toMatchObject({ look: 'dark', space: 'dense', ground: DARK });
		expect(await violationsOf(browser.driver)).toEqual([]);
	}
	// What is drawn by its own code follows.
	const inked = () =>
		browser.driver.executeScript<string>(`return document.querySelector('.apexcharts-text').getAttribute('fill')`);
	await browser.driver.wait(until.elementLocated(By.css('.apexcharts-text')), 15_000);
	const dark = await inked();
	await choose('roomier');
	expect((await shown()).row).toBeGreaterThan(before.row);
	await choose('light');
	await browser.driver.wait(async () => (await inked().catch(() => dark)) !== dark, 5000, 'the charts stay dark');
	await open('pages');
	const rows = await browser.driver.executeScript<[number, number][]>(
		`return [...document.querySelectorAll('.all .line')].map((one) => one.getBoundingClientRect()).map(({ top, bottom }) => [top, bottom]).sort((a, b) => a[0] - b[0])`
	);
	expect(rows.length).toBeGreaterThan(10);
	for (const [at, [top]] of rows.slice(1).entries()) expect(top).toBeCloseTo(rows[at]![1], 0);
	await open('releases');
	expect(await shown()).toMatchObject({ look: 'light', space: 'roomy', ground: LIGHT });
	await choose('as the system');
	await choose('as usual');
	expect(await shown()).toEqual(before);
});

test('the menu itself breaks no rule of axe-core, light and dark', async () => {
	for (const words of ['dark', 'light']) {
		await open('overview');
		await choose(words);
		await openMenu();
		expect(await violationsOf(browser.driver)).toEqual([]);
		await keys(Key.ESCAPE);
	}
});

test('a sheet is closed by its word and by Escape; the palette offers pages before anything is typed', async () => {
	await open('bench');
	const isThere = async (selector: string) => (await browser.driver.findElements(By.css(selector))).length > 0;
	for (const close of [
		() => browser.driver.executeScript(`document.querySelector('[data-testid=sheet] > [data-dialog-close]').click()`),
		() => keys(Key.ESCAPE)
	]) {
		await browser.driver.executeScript('document.activeElement.blur()');
		await keys('?');
		await browser.driver.wait(until.elementLocated(By.css('[data-testid=sheet]')), 5000);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await close();
		await browser.driver.wait(async () => !(await isThere('[data-testid=sheet]')), 5000, 'the sheet stays');
	}
	await browser.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
	await browser.driver.wait(until.elementLocated(By.css('[data-testid=palette-results]')), 5000);
	await browser.driver.wait(
		async () => /\nPages\n/.test(await browser.driver.findElement(By.css('[data-testid=palette-results]')).getText()),
		5000,
		'no pages are offered'
	);
});

describe('the parts', () => {
	const at = (label: string) => browser.driver.findElement(By.css(`[data-select][aria-label="${label}"]`));
	const there = (css: string) => browser.driver.wait(until.elementLocated(By.css(css)), 10_000, `${css} never came`);
	const goesBy = async (css: string) => {
		await keys(Key.ESCAPE);
		await browser.driver.wait(
			async () => (await browser.driver.findElements(By.css(css))).length === 0,
			5000,
			`${css} stays`
		);
	};

	test.each([
		['light', 'usual'],
		['dark', 'usual'],
		['light', 'dense'],
		['dark', 'roomy']
	])('break no rule of axe-core in any state: %s, %s', async (look, space) => {
		await browser.driver.get(`${demo.kephalon}/parts`);
		await browser.driver.executeScript(
			'Object.assign(document.documentElement.dataset, { look: arguments[0], space: arguments[1] })',
			look,
			space
		);
		expect(await violationsOf(browser.driver)).toEqual([]);
		for (const [label, opened] of [
			['One of a few', '[role=option]'],
			['One of many', '[aria-label^="Search among"]']
		] as const) {
			await (await at(label)).click();
			await there(opened);
			await atRest(browser.driver);
			expect(await violationsOf(browser.driver), label).toEqual([]);
			await goesBy(opened);
			// The focus is where it was.
			expect(await browser.driver.switchTo().activeElement().getAttribute('aria-label')).toBe(label);
		}
	});

	test('a select in a sheet opens over the sheet, and Escape closes the list alone', async () => {
		await browser.driver.get(`${demo.kephalon}/parts`);
		await browser.driver.executeScript(
			`[...document.querySelectorAll('button')].find((one) => one.textContent === 'A sheet').click()`
		);
		await there('[data-testid=sheet]');
		await (await at('In a sheet')).click();
		await (await there('[data-choice=summary_large_image]')).click();
		await browser.driver.wait(async () => (await (await at('In a sheet')).getText()).startsWith('A large card'), 5000);
		await (await at('In a sheet')).click();
		await there('[role=option]');
		await goesBy('[role=option]');
		expect(await browser.driver.findElements(By.css('[data-testid=sheet]'))).toHaveLength(1);
		await goesBy('[data-testid=sheet]');
	});

	test('what is cut off is said in full where the pointer rests', async () => {
		await browser.driver.get(`${demo.kephalon}/parts`);
		await browser.driver
			.actions()
			.move({ origin: await browser.driver.findElement(By.css('[data-testid=cut]')) })
			.perform();
		expect(await (await there('[role=tooltip]')).getText()).toBe(
			'A text that is cut off where there is no room for all of it'
		);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await goesBy('[role=tooltip]');
	});
});
