import { afterAll, beforeAll, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

const PATH = '/reserves/gannet-head';
const OWN = 'Forty thousand gannets, as the warden wrote it before there was a template.';

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
	const answer = await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/settings`, {
		method: 'PATCH',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({
			place: { layer: 'page', path: PATH },
			changes: { found: [{ name: 'description', value: OWN }] }
		})
	});
	expect(answer.status).toBe(200);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const button = (text: string) =>
	browser.driver.executeScript<void>(
		`[...document.querySelectorAll('button')].find((one) => one.textContent.trim() === arguments[0]).click()`,
		text
	);

test('what the page’s own file says goes out, with its sign; a template counts the pages that keep it, and is let win', async () => {
	await bench.open(PATH);
	await (await bench.find('[data-tag=description]')).click();
	expect(await bench.valueOf('description')).toContain(OWN);
	expect(await bench.textOf('[data-testid=found]')).toMatch(/As found in the page:\s*Forty thousand gannets.*used/s);
	expect(await (await bench.find('[data-tag=description] .mark')).getAttribute('aria-label')).toBe(
		'as found in the page'
	);
	expect(await violationsOf(browser.driver)).toEqual([]);
	await bench.write('description', 'type', 'A reserve in {page.region}.');
	await bench.waitForText('[data-layer=type] [data-testid=reach]', /1 page says it in its own file, and keeps that/);
	expect(await bench.valueOf('description')).toContain(OWN);
	await button('Let the template win');
	await browser.driver.wait(
		async () => (await bench.valueOf('description')).startsWith('A reserve in West Merrow'),
		10_000
	);
	expect(await bench.textOf('[data-testid=found]')).toContain('not needed');
});

test('it is taken over as the page’s own rule', async () => {
	await browser.driver.navigate().refresh();
	await bench.waitForText('[data-testid=pending]', /release/);
	await (await bench.find('[data-tag=description]')).click();
	await button('Take it over');
	await browser.driver.wait(async () => (await bench.valueOf('description')).startsWith(OWN), 10_000);
	expect(await (await bench.find('[data-tag=description] .mark')).getAttribute('aria-label')).toBe('page');
});
