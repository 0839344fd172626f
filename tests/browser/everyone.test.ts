import { By, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { weakContrasts } from './contrast';
import { atRest, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** Every view of the application, for whoever uses it and on whatever screen. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	// What the page's policy refuses, from its first moment.
	await browserItself().sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
		source: `window.refusals = [];
			addEventListener('securitypolicyviolation', ({ violatedDirective, sample }) => refusals.push(violatedDirective + ' ' + sample));`
	});
});
const refusedByPolicy = () => browser.driver.executeScript<string[]>('return window.refusals');
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const ROOMS = ['overview', 'pages', 'findings', 'readers', 'library', 'releases'].map((room) => `/${room}/{site}`);
const BENCH = ['', '&view=markup', '&view=cards', '&view=share', '&at=page', '&at=fields', '&at=versions', '&at=own'];
const LAYERS = ['&at=type', '&at=site', '&tag=og:image', '&at=picture&tag=og:image', '&tag=robots'];
const VIEWS = [
	...[
		'/sites',
		'/people',
		'/account',
		'/setup',
		'/programs',
		'/parts',
		'/panel/{site}',
		'/panel/{site}/open',
		'/setup?site={site}',
		'/bench/{site}?page=/no/such'
	],
	...ROOMS,
	...[...BENCH, ...LAYERS].map((rest) => `/bench/{site}?page=/reserves/gannet-head${rest}`)
];
async function open(view: string) {
	await browser.driver.get(demo.kephalon + view.replace('{site}', encodeURIComponent(demo.site)));
	await browser.driver.wait(until.elementLocated(By.css('main')), 15_000);
	// What is not in view at first comes when it is asked for.
	await atRest(browser.driver);
}
const browserItself = () =>
	browser.driver as unknown as { sendDevToolsCommand(name: string, more: object): Promise<void> };
async function resize(width: number, height: number) {
	const chrome = await browser.driver.executeScript<number>('return window.outerHeight - window.innerHeight');
	await browser.driver
		.manage()
		.window()
		.setRect({ width, height: height + chrome });
}

describe.each(['light', 'dark'])('in %s colours', (scheme) => {
	let measured = 0;
	beforeAll(async () => {
		const features = [{ name: 'prefers-color-scheme', value: scheme }];
		await browserItself().sendDevToolsCommand('Emulation.setEmulatedMedia', { features });
		// What scrolls in a column of its own stands there whole.
		await resize(1280, 3900);
	});

	test.each(VIEWS)(
		'axe-core finds nothing on %s, and what it leaves undecided on contrast stands out enough',
		async (view) => {
			await open(view);
			expect(await violationsOf(browser.driver)).toEqual([]);
			expect(await refusedByPolicy()).toEqual([]);
			const contrasts = await weakContrasts(browser.driver);
			expect(contrasts.weak).toEqual([]);
			measured += contrasts.measured;
		}
	);

	test('contrasts were measured; one that is too weak is told, and a style that is refused', async () => {
		expect(measured).toBeGreaterThan(100);
		await open('/findings/{site}');
		await browser.driver.executeScript(`document.body.insertAdjacentHTML('beforeend', '<p style="color: red">x</p>')`);
		expect(await refusedByPolicy()).toEqual([expect.stringContaining('style-src-attr')]);
		await browser.driver.executeScript(
			`const style = document.createElement('style');
			style.nonce = document.body.nonce;
			style.textContent = 'td a { color: var(--color-sea-wash) !important }';
			document.head.append(style);`
		);
		expect((await weakContrasts(browser.driver)).weak.length).toBeGreaterThan(10);
	});
});

test.each(VIEWS)('nothing of %s needs sideways scrolling, down to a phone’s width', async (view) => {
	await resize(1280, 800);
	await open(view);
	// 640 is 1280 at 200 %.
	for (const width of [768, 640, 390]) {
		await resize(width, 800);
		await atRest(browser.driver);
		const over = await browser.driver.executeScript<number[]>(
			`const inside = [document.documentElement, ...document.querySelectorAll('main')].map((one) => one.scrollWidth - one.clientWidth);
			const charts = [...document.querySelectorAll('figure svg')].map((one) => one.clientWidth - one.closest('figure').clientWidth);
			return [...inside, ...charts];`
		);
		expect({ width, over: over.filter((one) => one > 0) }).toEqual({ width, over: [] });
	}
});
