import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { atRest, BenchPage, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** A source of live data, said and tried in the settings of a type; templates tried on what it has; its heads delivered. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;
let source: Server;
let origin = '';

beforeAll(async () => {
	source = createServer((request, response) => {
		if (request.url === '/404.json') return void response.writeHead(404).end();
		response.writeHead(200, { 'content-type': 'application/json', 'cache-control': 'max-age=60' });
		response.end(JSON.stringify({ name: `Boat ${request.url}`, about: { text: 'A day boat for two.' } }));
	}).listen(0, '127.0.0.1');
	await new Promise((done) => source.once('listening', done));
	origin = `http://127.0.0.1:${(source.address() as AddressInfo).port}`;
	vi.stubEnv('KEPHALON_SOURCES', JSON.stringify([origin]));
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
}, 120_000);
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
	source.closeAllConnections();
	source.close();
	vi.unstubAllEnvs();
});

const group = '[data-group="Live data"]';
async function openSettings() {
	await bench.open('/walks/low-tide-for-beginners');
	await browser.driver.get(
		`${demo.kephalon}/bench/${encodeURIComponent(demo.site)}?page=/walks/low-tide-for-beginners&at=type`
	);
	const opener = await bench.find(`${group} button`);
	if ((await opener.getAttribute('aria-expanded')) !== 'true') await opener.click();
	await atRest(browser.driver);
}
const field = (name: string) =>
	browser.driver.findElement(
		By.xpath(`//label[.//span[starts-with(normalize-space(),"${name}")]]//*[self::input or self::textarea]`)
	);

test('a source is said, told while it is none, and tried before it is kept', async () => {
	await openSettings();
	await (await field('Paths of its pages')).sendKeys('/boats/{id}');
	await (await field('Address of a record')).sendKeys(`${origin}/{slug}.json`);
	await bench.waitForText(group, /no source yet: its address asks for {slug}/);
	await (await field('Address of a record')).sendKeys(Key.chord(Key.CONTROL, 'a'), `${origin}/{id}.json`);
	const mapped = await bench.find('#mapped-title');
	await mapped.sendKeys('/name', Key.TAB);
	await (await bench.find('#mapped-summary')).sendKeys('$.about.nothing', Key.TAB);
	await browser.driver.findElement(By.css(`${group} form input`)).sendKeys('/boats/7', Key.ENTER);
	await bench.waitForText(`${group} [data-testid=record-of]`, /7\.json has 1 of its fields/);
	expect(await bench.textOf(`${group} [data-mapped=title]`)).toBe('Boat /7.json');
	expect(await bench.textOf(group)).toContain('nothing there');
	expect(await violationsOf(browser.driver)).toEqual([]);
	const before = (await (await fetch(`${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}`)).json()) as {
		types: { name: string; source?: unknown }[];
	};
	expect(before.types.find(({ name }) => name === 'walk')!.source).toBeUndefined();
});

test('kept and released, heads of its pages are delivered; templates are tried on it by a path', async () => {
	const api = `${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}`;
	const post = (path: string, method: string, body: object) =>
		fetch(api + path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
	const changes = {
		source: { path: '/boats/{id}', address: `${origin}/{id}.json`, samples: ['/boats/404'] },
		mapping: { title: '/name' }
	};
	expect((await post('/settings', 'PATCH', { place: { layer: 'type', name: 'walk' }, changes })).status).toBe(200);
	await bench.open('/walks/low-tide-for-beginners');
	const opener = await bench.find('[data-layer=type]');
	await opener.findElement(By.xpath(`.//button[starts-with(normalize-space(),"On hard pages")]`)).click();
	await bench.waitForText('[role=dialog]', /\/boats\/404/);
	expect(await bench.textOf('[role=dialog]')).toContain('Its record could not be had. It answered 404.');
	await browser.driver.findElement(By.css('[role=dialog] form input')).sendKeys('/boats/12', Key.ENTER);
	await bench.waitForText('[role=dialog]', /Boat \/12\.json/);
	expect((await post('/release', 'POST', {})).status).toBe(200);
	const head = await fetch(`${api}/head?path=/boats/9`);
	expect(await head.text()).toContain('<title>Boat /9.json');
});
