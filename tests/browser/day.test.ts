import { By, Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, type RunningDemo } from './demo';

/** A day's work without a dead end: what one has begun is found, whatever room one is in. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const open = (room: string, query = '') =>
	browser.driver.get(`${demo.kephalon}/${room}/${encodeURIComponent(demo.site)}${query}`);
const click = async (css: string, text: RegExp) => {
	await browser.driver.wait(
		async () => {
			for (const one of await browser.driver.findElements(By.css(css)))
				if (text.test(await one.getText().catch(() => '')) && (await one.isEnabled())) {
					await one.click();
					return true;
				}
			return false;
		},
		10_000,
		`nothing to click that says ${text}`
	);
};
const gone = (css: string) =>
	browser.driver.wait(
		async () => (await browser.driver.findElements(By.css(css))).length === 0,
		10_000,
		`${css} stays`
	);

describe('what waits to be kept', () => {
	test('is found from another room, named with its place and reach, and kept there', async () => {
		await bench.open('/reserves/gannet-head');
		await bench.write('title', 'type', '{page.title}, a reserve');
		await bench.waitForText('[data-testid=saved]', /1 edit waits/);
		await open('overview');
		await click('.waiting', /One edit waits/);
		await bench.waitForText('[data-testid=waiting]', /title of every reserve[\s\S]*\{page\.title\}, a reserve/);
		await bench.waitForText('[data-testid=waiting] [data-testid=reach]', /\d+ pages? would change/);
		await click('[data-testid=waiting] button', /^Keep/);
		await bench.waitForText('[data-testid=sheet]', /Nothing waits any more/);
		await browser.driver.actions().sendKeys(Key.ESCAPE).perform();
		await gone('.waiting');
		await bench.open('/reserves/gannet-head');
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		await bench.waitForText('[data-tag=title] .value', /^Gannet Head, a reserve/);
	});

	test('Release leads to it instead of doing nothing, and goes on once it is decided', async () => {
		await bench.open('/reserves/gannet-head');
		await (await bench.find('[data-tag=description]')).click();
		await bench.write('description', 'type', 'On {page.title}.');
		await bench.waitForText('[data-testid=saved]', /1 edit waits/);
		// From a tag and a page at which nothing of it is to be seen.
		await bench.open('/about');
		await bench.press(Key.CONTROL, Key.ENTER);
		await bench.waitForText('[data-testid=sheet-title]', /Before the release/);
		await bench.waitForText('[data-testid=waiting]', /description of every reserve/);
		await click('[data-testid=waiting] a', /See it where it stands/);
		await bench.waitForText('[data-layer=type]', /description|On \{page\.title\}/);
		await bench.waitForText('.mover-path', /^\/reserves\//);
		await bench.press(Key.CONTROL, Key.ENTER);
		await click('[data-testid=sheet] button', /^Keep it, then release/);
		await bench.waitForText('[data-testid=told]', /Release \d+ is out/);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});

	test('is given up from another room, and is gone from the bench', async () => {
		await bench.open('/reserves/gannet-head');
		await bench.write('title', 'site', 'Nothing but this');
		await bench.waitForText('[data-testid=saved]', /1 edit waits/);
		await open('pages');
		await click('.waiting', /One edit waits/);
		await click('[data-testid=waiting] button', /^Take back/);
		await bench.waitForText('[data-testid=sheet]', /Nothing waits any more/);
		await bench.open('/reserves/gannet-head');
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		expect(await bench.textOf('[data-layer=site]')).not.toContain('Nothing but this');
	});

	test('in settings its reach and Keep are in view wherever the hand is', async () => {
		await open('bench', '?type=reserve&at=type');
		const box = await browser.driver.wait(
			until.elementLocated(By.xpath('//*[@data-settings="type"]//label[contains(., "Switched off")]//input')),
			10_000
		);
		await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', box);
		await box.click();
		await bench.waitForText('[data-testid=settings-draft]', /\d+ pages? would leave the site/);
		const isInView = await browser.driver.executeScript<boolean>(
			`
			const { top, bottom } = document.querySelector('[data-testid=settings-draft] [data-testid=reach]').getBoundingClientRect();
			const box = arguments[0].getBoundingClientRect();
			return top >= 0 && bottom <= innerHeight && box.top >= 0 && box.bottom <= top;`,
			box
		);
		expect(isInView).toBe(true);
		await click('[data-testid=settings-draft] button', /^Take back/);
		// A field that is added is not shown as if it were kept.
		await (await bench.find('[aria-label="Name of a new field"]')).sendKeys('tides', Key.ENTER);
		await bench.waitForText('[data-field=tides]', /not kept yet/);
		await click('[data-testid=settings-draft] button', /^Keep/);
		await browser.driver.wait(async () => !/not kept yet/.test(await bench.textOf('[data-field=tides]')), 10_000);
	});
});

describe('the keys', () => {
	const keys = (...all: string[]) => bench.press(...all);
	/** What has the focus: never the page as a whole; and whether it is in view. */
	const focused = () =>
		browser.driver.executeScript<{ what: string; isInView: boolean }>(`
			const one = document.activeElement;
			const { top, bottom } = one.getBoundingClientRect();
			return {
				what: one === document.body ? 'the page' : (one.dataset.tag ?? one.dataset.panel ?? one.getAttribute('aria-label') ?? one.id ?? ''),
				isInView: bottom > 0 && top < innerHeight
			};`);
	const comesTo = async (what: RegExp) => {
		let seen = { what: '', isInView: false };
		await browser.driver
			.wait(async () => what.test((seen = await focused()).what) && seen.isInView, 10_000)
			.catch(() => Promise.reject(new Error(`The focus is at “${seen.what}”, ${seen.isInView ? '' : 'not '}in view`)));
	};
	const fromPalette = async (words: string) => {
		await keys(Key.CONTROL, 'k');
		await (await bench.find('[data-testid=palette-input]')).sendKeys(words);
		await bench.waitForText('[data-testid=palette-results]', new RegExp(words, 'i'));
		await keys(Key.ENTER);
		await gone('[data-testid=palette]');
	};

	test('never lead nowhere: from the palette to a far tag and to a setting, through the panels, after making a page', async () => {
		await bench.open('/visit');
		await fromPalette('twitter:image:alt');
		await comesTo(/^twitter:image:alt$/);
		await fromPalette('Time zone');
		await comesTo(/^site$/);
		// It shows what was asked for, and nothing beside it.
		await bench.waitForText('[data-settings=site] .setting:not([hidden]) .name', /^Time zone/);
		for (const [key, panel] of [
			['5', 'own'],
			['6', 'versions'],
			['7', 'page']
		] as const) {
			await keys(Key.ALT, key);
			await comesTo(new RegExp(`^${panel}$`));
		}
		await keys(Key.ALT, '7');
		await comesTo(/^twitter:image:alt$/);
		await keys(Key.ALT, 'n');
		await (await bench.find('[data-testid=sheet] input')).sendKeys('A page made by hand', Key.ENTER);
		await bench.waitForText('.mover-path', /a-page-made-by-hand/);
		await comesTo(/^fields$/);
	});

	test('set a finding aside and go on with the next', async () => {
		await open('findings');
		const aside = await bench.find('li[data-code]');
		const code = (await aside.getAttribute('data-code')) ?? '';
		await browser.driver.executeScript(
			`[...document.querySelectorAll('li[data-code=' + arguments[0] + '] button')].at(-1).click()`,
			code
		);
		await (await bench.find(`li[data-code=${code}] input`)).sendKeys('on purpose', Key.ENTER);
		await bench.waitForText('.aside', /on purpose/);
		await browser.driver.wait(async () => (await focused()).what !== 'the page', 10_000, 'The focus is lost');
	});
});

