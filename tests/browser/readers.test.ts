import { By, until, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** What readers keep, from the room; and findings that are mended by an edit. On the whole demo. */

let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
beforeAll(async () => {
	demo = await startDemo({ few: false });
	browser = await openBrowser();
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const site = () => encodeURIComponent(demo.site);
const find = (css: string): Promise<WebElement> => browser.driver.wait(until.elementLocated(By.css(css)), 15_000);
const says = (css: string, wanted: RegExp, patience = 20_000) =>
	browser.driver.wait(
		async () =>
			wanted.test(
				await browser.driver
					.findElement(By.css(css))
					.getText()
					.catch(() => '')
			),
		patience,
		`${css} never said ${wanted}`
	);
const press = async (name: string, within = 'body') =>
	browser.driver.executeScript(
		'[...document.querySelectorAll(arguments[1] + " button")].find((one) => one.textContent.trim().startsWith(arguments[0])).click()',
		name,
		within
	);

test('a change is released; the readers that still show it old are known, told, and follow as far as they let themselves be told', async () => {
	await browser.driver.get(`${demo.kephalon}/readers/${site()}`);
	await says('[data-testid=kept]', /Nobody has been asked yet/);
	await press('Ask what they show', '[data-testid=kept]');
	await says(
		'[data-testid=kept] .lead',
		/All [\d,]+ cards that readers show are as released, of \d+ pages? that/,
		60_000
	);

	const edit = await fetch(`${demo.kephalon}/api/sites/${site()}/rules`, {
		method: 'PUT',
		headers: { 'content-type': 'application/json', origin: demo.kephalon },
		body: JSON.stringify({
			place: { layer: 'page', path: '/visit' },
			tag: 'og:title',
			body: { kind: 'template', template: 'Come and see the shore' }
		})
	});
	expect(edit.status).toBe(200);
	const release = await fetch(`${demo.kephalon}/api/sites/${site()}/release`, {
		method: 'POST',
		headers: { 'content-type': 'application/json', origin: demo.kephalon },
		body: '{}'
	});
	expect(release.status).toBe(200);
	await browser.driver.navigate().refresh();
	await says('[data-testid=kept] .lead', /old cards are out there/);
	await says('[data-testid=old-cards]', /Come and see the shore/);
	await browser.driver.get(`${demo.kephalon}/overview/${site()}`);
	await says('[data-testid=old]', /cards out there are old/);
	await browser.driver.get(`${demo.kephalon}/readers/${site()}`);
	await says('[data-testid=kept] .lead', /old cards are out there/);
	await press('Tell them to fetch again', '[data-testid=kept]');
	await says('[data-testid=kept]', /gangway, \/visit: it fetched again/, 60_000);
	await says('[data-testid=old-cards]', /nothing makes it fetch before its time/);
	expect(await (await find('[data-testid=old-cards]')).getText()).not.toMatch(/Gangway|Ropewalk/);
	expect(await violationsOf(browser.driver)).toEqual([]);
});

test('a finding is mended by an edit whose reach is shown, and taken back', async () => {
	await browser.driver.get(`${demo.kephalon}/findings/${site()}`);
	await says('[data-code=gap]', /page\.price left a gap/);
	await (await find('[data-code=gap] .mends [data-button=link]')).click();
	await says('[data-code=gap] [data-testid=mend-reach]', /1 page would change/);
	await (await find('[data-code=gap] .mends [data-button=main]')).click();
	await says('[data-testid=told]', /^Mended: description for every shop item/);
	await browser.driver.wait(
		async () => (await browser.driver.findElements(By.css('[data-code=gap]'))).length === 0,
		15_000
	);
	await press('Take it back', '[data-testid=told]');
	await says('[data-code=gap]', /page\.price left a gap/);
	expect(await violationsOf(browser.driver)).toEqual([]);
});

test('versions that are named one way are all named back at once', async () => {
	await says('[data-code=version-one-way]', /is not named back, and \d more like it/);
	await press('All', '[data-code=version-one-way]');
	await says('[data-code=version-one-way] [data-testid=mend-reach]', /links change, and nothing else/);
	await (await find('[data-code=version-one-way] .mends [data-button=main]')).click();
	await says('[data-testid=told]', /^Mended: All/);
	await browser.driver.wait(
		async () => (await browser.driver.findElements(By.css('[data-code=version-one-way]'))).length === 0,
		15_000
	);
});