describe('what one looks for', () => {
	test('among settings is found by typing; what is set is marked and counted; a group stays as one left it', async () => {
		await open('bench', '?page=%2Fvisit&at=site');
		await (await bench.find('[data-testid=find-setting]')).sendKeys('twitter:site');
		await bench.waitForText('[data-settings=site] .setting:not([hidden]) .name', /^Account/);
		expect(
			await browser.driver.executeScript(`return document.querySelectorAll('.setting:not([hidden])').length`)
		).toBe(1);
		await bench.waitForText('[data-group^="Publisher"]', /· \d set[\s\S]*set here/);
		// In another panel nothing is hidden by it, and it is gone when one comes back.
		await bench.press(Key.ALT, '4');
		await bench.waitForText('[data-panel=fields]', /Lead picture/);
		expect(await browser.driver.findElements(By.css('[data-panel=fields] .setting[hidden]'))).toEqual([]);
		await open('bench', '?page=%2Fvisit&at=site');
		await bench.waitForText('[data-group="Pictures"]', /Share picture/);
		await (await bench.find('[data-group="Pictures"] button')).click();
		await bench.open('/visit');
		await open('bench', '?page=%2Fvisit&at=site');
		const button = await bench.find('[data-group="Pictures"] [data-disclosure] > button');
		expect(await button.getAttribute('aria-expanded')).toBe('false');
		await button.click();
		expect(await button.getAttribute('aria-expanded')).toBe('true');
	});

	test('types stand in a list, also those without a page, whose first page is made from there', async () => {
		await open('bench', '?page=%2Fvisit&at=type');
		await (await bench.find('[data-disclosure="Another type"] > button')).click();
		await (await bench.find('[aria-label="Name of a new type"]')).sendKeys('recipe', Key.ENTER);
		await open('bench', '?page=%2Fvisit&at=site');
		await bench.waitForText('[data-testid=types]', /recipe[\s\S]*no pages yet · 0 fields · 0 rules/);
		await click('[data-testid=types] button', /Make its first page/);
		await (await bench.find('[data-testid=sheet] input')).sendKeys('Samphire', Key.ENTER);
		await bench.waitForText('.mover-path', /samphire/);
		await bench.waitForText('[data-layer=type] .name, [data-settings]', /This page/);
		expect(await browser.driver.getTitle()).toContain('/samphire');
	});
});
